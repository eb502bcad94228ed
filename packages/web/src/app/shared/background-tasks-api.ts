import { beginTask, compileRuleset, type Rules } from '@eager-ember/core';

let rules: { readonly text: string; readonly of: Rules } | undefined;
let begun: ((...args: readonly unknown[]) => unknown) | undefined;

function rulesOf(document: unknown): Rules {
  const text = JSON.stringify(document);
  if (rules?.text !== text) rules = { text, of: compileRuleset(document) };
  return rules.of;
}

/** Long work of a concept's page, in small goes: whoever asks for the next one can stop before it. Runs in workers of its own. */
export const backgroundTasksApi = {
  begin: async (document: unknown, concept: string, task: string, args: readonly unknown[]): Promise<void> => {
    begun = await beginTask(concept, task, rulesOf(document), args);
  },
  /** Does the next go of what was begun. */
  go: (args: readonly unknown[]): unknown => {
    if (!begun) throw new Error('No work was begun');
    return begun(...args);
  },
};
export type BackgroundTasksApi = typeof backgroundTasksApi;
