import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { Place, Wiring as Wired } from '@eager-ember/core';
import type { RulesetJson } from '../../shared/api';
import { CoreClient } from '../../shared/core-client';
import { documentFeature } from '../../store/document.reducer';
import { Editor } from '../../store/editor';
import { ChapterTabs } from '../chapter-tabs';
import { chapterOf } from '../chapters';
import { wayTo } from '../places';
import { type End, Wires } from './wires';

/** Places that are the same one for a reader: several in one entry are one, and so are all in the arena. */
function once(places: readonly Place[]): readonly Place[] {
  const seen = new Map<string, Place[]>();
  for (const place of places) {
    const key = `${place.chapter}/${place.id}`;
    seen.set(key, [...(seen.get(key) ?? []), place]);
  }
  return [...seen.values()].map((same) =>
    same[0].chapter === 'arena' && same.length > 1 ? { ...same[0], label: `The arena, ${same.length} times` } : same[0],
  );
}

/** Who emits, who listens, and what is left dangling, for any event and any entry of the ruleset. */
@Component({
  selector: 'ee-wiring',
  imports: [ChapterTabs, RouterLink, Wires],
  templateUrl: './wiring.html',
  styleUrl: './wiring.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Wiring {
  /** What is shown, from the address: an event's name, or `chapter/id` of an entry. */
  readonly event = input<string>();
  readonly entry = input<string>();
  private readonly client = inject(CoreClient);
  private readonly document = inject(Editor).document;
  private readonly router = inject(Router);
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly wiring = signal<Wired | undefined>(undefined);
  protected readonly failure = signal('');
  protected readonly search = signal('');
  /** Milliseconds that the worker took. */
  protected readonly took = signal(0);
  private turn = 0;

  /** Events that this ruleset has to do with come first. */
  protected readonly events = computed(() => {
    const all = (this.wiring()?.events ?? []).filter(({ event, label }) =>
      `${event} ${label}`.toLowerCase().includes(this.search().toLowerCase()),
    );
    return [...all].sort((a, b) => Number(b.listeners.length > 0) - Number(a.listeners.length > 0) || (a.label < b.label ? -1 : 1));
  });
  protected readonly groups = computed(() => {
    const groups = new Map<string, { title: string; entries: { key: string; label: string; reached: boolean }[] }>();
    for (const { chapter, id, label, reached } of this.wiring()?.entries ?? []) {
      if (!`${label} ${id}`.toLowerCase().includes(this.search().toLowerCase())) continue;
      const group = groups.get(chapter) ?? { title: chapterOf(chapter)?.title ?? chapter, entries: [] };
      group.entries.push({ key: `${chapter}/${id}`, label, reached });
      groups.set(chapter, group);
    }
    return [...groups.values()];
  });
  protected readonly chosenEvent = computed(() => {
    const all = this.wiring()?.events ?? [];
    if (this.entry() !== undefined) return undefined;
    return all.find(({ event }) => event === this.event()) ?? this.events().find(({ listeners }) => listeners.length > 0) ?? all[0];
  });
  protected readonly chosenEntry = computed(() => this.wiring()?.entries.find(({ chapter, id }) => `${chapter}/${id}` === this.entry()));

  protected readonly emitters = computed<readonly End[]>(() => {
    const event = this.chosenEvent();
    if (!event) return [];
    const ends = new Map<string, End>();
    for (const { place, action, reached } of event.emitters)
      ends.set(`${place.chapter}/${place.id}/${action ?? ''}`, {
        label: place.label,
        place,
        words: action === undefined ? `a ${chapterOf(place.chapter)?.one ?? place.chapter}, by itself` : `by the action ${action}`,
        ...(!reached && { missing: 'nothing brings it about' }),
      });
    return [...(event.core ? [{ label: 'The core itself', words: 'whatever the ruleset says' }] : []), ...ends.values()];
  });
  protected readonly listeners = computed<readonly End[]>(() =>
    (this.chosenEvent()?.listeners ?? []).map(({ place, words, missing }) => ({
      label: place.label,
      words,
      place,
      ...(missing !== undefined && { missing }),
    })),
  );
  protected readonly comes = computed<readonly End[]>(() => {
    const entry = this.chosenEntry();
    if (!entry) return [];
    const heard = entry.hears.flatMap(({ from, words, missing }): readonly End[] =>
      missing !== undefined
        ? [{ label: words, words: missing, missing }]
        : from.length === 0
          ? [{ label: 'The core itself', words: `heard: ${words}` }]
          : once(from).map((place) => ({ label: place.label, words: `heard: ${words}`, place })),
    );
    return [...once(entry.broughtAbout).map((place) => ({ label: place.label, words: 'brings it about', place })), ...heard];
  });
  protected readonly goes = computed<readonly End[]>(() => {
    const seen = new Map<string, End>();
    for (const { event, words, heardBy } of this.chosenEntry()?.causes ?? [])
      seen.set(`${event}/${words}`, {
        label: words,
        words:
          heardBy.length === 0
            ? 'nobody waits for it'
            : `heard by ${once(heardBy)
                .map(({ label }) => label)
                .join(', ')}`,
        event,
      });
    return [...seen.values()];
  });

  constructor() {
    effect(() => {
      const document = this.document();
      if (document) untracked(() => void this.compute(document));
    });
  }

  private async compute(document: RulesetJson): Promise<void> {
    const turn = ++this.turn;
    try {
      const { wiring, ms } = await this.client.core.wiring(document);
      if (turn !== this.turn) return;
      this.wiring.set(wiring);
      this.took.set(ms);
      this.failure.set('');
    } catch (error) {
      if (turn === this.turn) this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  protected show(what: { event?: string; entry?: string }): void {
    void this.router.navigate(['/r', this.ruleset(), 'rulebook', 'wiring'], { queryParams: what });
  }

  protected way(place: { chapter: string; id: string; path: string }) {
    return wayTo(this.ruleset() ?? '', place);
  }

  protected titleOf(chapter: string): string {
    return chapterOf(chapter)?.one ?? chapter;
  }
}
