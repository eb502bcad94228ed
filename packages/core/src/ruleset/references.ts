import { mentionsOf, placeOfMention } from './mentions.js';
import { type Path, pointer } from './problem.js';
import type { Rules } from './rules.js';

/** A place in a document that speaks of an entry. */
export interface Use {
  /** JSON Pointer of the place. */
  readonly path: string;
  /** The entry it stands in, or undefined where it stands outside any chapter. */
  readonly chapter?: string;
  readonly id?: string;
  /** JSON Pointer of the item of a list that is nothing without the entry: it goes where the entry is deleted. */
  readonly item?: string;
}

/** Everywhere that an entry is spoken of, chapter by chapter in the order of the concepts. */
export function usesOf(rules: Rules, chapter: string, id: string): readonly Use[] {
  return mentionsOf(rules, chapter, id).map(({ by, mention }): Use => {
    const path = placeOfMention(by, mention);
    const belongs = mention.mark.kind === 'reference' && mention.mark.belongs;
    return {
      path: pointer(path),
      ...(by.id !== undefined && { chapter: by.chapter, id: by.id }),
      ...(belongs && { item: pointer(itemOf(path)) }),
    };
  });
}

/** The path of the innermost item of a list that a place is in. */
function itemOf(path: Path): Path {
  return path.length === 0 || typeof path.at(-1) === 'number' ? path : itemOf(path.slice(0, -1));
}
