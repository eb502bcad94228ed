import { parentPort } from 'node:worker_threads';
import { Impossible } from '../errors.js';
import { type JobName, Unknown, workers } from './jobs.js';

interface Asked {
  readonly number: number;
  readonly job: JobName;
  readonly ask: never;
}

const all = workers();
parentPort!.on('message', ({ number, job, ask }: Asked) => {
  try {
    parentPort!.postMessage({ number, answer: all[job](ask) });
  } catch (error) {
    if (error instanceof Unknown) parentPort!.postMessage({ number, unknown: true });
    else if (error instanceof Impossible) parentPort!.postMessage({ number, refused: { title: error.title, detail: error.detail } });
    else parentPort!.postMessage({ number, error: String((error as Error).stack ?? error) });
  }
});
