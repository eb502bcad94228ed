import { defineTable, type TableOf } from '../../world/define-table.js';
import type { TableSpec } from '../../world/columns.js';
import type { World } from '../../world/world.js';
import type { CompiledAbilities } from './compile.js';

/** The parts of a use that take time, as the table of casts counts them. */
export const PHASES = ['casting', 'channelling', 'recovering'] as const;
export type CastPhase = (typeof PHASES)[number];

/** What of an ability can be other for one who has learned something. */
export const CHANGEABLE = ['cooldown', 'cast', 'recovery', 'channel', 'range', 'costs'] as const;
export type AbilityNumber = (typeof CHANGEABLE)[number];
/** How: so much more (seconds, units of length or of the cost), or so many percent more. */
export const CHANGES = ['add', 'percent'] as const;

export const abilitiesTable = defineTable({
  name: 'abilities',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'owner' },
    ability: { kind: 'entry', chapter: 'abilities', see: 'owner' },
    /** The tick from which it may be used again. */
    ready: { kind: 'tick', see: 'owner' },
    /** The length of the cooldown that runs or ran last, in ticks. */
    cooldown: { kind: 'int', see: 'owner' },
    /** Uses in store, and the tick at which the next one is; 0 where none is to come. */
    stored: { kind: 'int', see: 'owner' },
    refill: { kind: 'tick', see: 'owner' },
  },
});

export const castsTable = defineTable({
  name: 'casts',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'rules' },
    ability: { kind: 'entry', chapter: 'abilities', see: 'rules' },
    phase: { kind: 'int', words: PHASES, see: 'rules' },
    /** The state that it put its user into. */
    state: { kind: 'entry', chapter: 'states', optional: true, see: 'server' },
    began: { kind: 'tick', see: 'rules' },
    ends: { kind: 'tick', see: 'rules' },
    /** The tick of a channel's next pulse. */
    pulse: { kind: 'tick', see: 'server' },
    /** The point that it is aimed at; for a direction or a cone the direction, of length 1. */
    aimX: { kind: 'number', see: 'rules', decimals: 2 },
    aimY: { kind: 'number', see: 'rules', decimals: 2 },
    target: { kind: 'actor', see: 'rules' },
    charged: { kind: 'flag', see: 'owner' },
    /** Where its user stood when it began. */
    fromX: { kind: 'number', see: 'server', decimals: 1 },
    fromY: { kind: 'number', see: 'server', decimals: 1 },
    /** The serial of the event that it is part of. */
    cause: { kind: 'serial', see: 'server' },
  },
});

/** Abilities beyond those of its kind, and what has given them. */
export const abilityGiftsTable = defineTable({
  name: 'abilityGifts',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'server' },
    ability: { kind: 'entry', chapter: 'abilities', see: 'server' },
    giver: { kind: 'int', see: 'server' },
  },
});

/** What is other about an ability for one actor, as its player may know who learned it. */
export const abilityNumbersTable = defineTable({
  name: 'abilityNumbers',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'owner' },
    ability: { kind: 'entry', chapter: 'abilities', see: 'owner' },
    number: { kind: 'int', words: CHANGEABLE, see: 'owner' },
    change: { kind: 'int', words: CHANGES, see: 'owner' },
    amount: { kind: 'number', see: 'owner', decimals: 3 },
    giver: { kind: 'int', see: 'server' },
  },
});

/** What a use that is under way has been paid with, to be given back where it breaks. */
export const paidTable = defineTable({
  name: 'paid',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'server' },
    attribute: { kind: 'entry', chapter: 'attributes', see: 'server' },
    amount: { kind: 'number', see: 'server', decimals: 3 },
  },
});

/** The abilities' state of a world. */
export interface Abilities extends CompiledAbilities {
  readonly table: TableOf<typeof abilitiesTable>;
  readonly of: TableOf<typeof abilitiesTable>['cells'];
  readonly casts: TableOf<typeof castsTable>;
  readonly cast: TableOf<typeof castsTable>['cells'];
  readonly paid: TableOf<typeof paidTable>;
  readonly gifts: TableOf<typeof abilityGiftsTable>;
  readonly numbers: TableOf<typeof abilityNumbersTable>;
}

export function abilityTables({ entries }: CompiledAbilities): readonly TableSpec[] {
  const see = { column: 'ability', of: entries.map((entry) => entry.see) };
  return [abilitiesTable, castsTable.under({ see }), abilityGiftsTable, abilityNumbersTable, paidTable];
}

export function attachAbilities(world: World, compiled: CompiledAbilities): Abilities {
  const table = abilitiesTable.in(world);
  const casts = castsTable.in(world);
  return {
    ...compiled,
    table,
    of: table.cells,
    casts,
    cast: casts.cells,
    paid: paidTable.in(world),
    gifts: abilityGiftsTable.in(world),
    numbers: abilityNumbersTable.in(world),
  };
}

/** The row of an actor's ability by its position in the chapter, or -1. */
export function ownedRow({ table, of }: Abilities, actor: number, ability: number): number {
  let at = table.firstOf(actor);
  while (at >= 0 && of.ability[at] !== ability) at = table.nextOf(at);
  return at;
}

/** The row of what an actor is casting, channelling or recovering from, or -1. */
export const castRow = ({ casts }: Abilities, actor: number): number => casts.firstOf(actor);
