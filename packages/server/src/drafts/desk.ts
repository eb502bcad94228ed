import { Worker } from 'node:worker_threads';
import type { Problem } from '@eager-ember/core';
import { NotNow, Unsound } from '../errors.js';
import type { Comparison, JobName, Jobs, Kept, PlayerLoss } from './jobs.js';

/** Longest that anything may take, what waits before it included. */
const MOST_MS = 60_000;
/** Jobs that wait; more are refused. */
const MOST_WAITING = 200;

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

  /** Why nobody could take a seat under a sound document; empty where they can. */
  seats(document: unknown): Promise<string> {
    return this.ask('seats', { document });
  }

  /** What is kept of a player as a sheet, or what is wrong with it. */
  sheet(document: unknown, saved: unknown): Promise<Jobs['sheet']['answer']> {
    return this.ask('sheet', { document, saved });
  }

  /** What is wrong with what is to be kept of a player. */
  strict(document: unknown, saved: unknown): Promise<readonly Problem[]> {
    return this.ask('strict', { document, saved });
  }

  /** Begins to look at an edit. {@link Draft.drop} it in any case. */
  async compare(before: unknown, after: unknown): Promise<Draft> {
    const key = ++this.asked;
    return new Draft(key, await this.ask('compare', { key, before, after }), this);
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
    worker.on('message', ({ number, answer, error }: { number: number; answer: never; error?: string }) => {
      const asked = this.waiting.get(number);
      if (!asked) return;
      this.waiting.delete(number);
      clearTimeout(asked.timer);
      if (error === undefined) asked.done(answer);
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
    private readonly comparison: Comparison,
    private readonly desk: DraftingDesk,
  ) {}

  /** Whether nothing that is kept of players can change by it. */
  get keeps(): boolean {
    return this.comparison.keeps;
  }

  /** @throws Unsound where the edited document is not sound */
  requireSound(): void {
    refuseUnsound(this.comparison.problems);
  }

  /** What players would lose by it. */
  lossesOf(players: readonly Kept[]): Promise<readonly PlayerLoss[]> {
    return this.desk.ask('losses', { key: this.key, players });
  }

  /** What is kept of players after it, of those for whom that is something else. */
  followed(players: readonly Kept[]): Promise<readonly Kept[]> {
    return this.desk.ask('follow', { key: this.key, players });
  }

  /** It is not looked at any more. */
  drop(): void {
    // Where its thread has ended, so has the draft.
    this.desk.ask('drop', { key: this.key }).catch(() => undefined);
  }
}
