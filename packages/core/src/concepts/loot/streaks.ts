import type { World } from '../../world/world.js';
import { loot } from './state.js';

const ownRow = (world: World, player: number): number => {
  if (player === 0) return -1;
  const { players } = loot.in(world);
  const row = world.actors.rowOf(player);
  return row >= 0 && players[world.actors.cells.type[row]] ? row : -1;
};

function roomRow(world: World, index: number): number {
  const { room } = loot.in(world);
  const tables = room.cells.loot;
  for (const row of room.rows()) if (tables[row] === index) return row;
  return -1;
}

/** Openings in a row that did not give what the table's streak breaker is about: a player's own, or the room's. */
export function dryOf(world: World, index: number, player: number): number {
  const { streaks, room } = loot.in(world);
  const own = ownRow(world, player);
  if (own >= 0) return streaks[index]?.data[own] ?? 0;
  const row = roomRow(world, index);
  return row < 0 ? 0 : room.cells.dry[row];
}

export function noteDry(world: World, index: number, player: number, dry: number): void {
  const { streaks, room } = loot.in(world);
  const own = ownRow(world, player);
  if (own >= 0) return void (streaks[index]!.data[own] = dry);
  const row = roomRow(world, index);
  if (row >= 0) room.write(row, { dry });
  else room.insert({ loot: index, dry });
}
