import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import { type Found, type HuntEntry, huntsOf, type HuntMistakes, type Rules, Search } from '@eager-ember/core';
import type { Answer, Asked, Hired } from './hunter.js';

/** What became of a hunt. */
export interface Hunted {
  readonly hunt: HuntEntry;
  readonly mistakes: HuntMistakes;
  readonly stories: number;
  readonly ticks: number;
  readonly ms: number;
  readonly found?: Found;
}

/** Stories of a go: some tenths of a second. */
const STORIES_A_GO = 10;
/** More threads than this wait for each other. */
const MOST_HUNTERS = 8;

/** What is known of a hunt while it goes on. */
interface Going {
  readonly hunt: HuntEntry;
  readonly mistakes: HuntMistakes;
  next: number;
  stories: number;
  ticks: number;
  ms: number;
  found?: Found;
}

/**
 * Hunts for so long, on all cores, the hunts in turn: each until it has found something.
 * @param ms how long in all
 */
export async function huntAll(rules: Rules, hunts: readonly HuntEntry[], ms: number): Promise<readonly Hunted[]> {
  const all = hunts.map((hunt): Going => ({ hunt, mistakes: new Search(rules, hunt).mistakes, next: 0, stories: 0, ticks: 0, ms: 0 }));
  const until = performance.now() + ms;
  const open = () => all.flatMap((one, i) => (one.mistakes.length === 0 && !one.found ? [i] : []));
  if (open().length > 0) {
    const hunters = Math.min(MOST_HUNTERS, availableParallelism());
    await Promise.all(Array.from({ length: hunters }, (_, i) => hunter({ document: rules.document, hunts }, all, open, until, i)));
  }
  return all.map(({ next: _, ...hunted }) => hunted);
}

/** One thread: it takes the next stories of one hunt after the other, and stays with one in which it has found something. */
async function hunter(hired: Hired, all: readonly Going[], open: () => readonly number[], until: number, turn: number): Promise<void> {
  const worker = new Worker(new URL('./hunter.cjs', import.meta.url), { workerData: hired });
  const go = (asked: Asked) =>
    new Promise<Answer>((done, failed) => {
      worker.removeAllListeners().once('message', done).once('error', failed);
      worker.postMessage(asked);
    });
  try {
    let held: number | undefined;
    for (let list = open(); list.length > 0 && (performance.now() < until || held !== undefined); list = open()) {
      const at: number = held !== undefined && list.includes(held) ? held : list[turn++ % list.length];
      const one = all[at];
      const first = one.next;
      one.next += STORIES_A_GO;
      const began = performance.now();
      const { stories, ticks, shrinking, found } = await go({ hunt: at, first, most: STORIES_A_GO });
      one.stories += held === undefined ? stories : 0;
      one.ticks += ticks;
      one.ms += performance.now() - began;
      held = shrinking === undefined ? undefined : at;
      if (found) one.found ??= found;
    }
  } finally {
    await worker.terminate();
  }
}

/** The hunts of a ruleset that are meant, with another seed where one is said. */
export const huntsMeant = (rules: Rules, isMeant: (hunt: HuntEntry) => boolean, seed: number | undefined): readonly HuntEntry[] =>
  huntsOf(rules)
    .filter(isMeant)
    .map((hunt) => (seed === undefined ? hunt : { ...hunt, seed }));

export const hasFailed = ({ mistakes, found }: Pick<Hunted, 'mistakes' | 'found'>): boolean => mistakes.length > 0 || found !== undefined;

/** What is wrong with a hunt, or was found in it, a line each. */
export function linesOf({ mistakes, found }: Hunted): readonly string[] {
  if (!found) return mistakes.map(({ path, message }) => `${path}: ${message}`);
  return [
    found.says,
    `story ${found.story}, at ${found.t} s; ${found.before} steps made into ${found.after}:`,
    ...found.words.map((words, i) => `  ${i + 1}. ${words}`),
    `as a check: ${JSON.stringify(found.check)}`,
  ];
}

/** What hunts came to, in words. */
export function huntsInWords(all: readonly Hunted[]): string {
  const lines = all.flatMap((one) => {
    const { hunt, stories, ticks, ms } = one;
    const failed = hasFailed(one);
    const rate = ms === 0 ? 0 : Math.round((ticks / ms) * 1000);
    return [
      `  ${failed ? 'FAILS' : 'holds'}  ${hunt.label}${failed ? ` (${hunt.id})` : ''}: ${stories} ${stories === 1 ? 'story' : 'stories'}, ${ticks} ticks, ${rate} a second and thread`,
      ...linesOf(one).map((line) => `           ${line}`),
    ];
  });
  const failed = all.filter(hasFailed).length;
  return `Hunts\n${lines.join('\n')}\n${all.length - failed} ${all.length - failed === 1 ? 'hunt holds' : 'hunts hold'}, ${failed} ${failed === 1 ? 'fails' : 'fail'}\n`;
}
