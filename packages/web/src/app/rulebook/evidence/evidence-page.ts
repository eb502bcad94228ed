import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked, viewChild } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { RouterLink } from '@angular/router';
import type { Evidence, Facts, Problem, Span, Use } from '@eager-ember/core';
import { Store } from '@ngrx/store';
import type { RulesetJson } from '../../shared/api';
import { CoreClient } from '../../shared/core-client';
import { download } from '../../shared/download';
import { documentFeature } from '../../store/document.reducer';
import { Editor } from '../../store/editor';
import type { EvidenceLook, PagePieces } from '../chapter-page';
import { RunBy } from '../../checks/run-by';
import { chapterOf, CHAPTERS } from '../chapters';
import { entriesOf, labelOf } from '../entries';
import { lanesOf, spanWords } from './lanes';
import { EvidenceChart } from './evidence-chart';
import { PinEditor } from './pin-editor';
import { Pins } from './pins';
import { type NewPin, type PinJson, Situations } from './situation';

interface Fact {
  readonly label: string;
  readonly before: string | undefined;
  readonly now: string;
  /** A figure rather than a sentence. */
  readonly short: boolean;
}

const NOTHING_TOLD: { readonly now: Facts; readonly before: Facts } = { now: [], before: [] };

/** What follows from a spec: computed by the core in its worker at every edit, with the version before as a ghost. */
@Component({
  selector: 'ee-evidence',
  imports: [EvidenceChart, MatMenuModule, NgComponentOutlet, PinEditor, Pins, RouterLink, RunBy],
  templateUrl: './evidence-page.html',
  styleUrl: './evidence-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EvidencePage {
  readonly chapter = input.required<string>();
  readonly id = input.required<string>();
  /** What the page of the chapter is made of, once it is loaded. */
  readonly pieces = input<PagePieces>();
  private readonly client = inject(CoreClient);
  private readonly document = inject(Editor).document;
  private readonly situations = inject(Situations);
  private readonly chart = viewChild(EvidenceChart);
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly now = signal<Evidence | undefined>(undefined);
  protected readonly before = signal<Evidence | undefined>(undefined);
  protected readonly uses = signal<readonly Use[]>([]);
  protected readonly failure = signal('');
  /** What is wrong with an edit of the pins. */
  protected readonly refusal = signal('');
  protected readonly look = computed<EvidenceLook>(() => chapterOf(this.chapter())?.look ?? {});
  protected readonly title = computed(() => (this.comparing() ? this.look().comparison?.title : chapterOf(this.chapter())?.evidence));
  /** Whether the comparison is looked at instead. */
  protected readonly comparing = signal(false);
  protected readonly editing = signal<number | undefined>(undefined);
  /** Seconds at which the values are read. */
  protected readonly cursor = signal<number | undefined>(undefined);
  protected readonly situation = computed(() => this.situations.of(this.chapter(), this.id()));
  protected readonly offered = computed(() => this.situations.offered(this.chapter(), this.id()));
  /** What an entry like this can be compared in, where it can be. */
  protected readonly comparison = computed(() => {
    const entry = entriesOf(this.document(), this.chapter()).find(({ id }) => id === this.id());
    const { comparison } = this.look();
    return comparison?.of(entry) ? comparison : undefined;
  });
  private of = '';
  private turn = 0;

  /** The answers, now and before: they come behind the course, some of them later. */
  private readonly told = signal(NOTHING_TOLD);

  protected readonly facts = computed<readonly Fact[]>(() => {
    const { now, before } = this.told();
    return now.map(({ label, value }) => ({
      label,
      now: value,
      before: before.find((fact) => fact.label === label)?.value,
      short: value.length < 14,
    }));
  });
  protected readonly moved = computed(() => this.before() !== undefined);

  /** Statuses as stretches of the chart; one that an effect's bar shows already is not shown twice. */
  protected readonly regions = computed<readonly Span[]>(() => {
    const spans = this.now()?.spans ?? [];
    const bars = spans.filter((span) => span.kind === 'effect');
    return this.look().statuses === 'behind'
      ? spans.filter((span) => span.kind === 'status' && !bars.some((bar) => bar.from === span.from && bar.to === span.to))
      : [];
  });

  /** Spans that overlap stand below each other, the others in one line. */
  protected readonly lanes = computed<readonly (readonly Span[])[]>(() => {
    const regions = this.regions();
    if (this.look().bare) return [];
    const isBelow = (span: Span) => !regions.includes(span) && (span.kind !== 'status' || this.look().statuses === 'below');
    return lanesOf((this.now()?.spans ?? []).filter(isBelow));
  });

  /** The values at the cursor, and what is on there. */
  protected readonly reading = computed(() => {
    const [now, before, t] = [this.now(), this.before(), this.cursor()];
    if (!now || t === undefined) return undefined;
    const at = (evidence: Evidence | undefined, i: number) => {
      const series = evidence?.series[i];
      const value = series?.values[Math.min(series.values.length - 1, Math.max(0, Math.round(t * evidence!.perSecond) - 1))];
      return value?.toFixed(series!.decimals);
    };
    return {
      t: t.toFixed(1),
      values: now.series.map((series, i) => ({ label: series.label, now: at(now, i), before: at(before, i) })),
      on: [...new Set(now.spans.filter((span) => span.from <= t && t < span.to).map((span) => span.label))],
    };
  });

  /** The entries that speak of this one, each once. */
  protected readonly users = computed(() => {
    const seen = new Map<string, { chapter: string; id: string; label: string; linked: boolean }>();
    for (const { chapter, id } of this.uses())
      // Checks are told of below, with what they have run.
      if (chapter !== undefined && id !== undefined && chapter !== 'situations' && !chapterOf(chapter)?.ahead)
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
      const [document, chapter, id, mode] = [this.document(), this.chapter(), this.id(), this.comparing()];
      if (document) untracked(() => void this.compute(document, chapter, id, mode));
    });
  }

  private async compute(document: RulesetJson, chapter: string, id: string, comparing: boolean): Promise<void> {
    const turn = ++this.turn;
    const { comparison } = this.look();
    const key = `${chapter}/${id}`;
    if (this.of !== key) {
      this.of = key;
      this.now.set(undefined);
      this.before.set(undefined);
      this.told.set(NOTHING_TOLD);
      this.uses.set([]);
      this.editing.set(undefined);
      this.cursor.set(undefined);
      this.refusal.set('');
      this.comparing.set(false);
    }
    try {
      const evidence = await (comparing && comparison
        ? comparison.ask(this.client, document, id)
        : this.client.core.evidence(document, chapter, id));
      if (turn !== this.turn) return;
      const last = this.now();
      const told = this.told();
      // Two sorts of evidence are no before and after.
      if (last?.series[0]?.id !== evidence?.series[0]?.id) this.before.set(undefined);
      // An edit that changes nothing here leaves the ghost of the last one that did.
      else if (last && evidence && JSON.stringify(last) !== JSON.stringify(evidence)) this.before.set(last);
      this.now.set(evidence);
      this.failure.set('');
      const further = comparing || !evidence ? [] : await this.client.core.furtherFacts(document, chapter, id);
      if (turn !== this.turn) return;
      const facts = [...(evidence?.facts ?? []), ...further];
      // The course is the same, and what is said of it is not.
      if (last && evidence && this.before() !== last && JSON.stringify(facts) !== JSON.stringify(told.now)) this.before.set(last);
      this.told.set({ now: facts, before: this.before() === undefined ? [] : this.before() === last ? told.now : told.before });
      const uses = await this.client.core.uses(document, chapter, id);
      if (turn === this.turn) this.uses.set(uses);
    } catch (error) {
      if (turn === this.turn) this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  /** Pins as the document has them, or would have them. */
  private pins() {
    return this.now()?.situation?.pins ?? [];
  }

  private async edit(make: (pins: readonly PinJson[]) => readonly PinJson[], what: string): Promise<readonly Problem[]> {
    const now = this.now()?.situation;
    if (!now) return [];
    const problems = await this.situations.put(this.chapter(), this.id(), now, make, what);
    this.refusal.set(problems.map((problem) => problem.message).join(' '));
    return problems;
  }

  protected move({ index, t }: { index: number; t: number }): void {
    void this.edit(
      this.inPlaceOf(index, (pin) => [{ ...pin, at: `${t}s` }]),
      'move a pin',
    );
  }

  /** Puts something in the place of the pin that is meant now, wherever it stands once the edits before this one are through. */
  private inPlaceOf(index: number, make: (pin: PinJson) => readonly PinJson[]) {
    const meant = JSON.stringify(this.pins()[index]);
    return (pins: readonly PinJson[]): readonly PinJson[] => {
      const here = JSON.stringify(pins[index]) === meant ? index : pins.findIndex((pin) => JSON.stringify(pin) === meant);
      return pins.flatMap((pin, i) => (i === here ? make(pin) : [pin]));
    };
  }

  /** Opens a pin to change what it does. One that was only proposed is written down first. */
  protected async open(index: number): Promise<void> {
    if (this.editing() === index) return this.editing.set(undefined);
    if (!this.situation() && (await this.edit((pins) => pins, 'keep these pins')).length > 0) return;
    this.editing.set(index);
  }

  protected async add({ action, from }: NewPin): Promise<void> {
    const seconds = this.now()?.situation?.seconds ?? 60;
    const cursor = this.cursor();
    let index = 0;
    const problems = await this.edit((pins) => {
      index = pins.length;
      const latest = Math.max(0, ...pins.map((pin) => Number.parseFloat(pin.at) / (pin.at.endsWith('ms') ? 1000 : 1)));
      const t = cursor ?? Math.min(seconds, latest + 2);
      return [...pins, { at: `${Math.max(0.1, Math.round(t * 10) / 10)}s`, action, ...(from && { from }) }];
    }, 'add a pin');
    if (problems.length === 0) this.editing.set(index);
  }

  protected remove(index: number): void {
    this.editing.set(undefined);
    void this.edit(
      this.inPlaceOf(index, () => []),
      'take a pin out',
    );
  }

  protected forget(): void {
    this.editing.set(undefined);
    void this.situations.forget(this.chapter(), this.id());
  }

  protected readonly barWords = spanWords;

  protected async saveCsv(): Promise<void> {
    const text = await this.client.core.evidenceCsv(this.now()!);
    download(`${this.id()}.csv`, new Blob([text], { type: 'text/csv' }));
  }

  protected async savePng(): Promise<void> {
    const picture = await this.chart()?.picture();
    if (picture) download(`${this.id()}.png`, picture);
  }
}
