import { type World } from '../../world/world.js';
import { allActors } from '../actors/index.js';
import { isKnown, serverNow } from '../calendar/index.js';
import { ABANDONED, ACTIVE, DECLINED, DONE, NONE, READY } from './tables.js';
import type { Quest } from './compile.js';
import { quests } from './state.js';
import { mayTakeUp, show } from './log.js';
import { begin, complete, take, takeWhere } from './course.js';
import { isOn, isPlayer, isUntouched, takers, unite } from './record.js';
import { type Ask, events, type Refused } from './events.js';
import { about, leave, nextTime } from './steps.js';
import { questRefusal, offer } from './course.js';

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
  const first = own.find(({ index }) => questRefusal(world, row, index) === undefined);
  if (first) return offer(world, actor, first.index, character);
  const later = own.filter(({ index }) => questRefusal(world, row, index) === 'later').map(({ index }) => cells[index].again.data[row]);
  const seconds = later.length === 0 ? 0 : Math.min(...later) - serverNow(world);
  world.emit(events.nothingOffered, { subject: actor, target: character }, { from: world.nameOf(character), seconds });
}

/** Begins a quest by an action, whoever is asked: not what runs already, nor once more what is done once. */
export function startByAction(world: World, actor: number, q: number, source: number): void {
  takeWhere(world, actor, q, source, (row) => {
    const refusal = questRefusal(world, row, q);
    return refusal !== 'has' && refusal !== 'done';
  });
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
    const late = rows.filter((at) => isUntouched(world, at, q) && questRefusal(world, at, q) === undefined);
    begin(world, late, q, 0, actor);
  }
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
  if (world.tick % world.rules.tickRate !== 0) return;
  for (const actor of allActors(world)) offerAtStart(world, actor);
}

/** Offers a player what is offered from the start: to who comes, before anything counts that they do. */
export function offerAtStart(world: World, actor: number): void {
  if (!isPlayer(world, world.actors.rowOf(actor))) return;
  for (const quest of quests.of(world.rules).first) {
    // What one of them leads to may have taken the player away.
    const row = world.actors.rowOf(actor);
    if (isPlayer(world, row) && comesByItself(world, row, quest)) offer(world, actor, quest.index, 0);
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
  const reason = askRefusal(world, row, quest, ask);
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

function askRefusal(world: World, row: number, quest: Quest, ask: Ask): Refused | undefined {
  const { standing, offered } = quests.in(world).cells[quest.index];
  const now = standing.data[row];
  const on = now === ACTIVE || now === READY;
  if (ask === 'abandon') return !on ? 'notActive' : quest.abandon ? undefined : 'notGivenUp';
  if (on) return 'has';
  if (offered.data[row] === 0 && !(ask === 'accept' && mayTakeUp(quest, now)))
    return now === DONE && quest.repeats === 'once' ? 'done' : 'notOffered';
  return ask === 'accept' ? questRefusal(world, row, quest.index) : undefined;
}

function refuse(world: World, actor: number, ask: Ask, reason: Refused, quest?: Quest): void {
  const row = world.actors.rowOf(actor);
  const again = quest && reason === 'later' ? quests.in(world).cells[quest.index].again.data[row] - serverNow(world) : 0;
  const data = { ask, reason, ...(quest && about(quest)), ...(again > 0 && { seconds: again }) };
  world.emit(events.questRefused, { subject: actor }, data);
}
