import type { World } from '../../world/world.js';
import { statuses } from './state.js';
import { events } from './events.js';

/** Whether an actor is in a status, however many grants of it there are. */
export function hasStatus(world: World, actor: number, status: number): boolean {
  const row = world.actors.rowOf(actor);
  return row >= 0 && statuses.in(world).grants[status].data[row] > 0;
}

/** Adds a grant of a status to an actor (`by` 1) or takes one away (`by` -1; below none it stays none). */
export function changeStatus(world: World, actor: number, status: number, by: 1 | -1): void {
  const row = world.actors.rowOf(actor);
  if (row < 0) return;
  const { grants: all, ids } = statuses.in(world);
  const grants = all[status].data;
  const before = grants[row];
  world.touch(row);
  grants[row] = Math.max(0, before + by);
  if (before === 0 && by === 1) world.emit(events.statusGained, { subject: actor }, { status: ids[status] });
  if (before === 1 && by === -1) world.emit(events.statusLost, { subject: actor }, { status: ids[status] });
}
