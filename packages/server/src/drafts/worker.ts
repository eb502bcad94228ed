import { parentPort } from 'node:worker_threads';
import { type JobName, workers } from './jobs.js';

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
    parentPort!.postMessage({ number, error: String((error as Error).stack ?? error) });
  }
});
