import { computed, Injectable, signal } from '@angular/core';

/** What somebody wrote into a part, and why it is not taken. */
export interface KeptRefusal {
  readonly text: string;
  readonly message: string;
}

/** What was refused stays with its reason until it is mended or taken back, also while another entry is looked at. */
@Injectable({ providedIn: 'root' })
export class KeptRefusals {
  private readonly all = signal<ReadonlyMap<string, KeptRefusal>>(new Map());

  /** Where a part stands, in words that no other part has. */
  placeOf(chapter: string, id: string, at: string): string {
    return JSON.stringify([chapter, id, at]);
  }

  at(place: string): KeptRefusal | undefined {
    return this.all().get(place);
  }

  put(place: string, refusal: KeptRefusal | undefined): void {
    if (refusal === undefined && !this.all().has(place)) return;
    const next = new Map(this.all());
    if (refusal) next.set(place, refusal);
    else next.delete(place);
    this.all.set(next);
  }

  /** Another ruleset is opened. */
  clear(): void {
    this.all.set(new Map());
  }

  /** By `chapter/id`, what is refused of an entry, in words. */
  readonly byEntry = computed<Readonly<Record<string, string>>>(() => {
    const words: Record<string, string> = {};
    for (const [place, { text, message }] of this.all()) {
      const [chapter, id] = JSON.parse(place) as readonly string[];
      words[`${chapter}/${id}`] = `“${text}” is not taken: ${message}`;
    }
    return words;
  });
}
