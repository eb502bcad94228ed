import type { TableSpec } from '../../world/columns.js';
import type { Column, Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import type { CompiledAbilities } from './compile.js';

/** The parts of a use that take time, as the table of casts counts them. */
export const PHASES = ['casting', 'channelling', 'recovering'] as const;
export type CastPhase = (typeof PHASES)[number];

const OWNED = ['actor', 'ability', 'ready', 'cooldown', 'stored', 'refill'] as const;
const CASTS = [
  'actor',
  'ability',
  'phase',
  'state',
  'began',
  'ends',
  'pulse',
  'aimX',
  'aimY',
  'target',
  'charged',
  'fromX',
  'fromY',
  'cause',
] as const;

type Columns<N extends readonly string[]> = Readonly<Record<N[number], Column>>;

/** The abilities' grip on a world. */
export interface Abilities extends CompiledAbilities {
  readonly table: Table;
  readonly of: Columns<typeof OWNED>;
  readonly casts: Table;
  readonly cast: Columns<typeof CASTS>;
  readonly paid: Table;
  readonly gifts: Table;
  readonly numbers: Table;
}

export function abilityTables({ entries }: CompiledAbilities): readonly TableSpec[] {
  const see = { column: 'ability', of: entries.map((entry) => entry.see) };
  return [
    {
      name: 'abilities',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor', see: 'owner' },
        { name: 'ability', kind: 'entry', chapter: 'abilities', see: 'owner' },
        // The tick from which it may be used again.
        { name: 'ready', kind: 'tick', see: 'owner' },
        // The length of the cooldown that runs or ran last, in ticks.
        { name: 'cooldown', kind: 'int', see: 'owner' },
        // Uses in store, and the tick at which the next one is; 0 where none is to come.
        { name: 'stored', kind: 'int', see: 'owner' },
        { name: 'refill', kind: 'tick', see: 'owner' },
      ],
    },
    {
      name: 'casts',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor', see },
        { name: 'ability', kind: 'entry', chapter: 'abilities', see },
        // 0 casting, 1 channelling, 2 recovering.
        { name: 'phase', kind: 'int', see },
        // The state that it put its user into.
        { name: 'state', kind: 'entry', chapter: 'states', optional: true, see: 'server' },
        { name: 'began', kind: 'tick', see },
        { name: 'ends', kind: 'tick', see },
        // The tick of a channel's next pulse.
        { name: 'pulse', kind: 'tick', see: 'server' },
        // The point that it is aimed at; for a direction or a cone the direction, of length 1.
        { name: 'aimX', kind: 'number', see, decimals: 2 },
        { name: 'aimY', kind: 'number', see, decimals: 2 },
        { name: 'target', kind: 'actor', see },
        { name: 'charged', kind: 'flag', see: 'owner' },
        // Where its user stood when it began.
        { name: 'fromX', kind: 'number', see: 'server', decimals: 1 },
        { name: 'fromY', kind: 'number', see: 'server', decimals: 1 },
        // The serial of the event that it is part of.
        { name: 'cause', kind: 'serial', see: 'server' },
      ],
    },
    {
      // Abilities beyond those of its kind, and what has given them.
      name: 'abilityGifts',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor', see: 'server' },
        { name: 'ability', kind: 'entry', chapter: 'abilities', see: 'server' },
        { name: 'giver', kind: 'int', see: 'server' },
      ],
    },
    {
      // What is other about an ability for one actor, as its player may know who learned it.
      name: 'abilityNumbers',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor', see: 'owner' },
        { name: 'ability', kind: 'entry', chapter: 'abilities', see: 'owner' },
        { name: 'number', kind: 'int', see: 'owner' },
        { name: 'change', kind: 'int', see: 'owner' },
        { name: 'amount', kind: 'number', see: 'owner', decimals: 3 },
        { name: 'giver', kind: 'int', see: 'server' },
      ],
    },
    {
      // What a use that is under way has been paid with, to be given back where it breaks.
      name: 'paid',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor', see: 'server' },
        { name: 'attribute', kind: 'entry', chapter: 'attributes', see: 'server' },
        { name: 'amount', kind: 'number', see: 'server', decimals: 3 },
      ],
    },
  ];
}

export function attachAbilities(world: World, compiled: CompiledAbilities): Abilities {
  const columns = <N extends readonly string[]>(table: Table, names: N) =>
    Object.fromEntries(names.map((name) => [name, table.column(name)])) as Columns<N>;
  const table = world.table('abilities');
  const casts = world.table('casts');
  return {
    ...compiled,
    table,
    of: columns(table, OWNED),
    casts,
    cast: columns(casts, CASTS),
    paid: world.table('paid'),
    gifts: world.table('abilityGifts'),
    numbers: world.table('abilityNumbers'),
  };
}

/** The row of an actor's ability by its position in the chapter, or -1. */
export function ownedRow({ table, of }: Abilities, actor: number, ability: number): number {
  const [owner, kind] = [of.actor.data, of.ability.data];
  for (let at = 0; at < table.high; at++) if (table.live[at] === 1 && owner[at] === actor && kind[at] === ability) return at;
  return -1;
}

/** The row of what an actor is casting, channelling or recovering from, or -1. */
export function castRow({ casts, cast }: Abilities, actor: number): number {
  const owner = cast.actor.data;
  for (let at = 0; at < casts.high; at++) if (casts.live[at] === 1 && owner[at] === actor) return at;
  return -1;
}
