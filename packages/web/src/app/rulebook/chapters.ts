import type { RulesetJson } from '../shared/api';

/** An entry of any chapter, as authored. */
export interface EntryJson {
  readonly id: string;
  readonly label: string;
  readonly [field: string]: unknown;
}

/** A chapter that has a page of its own. */
export interface ChapterInfo {
  readonly key: string;
  readonly title: string;
  /** What one of its entries is called. */
  readonly one: string;
  /** What a new entry begins as. */
  readonly fresh: () => Record<string, unknown>;
  /** What else is listed in its index. */
  readonly also?: string;
}

export const CHAPTERS: readonly ChapterInfo[] = [
  { key: 'attributes', title: 'Stats', one: 'attribute', fresh: () => ({ kind: 'pool', max: 100, see: 'owner' }), also: 'statuses' },
  { key: 'statuses', title: 'Statuses', one: 'status', fresh: () => ({}) },
  { key: 'effects', title: 'Effects', one: 'effect', fresh: () => ({ lasts: '5s' }) },
  { key: 'abilities', title: 'Abilities', one: 'ability', fresh: () => ({ cooldown: '5s' }) },
];

/** Chapters with a tab; statuses are listed among the stats. */
export const TABS = CHAPTERS.filter((chapter) => chapter.key !== 'statuses');

export const chapterOf = (key: string): ChapterInfo | undefined => CHAPTERS.find((chapter) => chapter.key === key);

export function entriesOf(document: RulesetJson | undefined, chapter: string): readonly EntryJson[] {
  return (document?.[chapter] as EntryJson[] | undefined) ?? [];
}

export function labelOf(document: RulesetJson | undefined, chapter: string, id: string): string {
  return entriesOf(document, chapter).find((entry) => entry.id === id)?.label ?? id;
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
