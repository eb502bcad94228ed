import { World } from '../../world/world.js';
import { ACTIVE, AHEAD, CURRENT, NONE, PASSED, READY, STANDINGS } from './tables.js';
import { quests } from './state.js';
import { currentStep, show } from './log.js';
import { MOST_COUNT } from './schema.js';
import { forEach, isPlayer, progressOf, sharers, unite } from './record.js';
import { goOn } from './course.js';
import { about, fail } from './steps.js';
import { events } from './events.js';

/** Adds to what a player has of a goal of their current step, and goes on where that was missing. */
export function advance(world: World, actor: number, q: number, g: number, amount: number): void {
  const row = world.actors.rowOf(actor);
  const step = row < 0 ? -1 : currentStep(world, row, q);
  const { cells, list, lines } = quests.in(world);
  if (step < 0 || cells[q].standing.data[row] !== ACTIVE) return;
  const goal = list[q].steps[step].goals[g];
  const { have, row: at } = cells[q].steps[step].goals[g];
  const before = have.data[row];
  if (!goal || before >= goal.need) return;
  const now = Math.min(goal.need, before + amount);
  const all = sharers(world, row, q);
  for (const other of all) {
    have.data[other] = now;
    if (at.data[other] > 0) lines.cells.have[at.data[other] - 1] = now;
  }
  const data = { ...about(list[q]), goal: goal.id, have: now, need: goal.need };
  world.follow(events.goalCounted, { subject: actor, source: actor }, data, () => {
    if (now >= goal.need) forEach(world, all, (_, parties) => goal.then(world, parties));
    goOn(world, actor, q);
  });
}

/** Conditions that have come true, and time that is over. */
export function look(world: World): void {
  const { cells, list, players, watched } = quests.in(world);
  if (watched.length === 0) return;
  const types = world.actors.cells.type;
  for (let row = 0; row < world.actors.high; row++) {
    if (world.actors.live[row] === 0 || !players[types[row]]) continue;
    const actor = world.actors.handle(row);
    for (const q of watched) {
      if (cells[q].standing.data[row] !== ACTIVE) continue;
      const step = currentStep(world, row, q);
      if (step >= 0 && list[q].steps[step].asks)
        list[q].steps[step].goals.forEach(({ test, need }, g) => {
          if (!test || cells[q].steps[step].goals[g].have.data[row] >= need || world.actors.rowOf(actor) < 0) return;
          if (test(world, World.alone(actor)) !== 0) advance(world, actor, q, g, 1);
        });
      if (list[q].limit === 0 || world.actors.rowOf(actor) < 0 || cells[q].standing.data[row] !== ACTIVE) continue;
      const { left, until } = cells[q];
      left.data[row] = Math.max(0, until.data[row] - world.tick);
      if (left.data[row] === 0) fail(world, actor, q, 'time');
    }
  }
}

/** Has what was kept of a player fit the rules: one step is current, what is counted is within what is needed. */
export function makeSound(world: World, row: number): void {
  const { cells, list, lookTimer } = quests.in(world);
  if (!isPlayer(world, row)) return;
  list.forEach(({ steps, handIn, limit }, q) => {
    const { standing, times, left, until, at: current, steps: at } = cells[q];
    if (!(standing.data[row] >= NONE && standing.data[row] < STANDINGS.length)) standing.data[row] = NONE;
    times.data[row] = Math.max(0, times.data[row]);
    current.data[row] = 0;
    if (standing.data[row] !== ACTIVE && standing.data[row] !== READY) return;
    // An edit may have put a step before one that was passed: it is still to be done, and those behind it stay passed.
    const first = at.findIndex((step) => step.standing.data[row] !== PASSED);
    if (first >= 0) standing.data[row] = ACTIVE;
    else if (standing.data[row] === READY && handIn < 0) standing.data[row] = ACTIVE;
    at.forEach(({ standing: { data } }, s) => {
      if (s > first && first >= 0 && data[row] === CURRENT) data[row] = AHEAD;
    });
    // Where all are passed the last one is asked again: its goals are met.
    const now = first < 0 ? steps.length - 1 : first;
    if (standing.data[row] === ACTIVE) {
      at[now].standing.data[row] = CURRENT;
      current.data[row] = now + 1;
    }
    steps.forEach((step, s) =>
      step.goals.forEach(({ need }, g) => {
        const { have } = at[s].goals[g];
        have.data[row] = Math.max(0, Math.min(need, have.data[row], MOST_COUNT));
        if (first < 0 && standing.data[row] === ACTIVE && s === steps.length - 1) have.data[row] = need;
      }),
    );
    if (!(left.data[row] > 0 && left.data[row] <= limit)) left.data[row] = limit;
    until.data[row] = limit === 0 ? 0 : world.tick + left.data[row];
  });
  world.setTimer(lookTimer, 1, world.actors.handle(row), 0);
}

/** Goes on with whatever an edit has made complete. */
export function lookBack(world: World, actor: number): void {
  quests.in(world).list.forEach(({ shared }, q) => {
    if (shared && world.actors.rowOf(actor) >= 0) unite(world, world.actors.rowOf(actor), q);
    goOn(world, actor, q);
  });
}

/** Takes all that a player has of quests back: as if none had ever been offered. */
export function forgetQuests(world: World, actor: number): void {
  const row = world.actors.rowOf(actor);
  if (!isPlayer(world, row)) return;
  quests.in(world).cells.forEach((cells, q) => {
    for (const { data } of [...progressOf(cells), cells.times, cells.again, cells.offered]) data[row] = 0;
    show(world, row, q);
  });
  world.emit(events.questsReset, { subject: actor }, {});
}

/** Counts for a goal of the current step, or for all of them. */
export function countByAction(world: World, actor: number, q: number, goal: string | undefined, amount: number): void {
  const row = world.actors.rowOf(actor);
  const step = isPlayer(world, row) ? currentStep(world, row, q) : -1;
  if (step < 0) return;
  quests.in(world).list[q].steps[step].goals.forEach(({ id }, g) => {
    const at = world.actors.rowOf(actor);
    if ((goal === undefined || goal === id) && at >= 0 && currentStep(world, at, q) === step) advance(world, actor, q, g, amount);
  });
}
