import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Evidence, Span, Use } from '@eager-ember/core';
import { Store } from '@ngrx/store';
import { CoreClient } from '../../shared/core-client';
import { documentFeature } from '../../store/document.reducer';
import { Editor } from '../../store/editor';
import { CHAPTERS, labelOf } from '../chapters';
import { EvidenceChart } from './evidence-chart';

interface Fact {
  readonly label: string;
  readonly before: string | undefined;
  readonly now: string;
  /** A figure rather than a sentence. */
  readonly short: boolean;
}

const TITLES: Readonly<Record<string, string>> = {
  attributes: 'Sixty seconds of it',
  effects: 'Applied twice',
  abilities: 'A minute of asking for it',
};

/** What follows from a spec: computed by the core in its worker at every edit, with the version before as a ghost. */
@Component({
  selector: 'ee-evidence',
  imports: [EvidenceChart, RouterLink],
  templateUrl: './evidence-page.html',
  styleUrl: './evidence-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EvidencePage {
  readonly chapter = input.required<string>();
  readonly id = input.required<string>();
  private readonly client = inject(CoreClient);
  private readonly document = inject(Editor).document;
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly now = signal<Evidence | undefined>(undefined);
  protected readonly before = signal<Evidence | undefined>(undefined);
  protected readonly uses = signal<readonly Use[]>([]);
  protected readonly failure = signal('');
  protected readonly title = computed(() => TITLES[this.chapter()]);
  private of = '';
  private turn = 0;

  protected readonly facts = computed<readonly Fact[]>(() => {
    const before = this.before()?.facts ?? [];
    return (this.now()?.facts ?? []).map(({ label, value }) => ({
      label,
      now: value,
      before: before.find((fact) => fact.label === label)?.value,
      short: value.length < 14,
    }));
  });
  protected readonly moved = computed(() => this.before() !== undefined);

  /** Spans that overlap stand below each other, the others in one line. */
  protected readonly lanes = computed<readonly (readonly Span[])[]>(() => {
    const lanes: Span[][] = [];
    for (const span of this.now()?.spans ?? []) {
      const free = lanes.find((lane) => lane[lane.length - 1].to <= span.from);
      if (free) free.push(span);
      else lanes.push([span]);
    }
    return lanes;
  });

  /** The entries that speak of this one, each once. */
  protected readonly users = computed(() => {
    const seen = new Map<string, { chapter: string; id: string; label: string; linked: boolean }>();
    for (const { chapter, id } of this.uses())
      if (chapter !== undefined && id !== undefined)
        seen.set(`${chapter}/${id}`, {
          chapter,
          id,
          label: labelOf(this.document(), chapter, id),
          linked: CHAPTERS.some((c) => c.key === chapter),
        });
    return [...seen.values()];
  });

  constructor() {
    effect(() => {
      const [document, chapter, id] = [this.document(), this.chapter(), this.id()];
      if (document) untracked(() => void this.compute(document, chapter, id));
    });
  }

  private async compute(document: object, chapter: string, id: string): Promise<void> {
    const turn = ++this.turn;
    const key = `${chapter}/${id}`;
    if (this.of !== key) {
      this.of = key;
      this.now.set(undefined);
      this.before.set(undefined);
      this.uses.set([]);
    }
    try {
      const [evidence, uses] = await Promise.all([
        this.client.core.evidence(document, chapter, id),
        this.client.core.uses(document, chapter, id),
      ]);
      if (turn !== this.turn) return;
      const last = this.now();
      // An edit that changes nothing here leaves the ghost of the last one that did.
      if (last && evidence && JSON.stringify(last) !== JSON.stringify(evidence)) this.before.set(last);
      this.now.set(evidence);
      this.uses.set(uses);
      this.failure.set('');
    } catch (error) {
      if (turn === this.turn) this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }
}
