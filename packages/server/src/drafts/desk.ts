import { Worker } from 'node:worker_threads';
import type { Problem } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import { Impossible, NotNow, Unsound } from '../errors.js';
import { type Edited, type JobName, type Jobs, type Kept, type OfStored, type PlayerLoss, Unknown } from './jobs.js';
import type { RunAsked, RunOutcome } from './test-runs.js';

/** Longest that anything may take, what waits before it included. */
const MOST_MS = 60_000;
/** Milliseconds of a run between which others have their turn. */
const PART_MS = 100;
/** Milliseconds past its time in which a run that has found something may make that shorter. */
const FINISH_MS = 60_000;
/** Jobs that wait; more are refused. */
const MOST_WAITING = 200;

/** A stored ruleset that something is asked about. Its text is read where the thread does not have it. */
export interface StoredRuleset {
  readonly id: string;
  readonly revision: number;
  read(): Promise<{ readonly revision: number; readonly text: string }>;
}

/** What comes back from the thread. */
interface Answered {
  readonly number: number;
  readonly answer: never;
  /** What went wrong there. */
  readonly error?: string;
  readonly refused?: { readonly title: string; readonly detail?: string };
  /** It does not have the document. */
  readonly unknown?: true;
}

/** The jobs that are about a stored ruleset. */
type StoredJob = { readonly [K in JobName]: Jobs[K]['ask'] extends { of: OfStored } ? K : never }[JobName];

interface Waiting {
  readonly done: (answer: never) => void;
  readonly fail: (error: Error) => void;
  readonly timer: NodeJS.Timeout;
}

/**
 * Reads, compares and previews rulesets in a thread of its own, one job after the other, so that rooms tick on meanwhile. The
 * thread is started with the first job, and anew where it came to an end.
 */
export class DraftingDesk {
  private worker: Worker | undefined;
  private readonly waiting = new Map<number, Waiting>();
  private asked = 0;

  /** What is wrong with a document. */
  check(document: unknown): Promise<readonly Problem[]> {
    return this.ask('check', { document });
  }

  /** @throws Unsound where the document is not sound */
  async requireSound(document: unknown): Promise<void> {
    refuseUnsound(await this.check(document));
  }

  /** Why nobody could take a seat under a sound ruleset; empty where they can. */
  seats(ruleset: StoredRuleset): Promise<string> {
    return this.askOf('seats', ruleset, {});
  }

  /** What is kept of a player as a sheet, or what is wrong with it. */
  sheet(ruleset: StoredRuleset, saved: unknown): Promise<Jobs['sheet']['answer']> {
    return this.askOf('sheet', ruleset, { saved });
  }

  /** What is wrong with what is to be kept of a player. */
  strict(ruleset: StoredRuleset, saved: unknown): Promise<readonly Problem[]> {
    return this.askOf('strict', ruleset, { saved });
  }

  /**
   * Begins an edit. {@link Draft.drop} it in any case.
   * @throws Impossible where the patch does not fit
   */
  async edit(ruleset: StoredRuleset, patch: readonly Operation[]): Promise<Draft> {
    const key = ++this.asked;
    return new Draft(key, await this.askOf('edit', ruleset, { key, patch }), this);
  }

  /**
   * Runs the checks or hunts of a ruleset, a part at a time: between two, others have their turn.
   * @param most milliseconds after which it is left; what is being made shorter by then has a minute more
   * @param isOver whether nobody waits for it any more
   * @returns what it came to, and of which revision that is
   * @throws Unsound where the ruleset is not sound
   */
  async run(
    ruleset: StoredRuleset,
    asked: RunAsked,
    most: number,
    isOver: () => boolean,
  ): Promise<RunOutcome & { readonly revision: number }> {
    const key = ++this.asked;
    const { revision, problems } = await this.askOf('run', ruleset, { ...asked, key });
    if (problems.length > 0) throw new Unsound(problems, 'Nothing was run.');
    try {
      const until = performance.now() + most;
      let state = await this.ask('goOn', { key, ms: PART_MS });
      const mayGoOn = () =>
        (state === 'open' && performance.now() < until) || (state === 'unfinished' && performance.now() < until + FINISH_MS);
      while (!isOver() && mayGoOn()) state = await this.ask('goOn', { key, ms: PART_MS });
      return { revision, ...(await this.ask('outcome', { key })) };
    } finally {
      // Where its thread has ended, so has the run.
      this.ask('leave', { key }).catch(() => undefined);
    }
  }

  /** Asks about a stored ruleset, with its text where the thread does not have it. */
  private async askOf<K extends StoredJob>(job: K, ruleset: StoredRuleset, rest: Omit<Jobs[K]['ask'], 'of'>): Promise<Jobs[K]['answer']> {
    const ask = (of: OfStored) => this.ask(job, { ...rest, of } as Jobs[K]['ask']);
    const { id, revision } = ruleset;
    try {
      return await ask({ id, revision });
    } catch (error) {
      if (!(error instanceof Unknown)) throw error;
      return ask({ id, ...(await ruleset.read()) });
    }
  }

  /** @throws NotNow where it takes too long or too much waits already */
  ask<K extends JobName>(job: K, ask: Jobs[K]['ask']): Promise<Jobs[K]['answer']> {
    if (this.waiting.size >= MOST_WAITING) return Promise.reject(new NotNow('Too much is to be read at once', 'Try again in a while.'));
    return new Promise<Jobs[K]['answer']>((done, fail) => {
      const number = ++this.asked;
      const timer = setTimeout(() => this.giveUp(new NotNow('That takes too long to read', 'Nothing was stored.')), MOST_MS);
      timer.unref();
      this.waiting.set(number, { done, fail, timer });
      this.hired().postMessage({ number, job, ask });
    });
  }

  private hired(): Worker {
    if (this.worker) return this.worker;
    const worker = hire();
    worker.unref();
    worker.on('message', ({ number, answer, error, refused, unknown }: Answered) => {
      const asked = this.waiting.get(number);
      if (!asked) return;
      this.waiting.delete(number);
      clearTimeout(asked.timer);
      if (unknown) asked.fail(new Unknown());
      else if (refused) asked.fail(new Impossible(refused.title, refused.detail));
      else if (error === undefined) asked.done(answer);
      else asked.fail(new Error(error));
    });
    const over = (error: Error) => this.worker === worker && this.giveUp(error);
    worker.on('error', over);
    worker.on('exit', () => over(new Error('The thread that reads rulesets came to an end')));
    return (this.worker = worker);
  }

  /** What waits is refused, and what comes next has a new thread. */
  private giveUp(error: Error): void {
    const { worker } = this;
    this.worker = undefined;
    void worker?.terminate();
    for (const { fail, timer } of this.waiting.values()) {
      clearTimeout(timer);
      fail(error);
    }
    this.waiting.clear();
  }

  async close(): Promise<void> {
    const { worker } = this;
    this.giveUp(new NotNow('The server stops', 'Nothing was stored.'));
    await worker?.terminate();
  }
}

function hire(): Worker {
  if (!import.meta.url.endsWith('.ts')) return new Worker(new URL('./worker.js', import.meta.url));
  // Under test the server's sources run as they are written, which a new thread has to be told how to.
  const source = JSON.stringify(new URL('./worker.ts', import.meta.url).href);
  return new Worker(`import('tsx/esm/api').then(({ register }) => (register(), import(${source})))`, { eval: true });
}

/** @throws Unsound where there is one */
function refuseUnsound(problems: readonly Problem[]): void {
  if (problems.length > 0) throw new Unsound(problems, 'Nothing was stored.');
}

/** An edit that is being looked at. */
export class Draft {
  constructor(
    private readonly key: number,
    private readonly edited: Edited,
    private readonly desk: DraftingDesk,
  ) {}

  /** Whether nothing that is kept of players can change by it. */
  get keeps(): boolean {
    return this.edited.keeps;
  }

  /** What the ruleset is called after it. */
  get name(): string {
    return this.edited.name;
  }

  /** The edited document, as it is to be stored. */
  get text(): string {
    return this.edited.text;
  }

  /** @throws Unsound where the edited document is not sound */
  requireSound(): void {
    refuseUnsound(this.edited.problems);
  }

  /** What players would lose by it. */
  lossesOf(players: readonly Kept[]): Promise<readonly PlayerLoss[]> {
    return this.desk.ask('losses', { key: this.key, players });
  }

  /** What is kept of players after it, of those for whom that is something else. */
  followed(players: readonly Kept[]): Promise<readonly Kept[]> {
    return this.desk.ask('follow', { key: this.key, players });
  }

  /** It is over: it was stored as the next revision of its ruleset, or was not. */
  drop(stored: boolean): void {
    // Where its thread has ended, so has the draft.
    this.desk.ask('drop', { key: this.key, stored }).catch(() => undefined);
  }
}
