import { Injectable } from '@angular/core';
import { type Remote, wrap } from 'comlink';
import type { BackgroundTasksApi } from './background-tasks-api';

/** How many work at once: as many as the machine has cores, up to a few. */
const MOST_WORKERS = 4;

/** Long work of a concept's page, by its name there, and what it begins with. */
export interface Task {
  readonly document: unknown;
  readonly concept: string;
  readonly name: string;
  readonly args: readonly unknown[];
}

/** Whether to go on, and whom to tell how many goes are done and what they came to. */
export interface Watch<T> {
  readonly stopped: () => boolean;
  readonly told: (done: number, now: T) => void;
}

/** Long work in web workers: never on the interface's thread, with progress, and stopped between two goes. */
@Injectable({ providedIn: 'root' })
export class BackgroundTasks {
  private readonly workers: Remote<BackgroundTasksApi>[] = [];

  /** Begins work on one of the workers; what comes back does the next go of it. */
  private async begin(i: number, { document, concept, name, args }: Task): Promise<(args: readonly unknown[]) => Promise<unknown>> {
    const worker = (this.workers[i] ??= wrap<BackgroundTasksApi>(
      new Worker(new URL('./background-tasks.worker', import.meta.url), { type: 'module' }),
    ));
    const number = await worker.begin(document, concept, name, args);
    return (args) => worker.go(number, args);
  }

  /** Does so many goes, each building on those before it: what the last came to is told. */
  async inTurn<R>(task: Task, goes: number, args: readonly unknown[], watch: Watch<R>): Promise<void> {
    const go = await this.begin(0, task);
    for (let done = 1; done <= goes && !watch.stopped(); done++) {
      const answer = await go(args);
      if (!watch.stopped()) watch.told(done, answer as R);
    }
  }

  /**
   * Does goes that have nothing to do with each other on all workers.
   * @param goes what each is given; told are always the first of them, without a gap
   */
  async spread<R>(task: Task, goes: readonly (readonly unknown[])[], watch: Watch<readonly R[]>): Promise<void> {
    const answers: R[] = [];
    let next = 0;
    let done = 0;
    const work = async (i: number) => {
      const go = await this.begin(i, task);
      while (next < goes.length && !watch.stopped()) {
        const turn = next++;
        answers[turn] = (await go(goes[turn])) as R;
        done++;
        if (watch.stopped()) return;
        const gap = Array.from(answers).findIndex((answer) => answer === undefined);
        const row = gap < 0 ? answers : answers.slice(0, gap);
        if (row.length > 0) watch.told(done, row);
      }
    };
    await this.onAll(work);
  }

  /**
   * Does goes on all workers for as long as there are any.
   * @param next what a worker's next go is given; nothing where it is done
   * @param told what a go came to
   */
  async until<R>(
    task: Task,
    next: (worker: number) => readonly unknown[] | undefined,
    told: (answer: R, worker: number) => void,
  ): Promise<void> {
    await this.onAll(async (i) => {
      const go = await this.begin(i, task);
      for (let args = next(i); args; args = next(i)) told((await go(args)) as R, i);
    });
  }

  private async onAll(work: (worker: number) => Promise<void>): Promise<void> {
    const workers = Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 2));
    await Promise.all(Array.from({ length: workers }, (_, i) => work(i)));
  }
}
