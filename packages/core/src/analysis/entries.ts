import type { Rules } from '../ruleset/rules.js';

/** An entry of any chapter, as its document has it with its defaults filled in. */
export type Entry = Readonly<Record<string, unknown>> & { readonly id: string; readonly label: string };

/** The entries of a chapter, of the shape that its schema gives them. */
export const entriesOf = <T = Entry>(rules: Rules, chapter: string): readonly T[] =>
  (rules.chapters.get(chapter)?.entries ?? []) as unknown as readonly T[];
