import type { RulesetJson } from '../shared/api';
import { ATTRIBUTE_FILES } from './attributes/attribute-files';
import { CLIP_FILES } from './clips/clip-files';
import type { ExchangedFile } from './file-exchange';

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
  /** What its tab says, where it is not its title. */
  readonly tab?: string;
  /** Files in which its entries come and go, with what the button in its index says. */
  readonly files?: { readonly act: string; readonly of: ExchangedFile };
  /** What else is listed in its index. */
  readonly also?: readonly string[];
}

export const CHAPTERS: readonly ChapterInfo[] = [
  {
    key: 'attributes',
    title: 'Stats',
    one: 'attribute',
    fresh: () => ({ kind: 'pool', max: 100, see: 'owner' }),
    also: ['statuses'],
    files: { act: 'table', of: ATTRIBUTE_FILES },
  },
  { key: 'statuses', title: 'Statuses', one: 'status', fresh: () => ({}) },
  { key: 'effects', title: 'Effects', one: 'effect', fresh: () => ({ lasts: '5s' }) },
  {
    key: 'abilities',
    title: 'Abilities',
    one: 'ability',
    fresh: () => ({ cooldown: '5s' }),
    also: ['clips', 'groups'],
    files: { act: 'clips', of: CLIP_FILES },
  },
  { key: 'clips', title: 'Clips', one: 'clip', fresh: () => ({ length: '1s' }) },
  { key: 'groups', title: 'Cooldown groups', one: 'group', fresh: () => ({ lasts: '1s' }) },
  { key: 'actors', title: 'Actors', one: 'actor', fresh: () => ({ kind: 'foe' }), also: ['states'] },
  {
    key: 'pickups',
    title: 'Pickups',
    tab: 'World',
    one: 'pickup',
    fresh: () => ({}),
    also: ['zones', 'interactions', 'dialogues', 'containers', 'spawners', 'reactions'],
  },
  { key: 'zones', title: 'Zones', one: 'zone', fresh: () => ({}) },
  { key: 'interactions', title: 'Interactions', one: 'interaction', fresh: () => ({ prompt: 'Talk' }) },
  { key: 'dialogues', title: 'Dialogues', one: 'dialogue', fresh: () => ({ lines: [{ id: 'first', text: 'Well met.', for: '2s' }] }) },
  { key: 'containers', title: 'Containers', one: 'container', fresh: () => ({ opening: '1s', closing: '500ms' }) },
  {
    key: 'spawners',
    title: 'Spawners',
    one: 'spawner',
    fresh: () => ({ what: [{ weight: 1 }], when: { is: 'every', time: '20s' }, most: 3 }),
  },
  { key: 'reactions', title: 'Reactions', one: 'reaction', fresh: () => ({ on: { on: 'actorDefeated' } }) },
  {
    key: 'tracks',
    title: 'Levels',
    one: 'track',
    fresh: () => ({ levels: 20, needs: '100 * level' }),
  },
  { key: 'trees', title: 'Skills', one: 'skill tree', fresh: () => ({ points: 5, nodes: [{ id: 'first', label: 'First', x: 1, y: 0 }] }) },
  {
    key: 'quests',
    title: 'Quests',
    one: 'quest',
    fresh: () => ({
      text: 'What there is to do.',
      offered: [{ by: 'start' }],
      steps: [
        { id: 'first', label: 'First', goals: [{ id: 'fell', line: 'Felled {have}/{need}', on: { on: 'actorDefeated', who: 'source' } }] },
      ],
    }),
  },
  {
    key: 'achievements',
    title: 'Achievements',
    one: 'achievement',
    fresh: () => ({ on: { on: 'actorDefeated', who: 'source' }, text: 'What it takes.' }),
  },
  {
    key: 'loot',
    title: 'Loot',
    one: 'loot table',
    fresh: () => ({ entries: [{ id: 'nothing', weight: 1 }] }),
  },
  { key: 'teams', title: 'Teams', one: 'team', fresh: () => ({ mark: 'T' }) },
  { key: 'markets', title: 'Markets', tab: 'Economy', one: 'market', fresh: () => ({ goods: [] }), also: ['shops', 'offers'] },
  { key: 'shops', title: 'Shops', one: 'shop', fresh: () => ({ sells: [] }) },
  { key: 'offers', title: 'Offers', one: 'offer', fresh: () => ({}) },
  { key: 'states', title: 'States', one: 'state', fresh: () => ({ allows: [], lasts: '3s' }) },
];

/** Chapters with a tab; others are listed among the entries of one that has. */
export const TABS = CHAPTERS.filter((chapter) => !CHAPTERS.some((other) => other.also?.includes(chapter.key)));

/** The chapter whose tab an entry of a chapter is found under. */
export const tabOf = (key: string): string => CHAPTERS.find((chapter) => chapter.also?.includes(key))?.key ?? key;

/** Entries that every ruleset has behind its own, as the core gives them; a ruleset that writes one of these ids says it anew. */
export const GIVEN: Readonly<Record<string, readonly EntryJson[]>> = {
  states: [
    { id: 'idle', label: 'Idle', allows: ['move', 'use'] },
    { id: 'moving', label: 'Moving', allows: ['move', 'use'] },
    { id: 'casting', label: 'Casting' },
    { id: 'channelling', label: 'Channelling' },
    { id: 'recovering', label: 'Recovering', allows: ['move'] },
    { id: 'stunned', label: 'Stunned' },
    { id: 'down', label: 'Down', into: [] },
  ],
};

export const chapterOf = (key: string): ChapterInfo | undefined => CHAPTERS.find((chapter) => chapter.key === key);

/** The entries that a ruleset writes, in its order; none where what is written under that name is no list of entries. */
export function writtenIn(document: RulesetJson | undefined, chapter: string): readonly EntryJson[] {
  const written = document?.[chapter];
  return Array.isArray(written) ? (written as EntryJson[]) : [];
}

/** The entries that a chapter has: those that are written, then those that are given. */
export function entriesOf(document: RulesetJson | undefined, chapter: string): readonly EntryJson[] {
  const own = writtenIn(document, chapter);
  const given = GIVEN[chapter];
  return given && document ? [...own, ...given.filter(({ id }) => !own.some((entry) => entry.id === id))] : own;
}

/** Whether an entry is given and not written. */
export function isGiven(document: RulesetJson | undefined, chapter: string, id: string): boolean {
  return (GIVEN[chapter] ?? []).some((entry) => entry.id === id) && !writtenIn(document, chapter).some((entry) => entry.id === id);
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
