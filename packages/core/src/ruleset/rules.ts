import type { TableSpec } from '../world/columns.js';
import type { Vocabulary } from '../formula/index.js';
import type { Amount, CompiledThen } from './context.js';
import { positionIn } from './positions.js';
import { sameList } from './recording.js';
import type { Registry } from './registry.js';

/** What every entry of a chapter has. */
export interface ChapterEntry {
  readonly id: string;
  readonly label: string;
  readonly formerly?: readonly string[];
}

/** The entries of a chapter, by position and by id. */
export interface Chapter {
  readonly ids: readonly string[];
  /** Positions by ids that entries had before. */
  readonly former: ReadonlyMap<string, number>;
  readonly entries: readonly ChapterEntry[];
  /** An entry by its id; undefined where there is none. */
  find(id: string): ChapterEntry | undefined;
  /** What an entry is called; undefined where there is none. */
  labelOf(id: string): string | undefined;
}

/** The chapter of a list of entries. */
export class Entries implements Chapter {
  readonly former: ReadonlyMap<string, number>;

  constructor(
    readonly entries: readonly ChapterEntry[],
    readonly ids: readonly string[],
  ) {
    this.former = new Map(entries.flatMap((entry, i) => (entry.formerly ?? []).map((old) => [old, i] as const)));
  }

  find(id: string): ChapterEntry | undefined {
    return this.entries[positionIn(this.ids, id)];
  }

  labelOf(id: string): string | undefined {
    return this.find(id)?.label;
  }
}

/** The document with its defaults filled in. */
export interface RulesetDocument {
  readonly format: string;
  readonly version: number;
  readonly name: string;
  readonly tickRate: number;
  readonly [section: string]: unknown;
}

/** A compiled ruleset: what worlds run on. Immutable; a sound document compiles to exactly one. */
export interface Rules {
  readonly registry: Registry;
  readonly document: RulesetDocument;
  readonly tickRate: number;
  readonly chapters: ReadonlyMap<string, Chapter>;
  readonly vocabulary: Vocabulary;
  readonly compiled: ReadonlyMap<string, unknown>;
  /** Pieces of lists that worlds come back to after a wait, and amounts that they ask again and again. */
  readonly pieces: ReadonlyMap<number, CompiledThen>;
  readonly amounts: ReadonlyMap<number, Amount>;
  /** The rules that act by themselves, as chapter/id: what a tick's steps are counted for. */
  readonly acting: readonly string[];
  readonly tables: readonly TableSpec[];
}

export function idOf(rules: Rules, chapter: string, index: number): string {
  return rules.chapters.get(chapter)?.ids[index] ?? '';
}

/** The position of an entry by its id, or by one that it had before; -1 where there is none. */
export function positionOf(rules: Rules, chapter: string, id: string): number {
  const known = rules.chapters.get(chapter);
  const position = known ? positionIn(known.ids, id) : -1;
  return position >= 0 ? position : (known?.former.get(id) ?? -1);
}

/** Whether the entries of a chapter have the ids that they had, in the same places. */
export function hasSameIds(before: Rules, after: Rules, chapter: string): boolean {
  const ids = before.chapters.get(chapter)?.ids ?? [];
  return sameList(ids, after.chapters.get(chapter)?.ids ?? []) === ids;
}

/** By the position that each entry had: the one it has now, -1 where it has gone. */
export function movedPositions(before: Rules, after: Rules, chapter: string): readonly number[] {
  return (before.chapters.get(chapter)?.entries ?? []).map(({ id, formerly = [] }) => {
    const position = positionOf(after, chapter, id);
    // A renaming that was undone: the entry has an id again that it had before.
    return position >= 0
      ? position
      : (formerly.map((old) => positionIn(after.chapters.get(chapter)!.ids, old)).find((at) => at >= 0) ?? -1);
  });
}

/** An entry by its id; undefined where there is none. */
export function entryOf<T = ChapterEntry>({ chapters }: Pick<Rules, 'chapters'>, chapter: string, id: string): T | undefined {
  return chapters.get(chapter)?.find(id) as T | undefined;
}

export function labelOf({ chapters }: Pick<Rules, 'chapters'>, chapter: string, id: string): string {
  return chapters.get(chapter)?.labelOf(id) ?? id;
}
