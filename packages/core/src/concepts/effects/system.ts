import type { Parties } from '../../formula/index.js';
import { toGrid } from '../../math/grid.js';
import { movedPositions } from '../../ruleset/rules.js';
import type { TableOf } from '../../world/define-table.js';
import { NO_RULE } from '../../world/budget.js';
import type { World } from '../../world/world.js';
import { addModifier, attributes, modifiersOf, moved, muteModifiers, removeModifiers, settle } from '../attributes/index.js';
import { changeStatus, hasStatus } from '../statuses/index.js';
import type { CompiledEffects, Effect } from './compile.js';
import { effects } from './state.js';
import type { effectsTable } from './tables.js';
import type { Reason } from './schema.js';
import { events } from './events.js';

/** At most so many instances are on all actors together, and at most so many modifiers of theirs. */
export const MOST_INSTANCES = 10_000;
export const MOST_MODIFIERS = 20_000;

/** The effects' state of a world. */
export interface Effects extends CompiledEffects {
  readonly table: TableOf<typeof effectsTable>;
  readonly of: TableOf<typeof effectsTable>['cells'];
  readonly endTimer: number;
}

/** No effect lasts longer than this many ticks: a tick is told as a whole number of 32 bits. */
const LATEST = 0x40000000;

/** Ticks that an amount of seconds comes to, rounded up. At least one. */
function ticksOf(world: World, seconds: number): number {
  return Math.max(1, Math.min(LATEST, Math.ceil(seconds * world.rules.tickRate - 1e-9)));
}

function partiesOf(state: Effects, at: number): Parties {
  const actor = state.of.actor[at];
  return { owner: actor, source: state.of.source[at], target: actor };
}

/** Puts an effect on an actor: a new instance, or more of the one that is on, as its stacking says. Or says why not. */
export function applyEffect(world: World, actor: number, index: number, source: number): void {
  if (world.actors.rowOf(actor) < 0) return;
  const state = effects.in(world);
  const effect = state.list[index];
  const parties = { subject: actor, source };
  if (!world.mayFollow('effectStarted', parties)) return;
  // What is on anybody is looked through to find what is on this one.
  if (!world.lookThrough(state.table.count)) return;
  const refuse = (why: 'once' | 'most' | 'full') => world.emit(events.effectRefused, parties, { effect: effect.id, why });
  const blocker = blockerOf(world, state, effect, actor);
  if (blocker)
    return world.emit(events.effectRefused, parties, { effect: effect.id, why: 'blocked', by: blocker.id, chapter: blocker.chapter });
  dispel(world, state, effect, actor);
  if (effect.lifetime === 'instant') {
    const then = effect.onStart;
    return world.follow(events.effectStarted, parties, { effect: effect.id, ticks: 0 }, () =>
      then?.(world, { owner: actor, source, target: actor }),
    );
  }
  const group = instancesOf(world, actor, index).filter((at) => !effect.perSource || state.of.source[at] === source);
  const { modifiers } = attributes.in(world);
  const isFull = state.table.count >= MOST_INSTANCES || modifiers.count + effect.modifiers.length > MOST_MODIFIERS;
  if (group.length === 0) return isFull ? refuse('full') : startInstance(world, state, index, actor, source);
  if (effect.stacking === 'once') return refuse('once');
  if (effect.stacking === 'refresh' || effect.stacking === 'extend') return stackInstance(world, state, group[0], source);
  if (effect.most !== undefined && group.length >= effect.most) return refuse('most');
  if (isFull) return refuse('full');
  startInstance(world, state, index, actor, source);
}

function blockerOf(world: World, state: Effects, { blockedBy }: Effect, actor: number): { id: string; chapter: string } | undefined {
  const ids = (chapter: string) => world.rules.chapters.get(chapter)!.ids;
  const status = blockedBy.statuses.find((s) => hasStatus(world, actor, s));
  if (status !== undefined) return { id: ids('statuses')[status], chapter: 'statuses' };
  const other = blockedBy.effects.find((e) => instancesOf(world, actor, e).length > 0);
  return other === undefined ? undefined : { id: state.list[other].id, chapter: 'effects' };
}

/** Ends what an effect ends when it starts: effects by name, and whatever grants a status. */
function dispel(world: World, state: Effects, { ends }: Effect, actor: number): void {
  const kinds = new Set([...ends.effects, ...ends.statuses.flatMap((status) => state.granting[status])]);
  for (const kind of kinds) for (const at of instancesOf(world, actor, kind)) endEffect(world, at, 'removed');
}

function startInstance(world: World, state: Effects, index: number, actor: number, source: number): void {
  const effect = state.list[index];
  const row = world.actors.rowOf(actor);
  const parties = { owner: actor, source, target: actor };
  const ticks = effect.lasts ? ticksOf(world, effect.lasts.run(world, parties)) : 0;
  const amounts = effect.modifiers.map((modifier) => modifier.amount.run(world, parties));
  const at = state.table.insert({
    actor,
    effect: index,
    source,
    ends: ticks === 0 ? 0 : world.tick + ticks,
    stacks: 1,
    uses: effect.uses,
    pulse: effect.periodic ? world.tick + (effect.periodic.atOnce ? 0 : effect.periodic.ticks) : 0,
    strength: effect.strength ? effect.strength.run(world, parties) : sizeOf(effect, amounts),
  });
  const handle = state.table.handle(at);
  const stats = attributes.in(world);
  effect.modifiers.forEach(({ attribute, operation, live }, k) =>
    addModifier(stats, row, actor, { source, attribute, operation, amount: amounts[k], live, holder: handle, part: k }),
  );
  if (effect.stacking === 'strongest') muteWeaker(world, state, actor, index, source);
  if (effect.modifiers.length > 0) settle(world, stats, row);
  if (ticks > 0) state.of.timer[at] = world.setTimer(state.endTimer, ticks, actor, handle);
  world.follow(events.effectStarted, { subject: actor, source }, { effect: effect.id, ticks }, () => {
    state.of.cause[at] = world.cause;
    if (effect.modifiers.length > 0) moved(world, stats, row);
    effect.grants.forEach((status) => changeStatus(world, actor, status, 1));
    effect.onStart?.(world, parties);
  });
}

/** How strong an instance is where its author says nothing: the size of its first modifier. */
function sizeOf({ modifiers: [first] }: Effect, [amount]: readonly number[]): number {
  return first ? toGrid(Math.abs(first.operation === 'times' ? amount - 1 : amount)) : 0;
}

/** More of the same on an instance: its time begins anew or grows, and it may gain a stack. */
function stackInstance(world: World, state: Effects, at: number, source: number): void {
  const effect = state.list[state.of.effect[at]];
  const actor = state.of.actor[at];
  const handle = state.table.handle(at);
  const parties = { owner: actor, source, target: actor };
  const ticks = effect.lasts ? ticksOf(world, effect.lasts.run(world, parties)) : 0;
  const { ends, timer, stacks, uses } = state.of;
  if (effect.stacking === 'extend') {
    const most = effect.most === undefined ? Infinity : world.tick + effect.most * ticks;
    ends[at] = Math.min(LATEST, most, ends[at] + ticks);
  } else {
    if (ticks > 0) ends[at] = world.tick + ticks;
    stacks[at] = Math.min(effect.most ?? 1, stacks[at] + 1);
    uses[at] = effect.uses;
    state.of.source[at] = source;
    restate(world, state, at, parties);
  }
  if (ticks > 0) {
    world.cancelTimer(timer[at]);
    timer[at] = world.setTimer(state.endTimer, ends[at] - world.tick, actor, handle);
  }
  const data = { effect: effect.id, stacks: stacks[at], ticks: ends[at] === 0 ? 0 : ends[at] - world.tick };
  world.follow(events.effectStacked, { subject: actor, source }, data, () => {
    if (effect.modifiers.length > 0) moved(world, attributes.in(world), world.actors.rowOf(actor));
    effect.onStack?.(world, parties);
  });
}

/** Takes an instance's amounts anew, from whom it now comes, and counts its stacks. */
function restate(world: World, state: Effects, at: number, parties: Parties): void {
  const effect = state.list[state.of.effect[at]];
  const row = world.actors.rowOf(parties.owner);
  const stats = attributes.in(world);
  const rows = modifiersOf(stats, row, state.table.handle(at));
  for (const modifier of rows) {
    // An edit may have taken out what it was begun with: then it keeps what it has.
    const amount = effect.modifiers[stats.of.part[modifier]]?.amount;
    if (amount) stats.of.amount[modifier] = amount.run(world, parties);
    stats.of.stacks[modifier] = state.of.stacks[at];
    stats.of.source[modifier] = parties.source;
  }
  if (rows.length > 0) settle(world, stats, row);
}

/** Of several instances only the strongest counts; of equals, the one that stands first. The others wait. */
function muteWeaker(world: World, state: Effects, actor: number, index: number, source: number): void {
  const { perSource } = state.list[index];
  const group = instancesOf(world, actor, index).filter((at) => !perSource || state.of.source[at] === source);
  // Which one counts is so whatever the tick has left: what it costs is missing for what comes after.
  world.lookThrough(state.table.count);
  const strength = state.of.strength;
  const best = group.reduce((found, at) => (found < 0 || strength[at] > strength[found] ? at : found), -1);
  const holders = new Map<number, number>();
  for (const at of group) {
    state.of.muted[at] = at === best ? 0 : 1;
    holders.set(state.table.handle(at), state.of.muted[at]);
  }
  muteModifiers(attributes.in(world), world.actors.rowOf(actor), holders);
}

/** Ends an instance. What the other instances say is then all that holds: nothing is divided back out. */
export function endEffect(world: World, at: number, reason: Reason): void {
  const state = effects.in(world);
  if (state.table.live[at] === 0) return;
  const index = state.of.effect[at];
  const effect = state.list[index];
  const parties = partiesOf(state, at);
  const { owner: actor, source } = parties;
  const handle = state.table.handle(at);
  const row = world.actors.rowOf(actor);
  const cause = state.of.cause[at];
  world.cancelTimer(state.of.timer[at]);
  state.table.remove(at);
  if (row < 0) return;
  removeModifiers(attributes.in(world), row, handle);
  if (effect.stacking === 'strongest') muteWeaker(world, state, actor, index, source);
  settle(world, attributes.in(world), row);
  // What ends by itself ends because it was begun.
  world.since(cause, () => {
    const ended = world.announce(events.effectEnded, { subject: actor, source }, { effect: effect.id, reason });
    world.because(ended, () => {
      if (effect.modifiers.length > 0) moved(world, attributes.in(world), row);
      effect.grants.forEach((status) => changeStatus(world, actor, status, -1));
      if (ended) for (const end of effect.onEnd) if (end.reason === 'any' || end.reason === reason) end.then(world, parties);
    });
  });
}

/** An instance's time is over, unless it was given more meanwhile. What would have pulsed in this very tick still does. */
export function runOut(world: World, handle: number): void {
  const state = effects.in(world);
  const at = state.table.rowOf(handle);
  if (at < 0 || state.of.ends[at] > world.tick || state.of.ends[at] === 0) return;
  // Where the tick has no steps left it runs out at the next one.
  if (!world.goesOn(NO_RULE)) return void (state.of.timer[at] = world.setTimer(state.endTimer, 1, state.of.actor[at], handle));
  if (state.of.pulse[at] !== 0 && state.of.pulse[at] <= world.tick) pulse(world, state, at);
  if (state.table.rowOf(handle) === at) endEffect(world, at, 'ranOut');
}

/** Everything periodic that is due. */
export function pulseAll(world: World): void {
  const state = effects.in(world);
  if (!state.anyPeriodic) return;
  const due = state.of.pulse;
  const { table, of } = state;
  const now: number[] = [];
  for (let at = 0; at < table.high; at++) if (due[at] !== 0 && due[at] <= world.tick && table.live[at] === 1) now.push(at);
  // By the turns of those whom they come from: of two who wear each other down neither is always first.
  const handles = world.turns.sort(now, (at) => of.source[at] || of.actor[at]).map((at) => table.handle(at));
  for (const handle of handles) {
    const at = table.rowOf(handle);
    if (at >= 0) pulse(world, state, at);
  }
}

function pulse(world: World, state: Effects, at: number): void {
  const { periodic } = state.list[state.of.effect[at]];
  if (!periodic) return;
  state.of.pulse[at] = world.tick + periodic.ticks;
  if (state.of.muted[at] === 1) return;
  const parties = partiesOf(state, at);
  world.since(state.of.cause[at], () => periodic.then(world, parties));
}

/** The rows of an actor's instances of an effect, in table order. */
export function instancesOf(world: World, actor: number, index: number): number[] {
  const { table, of } = effects.in(world);
  const rows: number[] = [];
  for (let row = table.firstOf(actor); row >= 0; row = table.nextOf(row)) if (of.effect[row] === index) rows.push(row);
  return rows;
}

/**
 * Under edited rules: instances of deleted effects are gone from the table, and with them go their modifiers and grants.
 * Those that remain keep the amounts and the end they started with; their grants follow the edit.
 */
export function adoptEffects(world: World, before: World): void {
  const old = effects.in(before);
  const now = effects.in(world);
  const statuses = movedPositions(before.rules, world.rules, 'statuses');
  for (let at = 0; at < old.table.high; at++) {
    if (old.table.live[at] === 0) continue;
    const actor = old.of.actor[at];
    const row = world.actors.rowOf(actor);
    if (row < 0) continue;
    const was = old.list[old.of.effect[at]];
    const is = now.table.live[at] === 1 ? now.list[now.of.effect[at]] : undefined;
    if (!is) removeModifiers(attributes.in(world), row, old.table.handle(at));
    else if (is.periodic && now.of.pulse[at] === 0) now.of.pulse[at] = world.tick + is.periodic.ticks;
    const had = was.grants.map((status) => statuses[status]).filter((status) => status >= 0);
    const grants = is?.grants ?? [];
    for (const status of had) if (!grants.includes(status)) changeStatus(world, actor, status, -1);
    for (const status of grants) if (!had.includes(status)) changeStatus(world, actor, status, 1);
    settle(world, attributes.in(world), row, true);
  }
}
