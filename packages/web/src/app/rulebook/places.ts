import { CHAPTERS } from './chapters';

/** A way to a place of the book. */
export interface Way {
  readonly commands: readonly string[];
  readonly query: Readonly<Record<string, string>>;
}

/** The page on which a place of the document is edited: an entry's, the arena with the thing chosen, or the whole source. */
export function wayTo(
  ruleset: string,
  { chapter, id, path }: { readonly chapter: string; readonly id: string; readonly path: string },
): Way {
  const book = ['/r', ruleset, 'rulebook'];
  if (chapter === 'arena') {
    const thing = /^\/arena\/placed\/(\d+)/.exec(path)?.[1];
    return { commands: [...book, 'arena'], query: thing === undefined ? {} : { thing } };
  }
  const known = CHAPTERS.some(({ key }) => key === chapter) && id !== '';
  return { commands: [...book, ...(known ? [chapter, id] : ['source'])], query: {} };
}
