import type { TableOf } from '../../world/define-table.js';
import type { Column } from '../../world/table.js';
import type { World } from '../../world/world.js';
import type { CompiledAttributes } from './compile.js';
import { Remembered } from './remembered.js';
import { attributesTable, crossingsTable, modifierHeadsTable, modifiersTable, restsTable } from './tables.js';

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
  readonly cells: readonly Cells[];
  readonly modifiers: TableOf<typeof modifiersTable>;
  readonly of: TableOf<typeof modifiersTable>['cells'];
  readonly heads: TableOf<typeof modifierHeadsTable>;
  readonly crossings: TableOf<typeof crossingsTable>;
  readonly rests: TableOf<typeof restsTable>;
  /** Attributes that have an end or an edge that matters when it is crossed. */
  readonly watched: readonly number[];
  /** Rows whose values were moved in this tick, with what moved them last. Empty between ticks. */
  readonly unsettled: Map<number, number>;
  /** By attribute: a counter that no bound and no live amount reads. A change to it moves nothing else. */
  readonly alone: readonly boolean[];
}

export function attachAttributes(world: World, compiled: CompiledAttributes): Attributes {
  const modifiers = modifiersTable.in(world);
  const cells = attributesTable.columnsIn(world, compiled.list).map((columns, i): Cells => {
    const { kind, thresholds } = compiled.list[i];
    return {
      ...columns,
      own: kind === 'stat' ? columns.base! : columns.value,
      rates: new Remembered(),
      edges: thresholds.map(() => ({ low: new Remembered(), top: new Remembered(), margin: new Remembered() })),
    };
  });
  const bounds = compiled.list.flatMap(({ min, max }) => [...min.references, ...(max?.references ?? [])]);
  const live = [...world.rules.amounts.values()].flatMap(({ references }) => references);
  const read = new Set([...bounds, ...live].map(({ id }) => id));
  const alone = compiled.list.map(({ id, kind }) => kind === 'counter' && !read.has(id));
  const watched = compiled.list.flatMap(({ kind, thresholds }, i) => (kind === 'pool' || thresholds.length > 0 ? [i] : []));
  return {
    compiled,
    cells,
    modifiers,
    of: modifiers.cells,
    heads: modifierHeadsTable.in(world),
    crossings: crossingsTable.in(world),
    rests: restsTable.in(world),
    watched,
    unsettled: new Map(),
    alone,
  };
}
