import type { Rules } from '../../ruleset/rules.js';
import type { World } from '../../world/world.js';
import type { CompiledAttributes } from './compile.js';
import { Remembered } from './remembered.js';
import { attributesTable, crossingsTable, modifierHeadsTable, modifiersTable, restsTable } from './tables.js';

import type { Attributes, Cells } from './state.js';

/** What is the same in all worlds under the same rules. */
type UnderRules = Pick<Attributes, 'watched' | 'alone' | 'looked' | 'restless' | 'common'>;
const known = new WeakMap<Rules, UnderRules>();

function underRules(rules: Rules, { list, ofType }: CompiledAttributes): UnderRules {
  const before = known.get(rules);
  if (before) return before;
  const bounds = list.flatMap(({ min, max }) => [...min.references, ...(max?.references ?? [])]);
  const live = [...rules.amounts.values()].flatMap(({ references }) => references);
  const read = new Set([...bounds, ...live].map(({ id }) => id));
  const isWatched = (i: number) => list[i].kind === 'pool' || list[i].thresholds.length > 0;
  const now: UnderRules = {
    alone: list.map(({ id, kind }) => kind === 'counter' && !read.has(id)),
    looked: ofType.map((own) => own.filter((i) => list[i].refill !== undefined || list[i].thresholds.length > 0)),
    restless: ofType.map((own) => own.some((i) => list[i].restless)),
    common: list.map(({ present }) => present.every(Boolean)),
    watched: ofType.map((own) => own.filter(isWatched).sort((one, other) => one - other)),
  };
  known.set(rules, now);
  return now;
}

const NO_EDGES: Cells['edges'] = [];

export function attachAttributes(world: World, compiled: CompiledAttributes): Attributes {
  const modifiers = modifiersTable.in(world);
  const columns = attributesTable.columnsIn(world, compiled.list);
  const cells = compiled.list.map(({ kind, thresholds }, i): Cells => {
    const { value, base, min, max, share, shared, part, rests, inside } = columns[i];
    const edges =
      thresholds.length === 0
        ? NO_EDGES
        : thresholds.map(() => ({ low: new Remembered(), top: new Remembered(), margin: new Remembered() }));
    const own = kind === 'stat' ? base! : value;
    return { value, base, min, max, share, shared, part, rests, inside, own, rates: new Remembered(), edges };
  });
  return {
    ...underRules(world.rules, compiled),
    compiled,
    cells,
    modifiers,
    of: modifiers.cells,
    heads: modifierHeadsTable.in(world),
    crossings: crossingsTable.in(world),
    rests: restsTable.in(world),
    here: { version: -1, refilled: [], edged: [], rows: [], restless: [] },
    unsettled: new Map(),
    returning: [],
  };
}
