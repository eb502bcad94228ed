import { World } from '../../world/world.js';
import { allActors, teamOf } from '../actors/index.js';
import { DAY, isKnown, serverNow } from '../calendar/index.js';
import { ABANDONED, ACTIVE, AHEAD, CURRENT, DECLINED, DONE, FAILED, NONE, PASSED, READY } from './tables.js';
import type { Quest } from './compile.js';
import { quests } from './state.js';
import { currentStep, mayTakeUp, show } from './log.js';
import { complete, goOn } from './progress.js';
import { enterAsItStands, forEach, isOn, isPlayer, isUntouched, sharers, takers, unite } from './record.js';
import { type Ask, events, type Refused } from './events.js';

/** What keeps a player from having a quest now; nothing where they may. */
export function hindranceTo(world: World, row: number, q: number): Refused | undefined {
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

/** When what was done, turned down or given up at this moment is there again. */
function nextTime(world: World, { repeats, after }: Quest): number {
  const now = serverNow(world);
  if (repeats === 'daily') return (Math.floor(now / DAY) + 1) * DAY;
  return repeats === 'after' ? now + after : 0;
}

/**
 * Nobody waits longer than a quest says, whatever clocks have said in between.
 * @param setBack seconds by which the clock was just set back: what waits for a stretch of time waits for as much as before
 */
export function mendWaits(world: World, row: number, setBack = 0): void {
  if (!isKnown(world) || !isPlayer(world, row)) return;
  const { list, cells } = quests.in(world);
  list.forEach((quest, q) => {
    const { again } = cells[q];
    if (again.data[row] === 0 || nextTime(world, quest) === 0) return;
    const waits = quest.repeats === 'after' ? again.data[row] - setBack : again.data[row];
    again.data[row] = Math.max(0, Math.min(waits, nextTime(world, quest)));
    show(world, row, q);
  });
}

/** Offers a quest to a player, or gives it to them at once where they are not asked; nothing where they may not have it. */
export function offer(world: World, actor: number, q: number, source: number): void {
  const row = world.actors.rowOf(actor);
  if (!isPlayer(world, row) || hindranceTo(world, row, q) !== undefined) return;
  const { cells, list } = quests.in(world);
  if (list[q].atOnce) return take(world, actor, q, source);
  // What is offered already is not offered twice.
  if (cells[q].offered.data[row] === 1) return;
  cells[q].offered.data[row] = 1;
  show(world, row, q);
  world.emit(events.questOffered, { subject: actor, source }, about(list[q]));
}

export const about = ({ id, label }: Quest): { readonly quest: string; readonly label: string } => ({ quest: id, label });

/** What a player is offered by a character: what is ready is taken back, else the first of its quests that they may have. */
export function askForQuests(world: World, actor: number, character: number): void {
  const row = world.actors.rowOf(actor);
  const from = world.actors.rowOf(character);
  if (!isPlayer(world, row) || from < 0) return;
  const { list, cells } = quests.in(world);
  const type = world.actors.cells.type[from];
  const ready = list.filter(({ index, handIn }) => handIn === type && cells[index].standing.data[row] === READY);
  for (const { index } of ready) complete(world, actor, index, character);
  if (ready.length > 0) return;
  const own = list.filter(({ characters }) => characters.includes(type));
  const first = own.find(({ index }) => hindranceTo(world, row, index) === undefined);
  if (first) return offer(world, actor, first.index, character);
  const later = own.filter(({ index }) => hindranceTo(world, row, index) === 'later').map(({ index }) => cells[index].again.data[row]);
  const seconds = later.length === 0 ? 0 : Math.min(...later) - serverNow(world);
  world.emit(events.nothingOffered, { subject: actor, target: character }, { from: world.nameOf(character), seconds });
}

/** Gives a quest to a player, and to whoever shares it. */
export function take(world: World, actor: number, q: number, source: number): void {
  takeWhere(world, actor, q, source, (row) => hindranceTo(world, row, q) === undefined);
}

/** Begins a quest by an action, whoever is asked: not what runs already, nor once more what is done once. */
export function startByAction(world: World, actor: number, q: number, source: number): void {
  takeWhere(world, actor, q, source, (row) => {
    const hindrance = hindranceTo(world, row, q);
    return hindrance !== 'has' && hindrance !== 'done';
  });
}

function takeWhere(world: World, actor: number, q: number, source: number, may: (row: number) => boolean): void {
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

/** Has whoever comes into a crew, or into the arena, be on what is shared there: as it stands, and the crew on what they bring. */
export function joinRecords(world: World, actor: number): void {
  for (const quest of quests.in(world).list) {
    const row = world.actors.rowOf(actor);
    if (row < 0) return;
    const q = quest.index;
    if (!quest.shared) continue;
    const rows = takers(world, row, quest);
    if (!rows.some((at) => isOn(world, at, q))) continue;
    unite(world, row, q);
    const late = rows.filter((at) => isUntouched(world, at, q) && hindranceTo(world, at, q) === undefined);
    begin(world, late, q, 0, actor);
  }
}

/**
 * Begins a quest: everything of it that was there before is gone. Who comes to a record that others share is on it as it stands.
 * @param rows of those who begin it
 * @param actor who takes it, by `source`; the others do through them
 */
function begin(world: World, rows: readonly number[], q: number, source: number, actor: number): void {
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

function forgetSteps(world: World, row: number, q: number): void {
  const { steps, at } = quests.in(world).cells[q];
  at.data[row] = 0;
  for (const { standing, goals } of steps) {
    standing.data[row] = AHEAD;
    for (const { have } of goals) have.data[row] = 0;
  }
}

/** What ends a quest before it is done. */
function leave(world: World, row: number, q: number, how: number): void {
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

/** Whether what is there from the start comes by itself: the first time, or when its time has come again. */
function comesByItself(world: World, row: number, { index, repeats }: Quest): boolean {
  const { standing, again } = quests.in(world).cells[index];
  if (standing.data[row] === NONE) return true;
  if (repeats !== 'daily' && repeats !== 'after') return false;
  return serverNow(world) >= again.data[row];
}

/** Once a second: what is offered from the start is, to whoever may have it by now. */
export function offerFromStart(world: World): void {
  const { list } = quests.in(world);
  if (world.tick % world.rules.tickRate !== 0 || !list.some(({ atStart }) => atStart)) return;
  for (const actor of allActors(world)) offerAtStart(world, actor);
}

/** Offers a player what is offered from the start: to who comes, before anything counts that they do. */
export function offerAtStart(world: World, actor: number): void {
  for (const quest of quests.in(world).list) {
    const row = world.actors.rowOf(actor);
    if (quest.atStart && isPlayer(world, row) && comesByItself(world, row, quest)) offer(world, actor, quest.index, 0);
  }
}

/** Does what a player asks, or tells them why not. */
export function answer(world: World, actor: number, ask: Ask, id: string): void {
  const row = world.actors.rowOf(actor);
  if (!isPlayer(world, row)) return;
  const { list, cells } = quests.in(world);
  const quest = list.find((one) => one.id === id);
  // Of one that was never shown to somebody they learn nothing, not even that there is one.
  const known = quest && (cells[quest.index].offered.data[row] === 1 || cells[quest.index].standing.data[row] !== NONE);
  if (!quest || !known) return refuse(world, actor, ask, 'unknown');
  const reason = hindranceToAsk(world, row, quest, ask);
  if (reason) return refuse(world, actor, ask, reason, quest);
  const { offered, standing, again } = cells[quest.index];
  if (ask === 'accept') return take(world, actor, quest.index, 0);
  if (ask === 'abandon') {
    leave(world, row, quest.index, ABANDONED);
    return world.emit(events.questAbandoned, { subject: actor }, about(quest));
  }
  offered.data[row] = 0;
  if (standing.data[row] !== DONE) standing.data[row] = DECLINED;
  again.data[row] = nextTime(world, quest);
  show(world, row, quest.index);
  world.emit(events.questDeclined, { subject: actor }, about(quest));
}

function hindranceToAsk(world: World, row: number, quest: Quest, ask: Ask): Refused | undefined {
  const { standing, offered } = quests.in(world).cells[quest.index];
  const now = standing.data[row];
  const on = now === ACTIVE || now === READY;
  if (ask === 'abandon') return !on ? 'notActive' : quest.abandon ? undefined : 'notGivenUp';
  if (on) return 'has';
  if (offered.data[row] === 0 && !(ask === 'accept' && mayTakeUp(quest, now)))
    return now === DONE && quest.repeats === 'once' ? 'done' : 'notOffered';
  return ask === 'accept' ? hindranceTo(world, row, quest.index) : undefined;
}

function refuse(world: World, actor: number, ask: Ask, reason: Refused, quest?: Quest): void {
  const row = world.actors.rowOf(actor);
  const again = quest && reason === 'later' ? quests.in(world).cells[quest.index].again.data[row] - serverNow(world) : 0;
  const data = { ask, reason, ...(quest && about(quest)), ...(again > 0 && { seconds: again }) };
  world.emit(events.questRefused, { subject: actor }, data);
}
