import { GIVEN } from '@eager-ember/core';
import type { RulesetJson } from '../shared/api';

/** An entry of any chapter, as authored. */
export interface EntryJson {
  readonly id: string;
  readonly label: string;
  readonly [field: string]: unknown;
}

/** Entries that every ruleset has behind its own; a ruleset that writes one of these ids says it anew. */
const given: Readonly<Record<string, readonly EntryJson[]>> = GIVEN;

const NONE: readonly EntryJson[] = [];

/** The entries that a ruleset writes, in its order; none where what is written under that name is no list of entries. */
export function writtenIn(document: RulesetJson | undefined, chapter: string): readonly EntryJson[] {
  const written = document?.[chapter];
  return Array.isArray(written) ? (written as EntryJson[]) : NONE;
}

/** The entries of a chapter, and each by its id. */
interface Listed {
  readonly all: readonly EntryJson[];
  readonly byId: ReadonlyMap<string, EntryJson>;
}

/** What is known of a chapter: what is written there is the same list until an edit reaches it, and it is asked for again and again. */
const known = new WeakMap<readonly EntryJson[], Map<string, Listed>>();

function listed(document: RulesetJson, chapter: string): Listed {
  const own = writtenIn(document, chapter);
  const chapters = known.get(own) ?? new Map<string, Listed>();
  const before = chapters.get(chapter);
  if (before) return before;
  const ids = new Set(own.map(({ id }) => id));
  const all = [...own, ...(given[chapter] ?? []).filter(({ id }) => !ids.has(id))];
  const of = { all, byId: new Map(all.map((entry) => [entry.id, entry] as const).reverse()) };
  known.set(own, chapters.set(chapter, of));
  return of;
}

/** The entries that a chapter has: those that are written, then those that are given. */
export function entriesOf(document: RulesetJson | undefined, chapter: string): readonly EntryJson[] {
  return document ? listed(document, chapter).all : NONE;
}

/** An entry of a chapter by its id; undefined where there is none. */
export function entryOf(document: RulesetJson | undefined, chapter: string, id: string): EntryJson | undefined {
  return document && listed(document, chapter).byId.get(id);
}

/** Whether an entry is given and not written. */
export function isGiven(document: RulesetJson | undefined, chapter: string, id: string): boolean {
  return (given[chapter] ?? []).some((entry) => entry.id === id) && !writtenIn(document, chapter).some((entry) => entry.id === id);
}

export function labelOf(document: RulesetJson | undefined, chapter: string, id: string): string {
  return entryOf(document, chapter, id)?.label ?? id;
}

/** A camelCase id for a label that no entry of the chapter has yet. */
export function freshId(label: string, taken: readonly string[]): string {
  const words = label
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9 ]/g, '')
    .trim()
    .split(/\s+/)
    .filter(Boolean);
  const camel = words.map((word, i) => (i === 0 ? word.charAt(0).toLowerCase() : word.charAt(0).toUpperCase()) + word.slice(1)).join('');
  const base = (/^[a-z]/.test(camel) ? camel : `entry${camel}`).slice(0, 40);
  for (let n = 1; ; n++) {
    const id = n === 1 ? base : `${base}${n}`;
    if (!taken.includes(id)) return id;
  }
}
