import type { z } from 'zod';
import { type Chapter, entryOf } from './rules.js';

/** Whatever has the chapters of a compiled ruleset: rules, or the context in which they are compiled. */
interface WithChapters {
  readonly chapters: ReadonlyMap<string, Chapter>;
}

/** A chapter of the ruleset as its concept defines it: its entries have the type of their schema wherever somebody reads them. */
export interface ChapterDefinition<E> {
  readonly name: string;
  /** The entries, with their defaults filled in; none where the chapter is empty. */
  of(rules: WithChapters): readonly E[];
  /** An entry by its id; undefined where there is none. */
  find(rules: WithChapters, id: string): E | undefined;
}

export function defineChapter<S extends z.ZodType>(name: string, _schema: S): ChapterDefinition<z.infer<S>> {
  const of = (rules: WithChapters) => entriesIn<z.infer<S>>(rules, name);
  return {
    name,
    of,
    find: (rules, id) => entryOf<z.infer<S>>(rules, name, id),
  };
}

/** The entries of a chapter by its name, of the type that whoever asks knows them to have: they were read by their schema. */
export function entriesIn<E>({ chapters }: WithChapters, chapter: string): readonly E[] {
  return (chapters.get(chapter)?.entries ?? []) as unknown as readonly E[];
}
