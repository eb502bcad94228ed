import { positionIn } from '../ruleset/positions.js';
import type { Vocabulary } from './compile.js';

/** A word of a formula that was looked up in a vocabulary, and what it was found to mean there. */
export interface Lookup {
  /** A bare name, or the function that was called. */
  readonly word: string;
  /** The entry that the function was called with; none where it is a name. */
  readonly id?: string;
  readonly chapter: string;
  /** The position of the entry in its chapter. */
  readonly index: number;
}

/** What a name means in a vocabulary: the first chapter that has an entry of that id. */
export function nameIn({ names }: Vocabulary, id: string) {
  for (const source of names) {
    const index = positionIn(source.ids, id);
    if (index >= 0) return { source, index };
  }
  return undefined;
}

/** The function of a name that has entries to be called with. */
export const functionIn = ({ functions }: Vocabulary, name: string) => functions.find((one) => one.name === name && one.ids.length > 0);

/** Whether a word means in this vocabulary what it meant in the one that it was looked up in. */
export function meansTheSame(vocabulary: Vocabulary, { word, id, chapter, index }: Lookup): boolean {
  if (id === undefined) {
    const found = nameIn(vocabulary, word);
    return found?.source.chapter === chapter && found.index === index;
  }
  const found = functionIn(vocabulary, word);
  return found?.chapter === chapter && positionIn(found.ids, id) === index;
}
