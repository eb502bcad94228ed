import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Found, HuntGo } from '@eager-ember/core';
import { entriesOf, type EntryJson } from '../rulebook/entries';
import type { EntryState } from '../rulebook/entry-index';
import type { RulesetJson } from '../shared/api';
import { BackgroundTasks } from '../shared/background-tasks';
import { documentFeature } from '../store/document.reducer';
import { Editor } from '../store/editor';
import { keptRuns, signOf } from './kept-runs';

/** How long a hunt goes on when it is run, and how many stories are tried at a go: some tenths of a second. */
export const HUNT_MS = 60_000;
const STORIES_A_GO = 5;

/** How far a hunt has come. */
export interface HuntRun {
  /** The ruleset that it was run under. */
  readonly document: RulesetJson;
  readonly running: boolean;
  /** Stories that were tried, and ticks and milliseconds that took. */
  readonly stories: number;
  readonly ticks: number;
  readonly ms: number;
  /** Of the time that it is run for, the part that is over. */
  readonly share: number;
  /** Something was found and is made shorter: so many things happen in it by now. */
  readonly shrinking?: number;
  readonly found?: Found;
  readonly failure?: string;
}

/** The hunts that are run, and what they came to: they go on while another page is open, and a reload leaves what they came to. */
@Injectable({ providedIn: 'root' })
export class HuntRuns {
  private readonly tasks = inject(BackgroundTasks);
  private readonly editor = inject(Editor);
  private readonly runs = signal<ReadonlyMap<string, HuntRun>>(new Map());
  /** Counts what was begun: what is told by one that was left is of no use. */
  private turn = 0;
  private readonly turns = new Map<string, number>();
  private readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  /** The ruleset whose hunts have what was kept of them. */
  private restored: string | undefined;

  /** How each hunt stands, by chapter/id. */
  readonly states = computed<Readonly<Record<string, EntryState>>>(() =>
    Object.fromEntries(entriesOf(this.editor.document(), 'hunts').map(({ id }) => [`hunts/${id}`, stateOf(this.run(id))])),
  );

  constructor() {
    effect(() => {
      const [ruleset, document] = [this.ruleset(), this.editor.document()];
      if (ruleset === undefined || !document || this.restored === ruleset) return;
      this.restored = ruleset;
      untracked(() => this.restore(ruleset, document));
    });
  }

  private restore(ruleset: string, document: RulesetJson): void {
    const kept = keptRuns.read(ruleset);
    for (const { id } of entriesOf(document, 'hunts')) {
      const run = Object.hasOwn(kept, id) ? kept[id] : undefined;
      if (run?.of !== signOf(document, id)) continue;
      const { of: _of, ...came } = run;
      this.set(id, { document, running: false, share: 1, ...came });
    }
  }

  /** Keeps what a hunt came to. */
  private keep(id: string): void {
    const [ruleset, run] = [this.ruleset(), this.runs().get(id)];
    if (ruleset === undefined || !run || run.failure !== undefined) return;
    const { document, stories, ticks, ms, found } = run;
    keptRuns.write(ruleset, id, { of: signOf(document, id), stories, ticks, ms, ...(found && { found }) });
  }

  /** What a hunt came to under the rules as they are now; undefined where it was not run under those. */
  run(id: string): HuntRun | undefined {
    const [run, document] = [this.runs().get(id), this.editor.document()];
    return run && document && huntsTheSame(run.document, document, id) ? run : undefined;
  }

  /** What it came to under rules that have been edited since. */
  former(id: string): HuntRun | undefined {
    return this.run(id) ? undefined : this.runs().get(id);
  }

  stop(id: string): void {
    this.turns.delete(id);
    this.change(id, { running: false });
    this.keep(id);
  }

  /** Runs a hunt, or goes on with it where it was stopped. */
  async start(id: string): Promise<void> {
    const document = this.editor.document();
    if (!document) return;
    const before = this.run(id);
    const turn = ++this.turn;
    this.turns.set(id, turn);
    const from = before?.found ? undefined : before;
    let [next, stories, ticks] = [from?.stories ?? 0, from?.stories ?? 0, from?.ticks ?? 0];
    const [began, spent] = [performance.now(), from?.ms ?? 0];
    const now = () => performance.now() - began;
    this.set(id, { document, running: true, stories, ticks, ms: spent, share: 0 });
    /** The worker that makes something shorter: the others have nothing more to do. */
    let shrinker: number | undefined;
    let found: Found | undefined;
    const isOver = (worker: number) => {
      const edited = this.editor.document();
      const left = this.turns.get(id) !== turn || !edited || !huntsTheSame(document, edited, id);
      return left || found !== undefined || (shrinker === undefined ? now() > HUNT_MS : shrinker !== worker);
    };
    try {
      await this.tasks.until<HuntGo>(
        { document, concept: 'hunts', name: 'search', args: [id] },
        (worker) => {
          if (isOver(worker)) return undefined;
          const first = next;
          next += STORIES_A_GO;
          return [first, STORIES_A_GO];
        },
        (go, worker) => {
          if (this.turns.get(id) !== turn || found) return;
          if (shrinker === undefined) stories += go.stories;
          ticks += go.ticks;
          if (go.shrinking !== undefined) shrinker ??= worker;
          if (shrinker === undefined || shrinker === worker) found = go.found;
          const { shrinking } = go;
          this.change(id, {
            stories,
            ticks,
            ms: spent + now(),
            share: Math.min(1, now() / HUNT_MS),
            ...(shrinker === worker && shrinking !== undefined && { shrinking }),
            ...(found && { found }),
          });
        },
      );
    } catch (error) {
      this.change(id, { failure: error instanceof Error ? error.message : String(error) });
    }
    if (this.turns.get(id) !== turn) return;
    this.change(id, { running: false });
    this.keep(id);
  }

  private set(id: string, run: HuntRun): void {
    this.runs.update((all) => new Map([...all, [id, run]]));
  }

  private change(id: string, parts: Partial<HuntRun>): void {
    const run = this.runs().get(id);
    if (run) this.set(id, { ...run, ...parts });
  }
}

/** A hunt without the stories that are tried first: they change what is tried when, and nothing of what is found. */
const withoutSeeds = (document: RulesetJson, id: string): string => {
  const hunt = entriesOf(document, 'hunts').find((entry) => entry.id === id);
  return JSON.stringify({ ...(hunt ?? ({} as EntryJson)), seeds: undefined });
};

/** Whether a hunt is the same under two documents: checks and other hunts have no part in it. */
function huntsTheSame(before: RulesetJson, after: RulesetJson, id: string): boolean {
  if (before === after) return true;
  const keys = new Set([...Object.keys(before), ...Object.keys(after)]);
  for (const key of keys) if (key !== 'checks' && key !== 'hunts' && before[key] !== after[key]) return false;
  return withoutSeeds(before, id) === withoutSeeds(after, id);
}

/** A number in few signs: `1.2k`. */
const short = (count: number) => (count < 1000 ? String(count) : `${(count / 1000).toFixed(count < 10_000 ? 1 : 0)}k`);

function stateOf(run: HuntRun | undefined): EntryState {
  if (!run) return { is: 'runs', hint: '' };
  if (run.found || run.failure !== undefined) return { is: 'fails', hint: '' };
  if (run.running) return { is: 'runs', hint: run.shrinking === undefined ? `${Math.round(run.share * 100)} %` : 'found' };
  return { is: 'holds', hint: short(run.stories) };
}
