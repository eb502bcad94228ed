import { Injectable } from '@angular/core';
import { type Outcome, outcomeOf, type Game, type PlanId, type Roller, type SampleResult } from '@eager-ember/core';
import { type Remote, wrap } from 'comlink';
import type { BackgroundTasksApi } from './background-tasks-api';

/** How many work at once: as many as the machine has cores, up to a few. */
const MOST_WORKERS = 4;
/** Openings and games in one go: short enough to be stopped between. */
const OPENINGS_A_GO = 25_000;
const GAMES_A_GO = 20;

/** Whether to go on, and whom to tell how far it has come. */
export interface Watch<T> {
  readonly stopped: () => boolean;
  readonly told: (done: number, now: T) => void;
}

/** Long work in web workers: never on the interface's thread, with progress, and stopped between two goes. */
@Injectable({ providedIn: 'root' })
export class BackgroundTasks {
  private readonly workers: Remote<BackgroundTasksApi>[] = [];

  private worker(i: number): Remote<BackgroundTasksApi> {
    return (this.workers[i] ??= wrap<BackgroundTasksApi>(
      new Worker(new URL('./background-tasks.worker', import.meta.url), { type: 'module' }),
    ));
  }

  /** Opens a table so many times with the real core. */
  async sample(
    document: unknown,
    id: string,
    roller: Roller,
    thing: string,
    openings: number,
    asked: readonly number[],
    watch: Watch<SampleResult>,
  ): Promise<void> {
    const worker = this.worker(0);
    await worker.beginSample(document, id, roller, thing);
    for (let done = 0; done < openings && !watch.stopped();) {
      const result = await worker.sample(OPENINGS_A_GO, asked);
      done += OPENINGS_A_GO;
      if (!watch.stopped()) watch.told(done, result);
    }
  }

  /** Plays so many games of a plan, the seeds from 1 on, on all workers. */
  async play(document: unknown, plan: PlanId, count: number, watch: Watch<Outcome>): Promise<void> {
    const games: Game[][] = [];
    let next = 0;
    let done = 0;
    const turns = Math.ceil(count / GAMES_A_GO);
    const work = async (i: number) => {
      while (next < turns && !watch.stopped()) {
        const turn = next++;
        const from = turn * GAMES_A_GO + 1;
        games[turn] = [...(await this.worker(i).play(document, plan, from, Math.min(count, from + GAMES_A_GO - 1)))];
        done += games[turn].length;
        if (watch.stopped()) return;
        // What is told so far is told of an unbroken row of seeds: the same luck for every version.
        const whole = games.findIndex((part) => part === undefined);
        const row = (whole < 0 ? games : games.slice(0, whole)).flat();
        if (row.length > 0) watch.told(done, outcomeOf(plan, row));
      }
    };
    const hands = Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 2));
    await Promise.all(Array.from({ length: hands }, (_, i) => work(i)));
  }
}
