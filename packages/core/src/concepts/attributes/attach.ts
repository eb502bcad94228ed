import type { World } from '../../world/world.js';
import type { CompiledAttributes } from './compile.js';
import { Remembered } from './remembered.js';
import { attributesTable, crossingsTable, modifierHeadsTable, modifiersTable, restsTable } from './tables.js';

import type { Attributes, Cells } from './state.js';

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
  const isWatched = (i: number) => compiled.list[i].kind === 'pool' || compiled.list[i].thresholds.length > 0;
  const watched = compiled.ofType.map((own) => own.filter(isWatched).sort((one, other) => one - other));
  return {
    compiled,
    cells,
    modifiers,
    of: modifiers.cells,
    heads: modifierHeadsTable.in(world),
    crossings: crossingsTable.in(world),
    rests: restsTable.in(world),
    watched,
    here: { version: -1, refilled: [], edged: [], restless: false },
    unsettled: new Map(),
    alone,
  };
}
