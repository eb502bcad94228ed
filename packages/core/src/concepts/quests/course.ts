import { World } from '../../world/world.js';
import { serverNow } from '../calendar/index.js';
import { ACTIVE, DONE, FAILED, PASSED, READY } from './tables.js';
import { quests } from './state.js';
import { currentStep, show } from './log.js';
import { enterAsItStands, forEach, isOn, isPlayer, isUntouched, sharers, takers } from './record.js';
import { events, type Refused } from './events.js';
import { about, enterStep, forgetSteps, noteDone } from './steps.js';

/** Leaves a step whose goals are met, and the quest when it was the last one. */
export function goOn(world: World, actor: number, q: number): void {
  const { cells, list } = quests.in(world);
  const quest = list[q];
  // Asked anew each time: what follows from a step may end the quest, or take the actor away.
  for (let row = world.actors.rowOf(actor); row >= 0; row = world.actors.rowOf(actor)) {
    const step = currentStep(world, row, q);
    if (cells[q].standing.data[row] !== ACTIVE || step < 0) return;
    const met = quest.steps[step].goals.every(({ optional, need }, g) => optional || cells[q].steps[step].goals[g].have.data[row] >= need);
    if (!met) return;
    // An edit may have put this step before others that were passed.
    const next = cells[q].steps.findIndex(({ standing }, s) => s > step && standing.data[row] !== PASSED);
    const all = sharers(world, row, q);
    for (const other of all) {
      cells[q].steps[step].standing.data[other] = PASSED;
      cells[q].at.data[other] = 0;
      if (next >= 0) enterStep(world, other, q, next);
      else if (quest.handIn >= 0) cells[q].standing.data[other] = READY;
      show(world, other, q);
    }
    const data = { ...about(quest), step: quests.of(world.rules).entries[q].steps[step].label, number: step + 1 };
    forEach(world, all, (one, parties) =>
      world.follow(events.stepDone, { subject: one, source: actor }, data, () => quest.steps[step].then(world, parties)),
    );
    if (next >= 0) continue;
    if (quest.handIn >= 0)
      forEach(world, all, (one) => world.emit(events.questReady, { subject: one }, { ...about(quest), line: quest.handInLine }));
    else complete(world, actor, q, actor);
    return;
  }
}

/** Ends a quest as done: that stands before anything is given for it, so that nothing is given twice. */
export function complete(world: World, actor: number, q: number, source: number): void {
  const row = world.actors.rowOf(actor);
  const { cells, list } = quests.in(world);
  if (row < 0 || (cells[q].standing.data[row] !== ACTIVE && cells[q].standing.data[row] !== READY)) return;
  const all = sharers(world, row, q);
  for (const other of all) noteDone(world, other, q);
  const { then, next } = list[q];
  forEach(world, all, (one, parties) => {
    const times = cells[q].times.data[world.actors.rowOf(one)];
    world.follow(events.questDone, { subject: one, source }, { ...about(list[q]), times }, () => {
      then(world, { ...parties, target: source });
      if (next >= 0) offer(world, one, next, source);
    });
  });
}

/** Gives a quest to a player, and to whoever shares it. */
export function take(world: World, actor: number, q: number, source: number): void {
  takeWhere(world, actor, q, source, (row) => questRefusal(world, row, q) === undefined);
}

export function takeWhere(world: World, actor: number, q: number, source: number, may: (row: number) => boolean): void {
  const row = world.actors.rowOf(actor);
  if (!isPlayer(world, row)) return;
  const quest = quests.in(world).list[q];
  const rows = takers(world, row, quest);
  // One at a time where each has their own: what follows from the first may be what keeps the next from it.
  if (!quest.shared)
    forEach(world, rows, (one) => may(world.actors.rowOf(one)) && begin(world, [world.actors.rowOf(one)], q, source, actor));
  else {
    // Who turned down or gave up what the others are on is not drawn into it again by one more who takes it.
    const isRunning = rows.some((at) => isOn(world, at, q));
    const willing = (at: number) => at === row || !isRunning || isUntouched(world, at, q);
    begin(
      world,
      rows.filter((at) => willing(at) && may(at)),
      q,
      source,
      actor,
    );
  }
}

/**
 * Begins a quest: everything of it that was there before is gone. Who comes to a record that others share is on it as it stands.
 * @param rows of those who begin it
 * @param actor who takes it, by `source`; the others do through them
 */
export function begin(world: World, rows: readonly number[], q: number, source: number, actor: number): void {
  if (rows.length === 0) return;
  const { list } = quests.in(world);
  const quest = list[q];
  const before = quest.shared ? takers(world, rows[0], quest).find((at) => isOn(world, at, q)) : undefined;
  for (const row of rows) {
    if (before === undefined) beginAnew(world, row, q);
    else enterAsItStands(world, row, before, q);
  }
  forEach(world, rows, (one, parties) => {
    // What follows once has followed as the record was begun.
    const all = before === undefined ? parties : { ...parties, repeated: true };
    const by = one === actor ? source : actor;
    world.follow(events.questStarted, { subject: one, source: by }, about(quest), () => quest.onStart(world, all));
  });
  // Where each has their own, it may have been met by the others.
  if (before === undefined && world.actors.live[rows[0]] === 1) goOn(world, world.actors.handle(rows[0]), q);
}

function beginAnew(world: World, row: number, q: number): void {
  const { list, cells } = quests.in(world);
  const quest = list[q];
  const { standing, left, until, offered, again } = cells[q];
  forgetSteps(world, row, q);
  standing.data[row] = ACTIVE;
  offered.data[row] = 0;
  again.data[row] = 0;
  left.data[row] = quest.limit;
  until.data[row] = quest.limit === 0 ? 0 : world.tick + quest.limit;
  enterStep(world, row, q, 0);
  show(world, row, q);
}

/** What keeps a player from having a quest now; nothing where they may. */
export function questRefusal(world: World, row: number, q: number): Refused | undefined {
  const { list, cells } = quests.in(world);
  const { repeats, retry, test } = list[q];
  const standing = cells[q].standing.data[row];
  if (standing === ACTIVE || standing === READY) return 'has';
  if (standing === FAILED && !retry) return 'failed';
  // Once is once, however somebody stands to it since.
  if (cells[q].times.data[row] > 0) {
    if (repeats === 'once') return 'done';
    if (standing === DONE && serverNow(world) < cells[q].again.data[row]) return 'later';
  }
  return test && test(world, World.alone(world.actors.handle(row))) === 0 ? 'notYet' : undefined;
}

/** Offers a quest to a player, or gives it to them at once where they are not asked; nothing where they may not have it. */
export function offer(world: World, actor: number, q: number, source: number): void {
  const row = world.actors.rowOf(actor);
  if (!isPlayer(world, row) || questRefusal(world, row, q) !== undefined) return;
  const { cells, list } = quests.in(world);
  if (list[q].atOnce) return take(world, actor, q, source);
  // What is offered already is not offered twice.
  if (cells[q].offered.data[row] === 1) return;
  cells[q].offered.data[row] = 1;
  show(world, row, q);
  world.emit(events.questOffered, { subject: actor, source }, about(list[q]));
}
