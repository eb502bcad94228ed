import type { World } from '../../world/world.js';
import type { Attributes } from './state.js';
import { has, settle } from './values.js';

/** A player’s values were filled from what was kept of them: what they had is noted, since what raises its bounds comes only now. */
export function noteReturning(world: World, a: Attributes, row: number): void {
  a.cells.forEach(({ own }, i) => (a.returning[i] = own.data[row]));
  settle(world, a, row, true);
}

/** All that raises bounds is in place: what they had is there again, as far as there is room for it. */
export function returned(world: World, a: Attributes, row: number): void {
  a.compiled.list.forEach((attribute, i) => {
    if (attribute.kind !== 'stat' && has(world, attribute, row)) a.cells[i].own.data[row] = a.returning[i];
  });
  a.returning.length = 0;
  settle(world, a, row, true);
}
