import type { Rules } from '../ruleset/rules.js';

/** An entry of any chapter, as its document has it with its defaults filled in. */
export type Entry = Readonly<Record<string, unknown>> & { readonly id: string; readonly label: string };

export const entriesOf = (rules: Rules, chapter: string): readonly Entry[] =>
  (rules.chapters.get(chapter)?.entries ?? []) as unknown as readonly Entry[];
