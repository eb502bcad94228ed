import { parentPort, workerData } from 'node:worker_threads';
import type { HuntEntry, HuntGo } from '@eager-ember/core';

/** What a hunter is hired for. */
export interface Hired {
  readonly document: unknown;
  readonly hunts: readonly HuntEntry[];
}
/** One go: of which hunt, from which story on, and how many. */
export interface Asked {
  readonly hunt: number;
  readonly first: number;
  readonly most: number;
}
export type Answer = HuntGo;

/** A thread of its own for stories: whoever hired it says of which hunt, and from which on. */
async function work({ document, hunts }: Hired): Promise<void> {
  // Not before the thread runs: in one file its parts are made in the order in which they are asked for.
  const { compileRuleset, Search } = await import('@eager-ember/core');
  const rules = compileRuleset(document);
  const searches = hunts.map((hunt) => new Search(rules, hunt));
  parentPort!.on('message', ({ hunt, first, most }: Asked) => {
    parentPort!.postMessage(searches[hunt].go(first, most) satisfies Answer);
  });
}

void work(workerData as Hired);
