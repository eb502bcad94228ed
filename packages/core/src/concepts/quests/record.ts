import { World } from '../../world/world.js';
import { allActors, teamOf } from '../actors/index.js';
import { ACTIVE, DONE, NONE, PASSED, READY, type QuestCells } from './tables.js';
import type { Quest } from './compile.js';
import { quests } from './state.js';
import { show } from './log.js';

// A quest that is shared is one record for all who share it. Each of them has it in their own row, as it has to be kept of each
// player: whatever is written to one is written to all, here and nowhere else.

export function isPlayer(world: World, row: number): boolean {
  return row >= 0 && quests.of(world.rules).players[world.actors.cells.type[row]];
}

/** Whether somebody is on a quest, or has it to hand in. */
export function isOn(world: World, row: number, q: number): boolean {
  const standing = quests.in(world).cells[q].standing.data[row];
  return standing === ACTIVE || standing === READY;
}

/** The rows of the players for whom a quest is taken when one of them takes it: them alone, their crew, or all; they come first. */
export function takers(world: World, row: number, { takenBy }: Quest): readonly number[] {
  if (takenBy === 'player') return [row];
  const actor = world.actors.handle(row);
  const others = (takenBy === 'crew' ? teamOf(world, actor) : allActors(world)).map((other) => world.actors.rowOf(other));
  return [row, ...others.filter((other) => other !== row && isPlayer(world, other))];
}

/** The rows of those who have one record with somebody who is on a quest; they come first, and are alone where it is not shared. */
export function sharers(world: World, row: number, q: number): readonly number[] {
  const quest = quests.in(world).list[q];
  return quest.shared ? takers(world, row, quest).filter((other) => other === row || isOn(world, other, q)) : [row];
}

/** Of players for whom something counts, one for each record; who comes first stands for it. */
export function onePerRecord(world: World, rows: readonly number[], q: number): readonly number[] {
  if (rows.length < 2 || !quests.in(world).list[q].shared) return rows;
  const covered = new Set<number>();
  return rows.filter((row) => {
    if (covered.has(row)) return false;
    for (const other of sharers(world, row, q)) covered.add(other);
    return true;
  });
}

/**
 * Has a list follow for each of those who share a record: what follows once does so for the first of them alone.
 * @param tell is given a player, and the parties of the list
 */
export function forEach(
  world: World,
  rows: readonly number[],
  tell: (actor: number, parties: ReturnType<typeof World.alone> & { readonly repeated?: boolean }) => void,
): void {
  // By handle: what follows for one may take another away.
  rows
    .map((row) => world.actors.handle(row))
    .forEach((actor, i) => {
      if (world.actors.rowOf(actor) >= 0) tell(actor, i === 0 ? World.alone(actor) : { ...World.alone(actor), repeated: true });
    });
}

/** The columns of how far somebody is with a quest. */
export const progressOf = ({ standing, left, until, at, steps }: QuestCells) => [
  standing,
  left,
  until,
  at,
  ...steps.map((step) => step.standing),
  ...countsOf(steps),
];

/** The columns of what was counted for each of a quest's goals. */
const countsOf = (steps: QuestCells['steps']) => steps.flatMap(({ goals }) => goals.map(({ have }) => have));

/** Has a player be on a quest as another is. */
export function enterAsItStands(world: World, row: number, other: number, q: number): void {
  const cells = quests.in(world).cells[q];
  for (const { data } of progressOf(cells)) data[row] = data[other];
  cells.offered.data[row] = cells.again.data[row] = 0;
  show(world, row, q);
}

/** Takes what a player has of a quest out, as if they had never been on it. How often it was done stays. */
function takeOut(world: World, row: number, q: number): void {
  for (const { data } of progressOf(quests.in(world).cells[q])) data[row] = 0;
  show(world, row, q);
}

/** How far a record is: what is to be handed in before what is not, then by steps, by what was counted, and by the time left. */
function isFurther(world: World, row: number, other: number, q: number): boolean {
  const { standing, steps, until } = quests.in(world).cells[q];
  const passed = (at: number) => steps.filter((step) => step.standing.data[at] === PASSED).length;
  const counted = (at: number) => countsOf(steps).reduce((sum, { data }) => sum + data[at], 0);
  const far = [(at: number) => standing.data[at], passed, counted, (at: number) => until.data[at]].map((of) => of(row) - of(other));
  return (far.find((difference) => difference !== 0) ?? 0) > 0;
}

/** Has the records that meet in a crew be one: the one that is furthest. */
export function unite(world: World, row: number, q: number): void {
  const rows = sharers(world, row, q).filter((at) => isOn(world, at, q));
  const furthest = rows.reduce((best, at) => (isFurther(world, at, best, q) ? at : best), rows[0]);
  for (const at of rows) if (isFurther(world, furthest, at, q)) enterAsItStands(world, at, furthest, q);
}

/** Whether somebody has nothing to do with a quest yet, or has ended it well: who turned it down or gave it up is not drawn into it. */
export const isUntouched = (world: World, row: number, q: number): boolean =>
  [NONE, DONE].includes(quests.in(world).cells[q].standing.data[row]);

/** Has whoever leaves a crew leave its records with those who stay; where nobody does they take them along. */
export function leaveBehind(world: World, row: number, before: number): void {
  const { list } = quests.in(world);
  const team = world.actors.cells.team;
  for (const { index, shared, takenBy } of list) {
    if (!shared || takenBy !== 'crew' || !isOn(world, row, index)) continue;
    for (let at = 0; at < world.actors.high; at++)
      if (at !== row && world.actors.live[at] === 1 && team[at] === before && isPlayer(world, at) && isOn(world, at, index)) {
        takeOut(world, row, index);
        break;
      }
  }
}
