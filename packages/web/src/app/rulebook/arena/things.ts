import type { RulesetJson } from '../../shared/api';
import { entriesOf, labelOf } from '../entries';

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface PlacedJson extends Point {
  readonly id?: string;
  readonly pickup?: string;
  readonly actor?: string;
  readonly zone?: string;
  readonly spawner?: string;
  readonly team?: string;
  readonly radius?: number;
  readonly width?: number;
  readonly height?: number;
  readonly with?: Readonly<Record<string, unknown>>;
  readonly [field: string]: unknown;
}

export interface WallJson extends Point {
  readonly width: number;
  readonly height: number;
}

export interface ArenaJson {
  readonly width: number;
  readonly height: number;
  readonly walls: readonly WallJson[];
  readonly starts: readonly (Point & { readonly team?: string })[];
  readonly placed: readonly PlacedJson[];
}

/** The lists of an arena whose things can be moved about. */
export const LISTS = ['placed', 'walls', 'starts'] as const;
export type List = (typeof LISTS)[number];

/** One thing of the arena: which list it stands in, and where. */
export interface Item {
  readonly list: List;
  readonly index: number;
}

export const CHAPTER_OF = { pickup: 'pickups', actor: 'actors', zone: 'zones', spawner: 'spawners' } as const;
export type Kind = keyof typeof CHAPTER_OF;
export const KINDS = Object.keys(CHAPTER_OF) as readonly Kind[];

/** A document's arena with what it leaves out. */
export function arenaOf(document: RulesetJson | undefined): ArenaJson {
  const own = (document?.['arena'] ?? {}) as Partial<ArenaJson>;
  return { width: 960, height: 540, walls: [], starts: [], placed: [], ...own };
}

export const kindOf = (thing: PlacedJson): Kind => KINDS.find((kind) => thing[kind] !== undefined) ?? 'pickup';

/** What a placed thing is called: its own name, or that of its entry. */
export function nameOf(document: RulesetJson | undefined, thing: PlacedJson): string {
  const kind = kindOf(thing);
  return String(thing.with?.['label'] ?? labelOf(document, CHAPTER_OF[kind], String(thing[kind])));
}

export const entryOf = (document: RulesetJson | undefined, thing: PlacedJson) =>
  entriesOf(document, CHAPTER_OF[kindOf(thing)]).find(({ id }) => id === thing[kindOf(thing)]);

const numberOr = (value: unknown, otherwise: number) => (typeof value === 'number' ? value : otherwise);

/** How large a thing's body is, or the touch of a pickup. */
export function sizeOf(document: RulesetJson | undefined, thing: PlacedJson): number {
  const kind = kindOf(thing);
  const entry = entryOf(document, thing);
  if (kind === 'pickup') return numberOr(thing.with?.['radius'] ?? entry?.['radius'], 10);
  return kind === 'actor' ? numberOr(entry?.['radius'], 12) : 12;
}

/** A circle or a path that shows how far a thing reaches. */
export interface Reach {
  readonly radius: number;
  readonly says: string;
}

/** How far what a thing offers reaches, from its middle: interactions, containers, behaviours and spawners. */
export function reachesOf(document: RulesetJson | undefined, thing: PlacedJson): readonly Reach[] {
  const entry = entryOf(document, thing);
  const kind = kindOf(thing);
  const body = sizeOf(document, thing);
  if (kind === 'spawner')
    return [
      { radius: numberOr(thing.with?.['spread'] ?? entry?.['spread'], 0), says: 'spread' },
      { radius: numberOr(thing.with?.['near'] ?? entry?.['near'], 0), says: 'near' },
    ].filter(({ radius }) => radius > 0);
  if (kind !== 'actor') return [];
  const asks = (thing.with?.['asks'] ?? []) as readonly { interaction: string; reach?: number }[];
  const offers = ((entry?.['interactions'] ?? []) as readonly string[]).map((id) => {
    const own = entriesOf(document, 'interactions').find((one) => one.id === id);
    const said = asks.find(({ interaction }) => interaction === id)?.reach;
    return { radius: body + numberOr(said ?? own?.['reach'], 60), says: own?.label.toLowerCase() ?? id };
  });
  const container = entriesOf(document, 'containers').find(({ id }) => id === entry?.['container']);
  const holds = thing.with?.['holds'] as { reach?: number } | undefined;
  const opens = container ? [{ radius: body + numberOr(holds?.reach ?? container['reach'], 40), says: 'open' }] : [];
  const { within } = (entry?.['behaviour'] ?? {}) as { within?: number };
  const minds = within === undefined ? [] : [{ radius: within, says: 'minds' }];
  return [...offers, ...opens, ...minds];
}
