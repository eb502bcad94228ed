import { effect, inject, Injectable, signal } from '@angular/core';
import type { Finding, Problem } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import { CoreClient } from '../shared/core-client';
import { entriesOf } from '../rulebook/entries';
import { Editor } from './editor';

/** A finding with the entry that it is about. */
export interface PlacedFinding extends Finding {
  readonly chapter: string;
  readonly id: string;
  readonly label: string;
}

/** How long after an edit the analysis begins: evidence comes first. */
const AFTER_MS = 150;

/** What the analysis says about the ruleset as it is now. */
@Injectable({ providedIn: 'root' })
export class Findings {
  private readonly editor = inject(Editor);
  private readonly client = inject(CoreClient);
  readonly all = signal<readonly PlacedFinding[]>([]);
  private turn = 0;

  constructor() {
    effect((onCleanup) => {
      const document = this.editor.document();
      const timer = setTimeout(() => void this.look(document), AFTER_MS);
      onCleanup(() => clearTimeout(timer));
    });
  }

  private async look(document: ReturnType<typeof this.editor.document>): Promise<void> {
    const turn = ++this.turn;
    if (!document) return this.all.set([]);
    const found = await this.client.core.findings(document).catch(() => []);
    if (turn !== this.turn) return;
    // An edit that is being tried out came first.
    if (!found) return void setTimeout(() => turn === this.turn && void this.look(document), AFTER_MS);
    this.all.set(
      found.map((finding) => {
        const [, chapter, position] = finding.path.split('/');
        const entry = entriesOf(document, chapter)[Number(position)];
        return { ...finding, chapter, id: entry?.id ?? '', label: entry?.label ?? chapter };
      }),
    );
  }

  /** Those about one entry. */
  of(chapter: string, id: string): readonly PlacedFinding[] {
    return this.all().filter((finding) => finding.chapter === chapter && finding.id === id);
  }

  /** Takes a finding's fix, as one edit. */
  fix(finding: Finding): Promise<readonly Problem[]> {
    const { fix } = finding;
    return fix ? this.editor.propose(() => fix.patch as readonly Operation[], fix.label) : Promise.resolve([]);
  }
}
