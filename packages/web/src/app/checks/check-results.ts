import { computed, effect, inject, Injectable, signal } from '@angular/core';
import type { CheckBackground, CheckOutcome, CheckQuestions, CheckResult } from '@eager-ember/core';
import type { RulesetJson } from '../shared/api';
import { CoreClient } from '../shared/core-client';
import { Editor } from '../store/editor';
import { entriesOf } from '../rulebook/entries';
import type { EntryState } from '../rulebook/entry-index';

/** Whoever has just opened a ruleset looks at it first. */
const FIRST_MS = 500;

/** After so long what has been run is looked at, while others still are; and the longer that takes, the more seldom. */
const LOOK_MS = 60;
const MORE_SELDOM = 1.6;

/** What became of all checks, for the ruleset as it is now: they are run at every edit. */
@Injectable({ providedIn: 'root' })
export class CheckResults {
  private readonly editor = inject(Editor);
  private readonly client = inject(CoreClient);
  private readonly results = signal<ReadonlyMap<string, CheckResult>>(new Map());
  /** What the results are of: another document than is open is being run. */
  private readonly of = signal<RulesetJson | undefined>(undefined);
  /** How long the last run took, in milliseconds, as somebody who waits for it has it. */
  readonly took = signal(0);
  private turn = 0;

  private readonly checks = computed(() => entriesOf(this.editor.document(), 'checks'));
  readonly total = computed(() => this.checks().length);
  /** Those that fail, in the order of the chapter. */
  readonly failing = computed(() => this.checks().filter(({ id }) => this.results().get(id)?.ok === false));
  /** Those that hold: one that has not been run yet is not among them. */
  readonly holding = computed(() => this.checks().filter(({ id }) => this.results().get(id)?.ok === true));
  readonly running = computed(() => this.total() > 0 && this.of() !== this.editor.document());

  /** How each stands, by chapter/id. */
  readonly states = computed<Readonly<Record<string, EntryState>>>(() =>
    Object.fromEntries(this.checks().map(({ id }) => [`checks/${id}`, stateOf(this.results().get(id))])),
  );

  constructor() {
    let first = true;
    effect((onCleanup) => {
      const document = this.editor.document();
      if (!document) {
        first = true;
        this.turn++;
        this.results.set(new Map());
        return;
      }
      if (!first) return void this.run(document);
      first = false;
      const timer = setTimeout(() => void this.run(document), FIRST_MS);
      onCleanup(() => clearTimeout(timer));
    });
  }

  /** The result of a check; undefined where it has not been run yet. */
  result(id: string): CheckResult | undefined {
    return this.results().get(id);
  }

  /** Runs all of them once more. */
  again(): Promise<void> {
    const document = this.editor.document();
    return document ? this.run(document) : Promise.resolve();
  }

  /** The check that fails behind one in the list, round about; undefined where none does. */
  nextFailing(behind: string): string | undefined {
    const ids = this.checks().map(({ id }) => id);
    const from = ids.indexOf(behind) + 1;
    const fails = new Set(this.failing().map(({ id }) => id));
    return [...ids.slice(from), ...ids.slice(0, from)].find((id) => fails.has(id));
  }

  private async run(document: RulesetJson): Promise<void> {
    const turn = ++this.turn;
    if (entriesOf(document, 'checks').length === 0) {
      this.results.set(new Map());
      return this.of.set(document);
    }
    const began = performance.now();
    let isOver = false;
    void this.look(document, () => isOver || turn !== this.turn);
    const results = await this.client
      .behind<CheckBackground>('checks')
      .results(document)
      .catch(() => undefined);
    isOver = true;
    // An edit that is only tried out came first; one that is kept asks by itself.
    if (turn !== this.turn) return;
    if (!results) return void setTimeout(() => turn === this.turn && void this.run(document), 0);
    this.results.set(new Map(results.map((result) => [result.id, result])));
    this.of.set(document);
    this.took.set(Math.round(performance.now() - began));
  }

  /** Takes over what has been run while the rest still is: the first that fail are seen at once. */
  private async look(document: RulesetJson, isOver: () => boolean): Promise<void> {
    let known = 0;
    for (let wait = LOOK_MS; ; wait *= MORE_SELDOM) {
      await new Promise((done) => setTimeout(done, wait));
      if (isOver()) return;
      const more = await this.client
        .of<CheckQuestions>('checks')
        .soFar(document, known)
        .catch(() => []);
      if (isOver()) return;
      known += more.length;
      if (more.length > 0) this.results.update((now) => new Map([...now, ...more.map((result) => [result.id, result] as const)]));
    }
  }
}

function stateOf(result: CheckResult | undefined): EntryState {
  if (!result) return { is: 'runs', hint: '' };
  return { is: result.ok ? 'holds' : 'fails', hint: result.rows ? `${result.rows.length} rows` : '' };
}

/** The outcome of one sentence of a check. */
export const outcomeAt = (result: CheckResult | undefined, path: string): CheckOutcome | undefined =>
  result?.outcomes.find((outcome) => outcome.path === path);
