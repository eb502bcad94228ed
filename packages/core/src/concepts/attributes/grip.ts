import type { Column, Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import type { CompiledAttributes } from './compile.js';
import { MODIFIER_COLUMNS, type ModifierColumns } from './modifiers.js';
import { Remembered } from './remembered.js';
import { columnsOf } from './tables.js';

/** The columns of one attribute, looked up once; those that its author's words do not call for are not there. */
export interface Cells {
  readonly value: Column;
  /** What changes are made to: a stat's base, any other's value. */
  readonly own: Column;
  readonly min: Column | undefined;
  readonly max: Column | undefined;
  readonly share: Column | undefined;
  readonly shared: Column | undefined;
  readonly part: Column | undefined;
  readonly rests: Column | undefined;
  readonly inside: readonly Column[];
  /** Rates by row, and edges by threshold and row, as they were worked out when the row was last touched. */
  readonly rates: Remembered;
  readonly edges: readonly { readonly low: Remembered; readonly top: Remembered; readonly margin: Remembered }[];
}

/** The attributes' grip on a world. */
export interface Attributes {
  readonly compiled: CompiledAttributes;
  readonly table: Table;
  readonly cells: readonly Cells[];
  readonly modifiers: Table;
  readonly of: ModifierColumns;
  readonly heads: Table;
  readonly crossings: Table;
  readonly rests: Column;
  /** Attributes that have an end or an edge that matters when it is crossed. */
  readonly watched: readonly number[];
  /** Rows whose values were moved in this tick, with what moved them last. Empty between ticks. */
  readonly unsettled: Map<number, number>;
  /** By attribute: a counter that no bound and no live amount reads. A change to it moves nothing else. */
  readonly alone: readonly boolean[];
}

export function attachAttributes(world: World, compiled: CompiledAttributes): Attributes {
  const table = world.table('attributes');
  const modifiers = world.table('modifiers');
  const find = (name: string) => (table.has(name) ? table.column(name) : undefined);
  const cells = compiled.list.map(({ id, kind, thresholds }): Cells => {
    const value = table.column(id);
    return {
      value,
      own: kind === 'stat' ? table.column(columnsOf.base(id)) : value,
      min: find(columnsOf.min(id)),
      max: find(columnsOf.max(id)),
      share: find(columnsOf.share(id)),
      shared: find(columnsOf.shared(id)),
      part: find(columnsOf.part(id)),
      rests: find(columnsOf.rests(id)),
      inside: thresholds.map((threshold) => table.column(columnsOf.inside(id, threshold.id))),
      rates: new Remembered(),
      edges: thresholds.map(() => ({ low: new Remembered(), top: new Remembered(), margin: new Remembered() })),
    };
  });
  const bounds = compiled.list.flatMap(({ min, max }) => [...min.references, ...(max?.references ?? [])]);
  const live = [...world.rules.amounts.values()].flatMap(({ references }) => references);
  const read = new Set([...bounds, ...live].map(({ id }) => id));
  const alone = compiled.list.map(({ id, kind }) => kind === 'counter' && !read.has(id));
  const of = Object.fromEntries(MODIFIER_COLUMNS.map((name) => [name, modifiers.column(name)])) as ModifierColumns;
  const watched = compiled.list.flatMap(({ kind, thresholds }, i) => (kind === 'pool' || thresholds.length > 0 ? [i] : []));
  return {
    compiled,
    table,
    cells,
    modifiers,
    of,
    heads: world.table('modifierHeads'),
    crossings: world.table('crossings'),
    rests: world.table('rests').columns[0],
    watched,
    unsettled: new Map(),
    alone,
  };
}
