import { beginTask, compileRuleset, type Rules } from '@eager-ember/core';

let rules: { readonly text: string; readonly of: Rules } | undefined;
/** What was begun, by number, the last few: several pages may have work going on at once. */
const begun = new Map<number, (...args: readonly unknown[]) => unknown>();
const MOST_BEGUN = 8;
let last = 0;

function rulesOf(document: unknown): Rules {
  const text = JSON.stringify(document);
  if (rules?.text !== text) rules = { text, of: compileRuleset(document) };
  return rules.of;
}

/** Long work of a concept's page, in small goes: whoever asks for the next one can stop before it. Runs in workers of its own. */
export const backgroundTasksApi = {
  /** Begins work; the number that comes back is what it goes on by. */
  begin: async (document: unknown, concept: string, task: string, args: readonly unknown[]): Promise<number> => {
    const go = await beginTask(concept, task, rulesOf(document), args);
    begun.set(++last, go);
    begun.delete(last - MOST_BEGUN);
    return last;
  },
  /** Does the next go of what was begun. */
  go: (number: number, args: readonly unknown[]): unknown => {
    const go = begun.get(number);
    if (!go) throw new Error('No such work was begun');
    return go(...args);
  },
};
export type BackgroundTasksApi = typeof backgroundTasksApi;
