import type { Rules } from '../ruleset/rules.js';
import { entriesIn } from '../ruleset/chapter.js';

/** An entry of any chapter, as its document has it with its defaults filled in. */
export type Entry = Readonly<Record<string, unknown>> & { readonly id: string; readonly label: string };

/** The entries of a chapter, of the shape that its schema gives them. */
export const entriesOf = <T = Entry>(rules: Rules, chapter: string): readonly T[] => entriesIn<T>(rules, chapter);

/** The texts in a value, with their places in it as JSON Pointers. */
export function textsIn(value: unknown, path = ''): readonly (readonly [string, string])[] {
  if (typeof value === 'string') return [[path, value]];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, part]) => textsIn(part, `${path}/${key}`));
}
