import { type World } from '../../world/world.js';
import { allActors, teamOf } from '../actors/index.js';
import { DAY, serverNow } from '../calendar/index.js';
import { ACTIVE, AHEAD, CURRENT, DONE, FAILED, NONE, PASSED } from './tables.js';
import type { Quest } from './compile.js';
import { quests } from './state.js';
import { currentStep, show } from './log.js';
import { forEach, isPlayer, sharers } from './record.js';
import { events } from './events.js';

/** When what was done, turned down or given up at this moment is there again. */
export function nextTime(world: World, { repeats, after }: Quest): number {
  const now = serverNow(world);
  if (repeats === 'daily') return (Math.floor(now / DAY) + 1) * DAY;
  return repeats === 'after' ? now + after : 0;
}

export const about = ({ id, label }: Quest): { readonly quest: string; readonly label: string } => ({ quest: id, label });

/** Makes a step the current one. Where each of several has their own, what the others have counted for all counts. */
export function enterStep(world: World, row: number, q: number, s: number): void {
  const { cells, list } = quests.in(world);
  cells[q].steps[s].standing.data[row] = CURRENT;
  cells[q].at.data[row] = s + 1;
  list[q].steps[s].goals.forEach(({ counts }, g) => {
    const { have } = cells[q].steps[s].goals[g];
    have.data[row] = 0;
    if (counts === 'player' || list[q].takenBy === 'player' || list[q].shared) return;
    const actor = world.actors.handle(row);
    const others = counts === 'crew' ? teamOf(world, actor) : allActors(world);
    for (const other of others) {
      const at = world.actors.rowOf(other);
      if (isPlayer(world, at) && cells[q].standing.data[at] === ACTIVE && currentStep(world, at, q) === s)
        have.data[row] = Math.max(have.data[row], have.data[at]);
    }
  });
}

export function forgetSteps(world: World, row: number, q: number): void {
  const { steps, at } = quests.in(world).cells[q];
  at.data[row] = 0;
  for (const { standing, goals } of steps) {
    standing.data[row] = AHEAD;
    for (const { have } of goals) have.data[row] = 0;
  }
}

/** What ends a quest before it is done. */
export function leave(world: World, row: number, q: number, how: number): void {
  const { cells, list } = quests.in(world);
  forgetSteps(world, row, q);
  cells[q].standing.data[row] = how;
  cells[q].left.data[row] = cells[q].until.data[row] = 0;
  cells[q].again.data[row] = nextTime(world, list[q]);
  show(world, row, q);
}

/** Ends a quest as failed: by its time, by what was done, or by an action. */
export function fail(world: World, actor: number, q: number, why: 'time' | 'event' | 'action', source = 0): void {
  const row = world.actors.rowOf(actor);
  const { cells, list } = quests.in(world);
  const standing = row < 0 ? NONE : cells[q].standing.data[row];
  // What is only to be handed in has come out well: neither time nor anything else undoes it.
  if (standing !== ACTIVE) return;
  const all = sharers(world, row, q);
  for (const other of all) leave(world, other, q, FAILED);
  forEach(world, all, (one, parties) =>
    world.follow(events.questFailed, { subject: one, source }, { ...about(list[q]), why }, () => list[q].onFail(world, parties)),
  );
}

/** Notes that a quest was done: from here on it is, whatever follows. */
export function noteDone(world: World, row: number, q: number): void {
  const { cells, list } = quests.in(world);
  const { standing, times, again, left, until, at, steps } = cells[q];
  standing.data[row] = DONE;
  times.data[row]++;
  left.data[row] = until.data[row] = at.data[row] = 0;
  again.data[row] = nextTime(world, list[q]);
  for (const step of steps) step.standing.data[row] = PASSED;
  show(world, row, q);
}
