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

  private async begin(i: number, { document, concept, name, args }: Task): Promise<Remote<BackgroundTasksApi>> {
    const worker = (this.workers[i] ??= wrap<BackgroundTasksApi>(
      new Worker(new URL('./background-tasks.worker', import.meta.url), { type: 'module' }),
    ));
    await worker.begin(document, concept, name, args);
    return worker;
  }

  /** Does so many goes, each building on those before it: what the last came to is told. */
  async inTurn<R>(task: Task, goes: number, args: readonly unknown[], watch: Watch<R>): Promise<void> {
    const worker = await this.begin(0, task);
    for (let done = 1; done <= goes && !watch.stopped(); done++) {
      const answer = await worker.go(args);
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
      const worker = await this.begin(i, task);
      while (next < goes.length && !watch.stopped()) {
        const turn = next++;
        answers[turn] = (await worker.go(goes[turn])) as R;
        done++;
        if (watch.stopped()) return;
        const gap = Array.from(answers).findIndex((answer) => answer === undefined);
        const row = gap < 0 ? answers : answers.slice(0, gap);
        if (row.length > 0) watch.told(done, row);
      }
    };
    const hands = Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 2));
    await Promise.all(Array.from({ length: hands }, (_, i) => work(i)));
  }
}
