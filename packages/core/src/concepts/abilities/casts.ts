import { World } from '../../world/world.js';
import type { GameEvent } from '../../world/events.js';
import { movedPositions } from '../../ruleset/rules.js';
import { face, isHeading, placeOf } from '../movement/index.js';
import { enterState, leaveState, letMove, mayFollowState, mayUse, states, stateOf } from '../states/index.js';
import { type Aim, actorRefusal, aimOf, type AimRequest } from './aim.js';
import { charge, forgetPaid, refillStore, settleBroken, shortOf, ticksOf } from './charge.js';
import type { Ability, Stretch } from './compile.js';
import { deliverTo } from './deliver.js';
import { abilities } from './state.js';
import { type AbilityRefusal, refusalOf } from './refusals.js';
import { type Abilities, castRow, ownedRow, PHASES } from './tables.js';
import { events } from './events.js';

const [CASTING, CHANNELLING, RECOVERING] = [0, 1, 2];

/** A player or a mind asks to use an ability: it is refused with a reason and at no cost, or begun. */
export function useAbility(world: World, actor: number, id: string, request: AimRequest = {}): void {
  const row = world.actors.rowOf(actor);
  if (row < 0) return;
  const tables = abilities.in(world);
  const index = world.rules.chapters.get('abilities')!.ids.indexOf(id);
  const ability = tables.list[index] as Ability | undefined;
  const aim = ability && aimOf(world, ability, actor, request);
  const refusal = refusalIn(world, tables, ability, actor, aim);
  if (refusal || !ability || !aim || 'reason' in aim)
    return world.emit(events.abilityRefused, { subject: actor }, { ability: id, ...(refusal ?? { reason: 'notOwned' }) });
  begin(world, tables, ability, actor, aim);
}

/**
 * Whether an actor could use an ability of its own, aimed so.
 * @param tick the tick in which it would be asked for, as far as waiting goes
 */
export function canUse(world: World, actor: number, ability: Ability, request: AimRequest, tick = world.tick): boolean {
  const tables = abilities.in(world);
  const at = ownedRow(tables, actor, ability.index);
  // Most of the time it is cooling down: that is asked before anything is measured.
  if (at < 0 || tables.of.ready[at] > tick) return false;
  return refusalIn(world, tables, ability, actor, aimOf(world, ability, actor, request), tick) === undefined;
}

/** What keeps an actor from using an ability of its own now, aimed at what offers itself. */
export function refusalNow(world: World, ability: Ability, actor: number): AbilityRefusal | undefined {
  return refusalIn(world, abilities.in(world), ability, actor, aimOf(world, ability, actor, {}));
}

/** What keeps an actor from using an ability now. */
function refusalIn(
  world: World,
  tables: Abilities,
  ability: Ability | undefined,
  actor: number,
  aim: Aim | AbilityRefusal | undefined,
  tick = world.tick,
): AbilityRefusal | undefined {
  const row = world.actors.rowOf(actor);
  const at = ability ? ownedRow(tables, actor, ability.index) : -1;
  const under = castRow(tables, actor);
  // What falls due in this tick is there for what is asked in it.
  if (at >= 0) refillStore(world, tables, at);
  return refusalOf({
    owned: () => at >= 0,
    busyWith: () => (under >= 0 && tables.cast.phase[under] !== RECOVERING ? tables.list[tables.cast.ability[under]].id : undefined),
    forbiddingState: () => forbidding(world, row, ability!),
    wait: () => Math.max(0, tables.of.ready[at] - tick),
    storeWait: () => (ability!.stored && tables.of.stored[at] <= 0 ? Math.max(0, tables.of.refill[at] - tick) : 0),
    unmet: () => ability!.requires.find((requirement) => requirement.test(world, World.alone(actor)) === 0)?.words,
    onTheWay: () => ability!.breaks.movement && isHeading(world, row),
    aim: () => (aim && 'reason' in aim ? aim : undefined),
    short: () => shortOf(world, ability!, actor),
  });
}

/** The id of the state that an actor is in, where that keeps it from beginning an ability. */
function forbidding(world: World, row: number, ability: Ability): string | undefined {
  const tables = states.in(world);
  const from = stateOf(world, row);
  const first = ability.cast ?? ability.channel ?? ability.recovery;
  return mayUse(world, row) && (!first || mayFollowState(tables, from, first.state)) ? undefined : tables.list[from].id;
}

function begin(world: World, tables: Abilities, ability: Ability, actor: number, aim: Aim): void {
  const row = world.actors.rowOf(actor);
  turnTo(world, ability, row, aim);
  const ticks = ability.cast ? ticksOf(world, ability.cast.seconds(world, World.alone(actor))) : 0;
  // What is begun at once ends a recovery from what was before.
  if (castRow(tables, actor) >= 0) over(world, tables, actor);
  // What is over at once is announced once, as used.
  if (ticks === 0) return finish(world, tables, ability, actor, aim, false, true);
  world.follow(events.castStarted, { subject: actor, source: actor, target: aim.target }, { ability: ability.id, ticks }, () => {
    startPhase(world, tables, ability, actor, aim, CASTING, ticks, ability.cast!);
    if (!ability.chargeAtEnd) {
      charge(world, tables, ability, actor, true);
      const at = castRow(tables, actor);
      if (at >= 0) tables.cast.charged[at] = 1;
    }
    ability.onStart?.(world, partiesOf(actor, aim));
  });
}

const partiesOf = (actor: number, aim: Aim) => ({ owner: actor, source: actor, target: aim.target === 0 ? actor : aim.target });

function turnTo(world: World, { target: { at } }: Ability, row: number, aim: Aim): void {
  if (at === 'self' || at === 'nearest') return;
  const here = placeOf(world, row);
  if (at === 'direction' || at === 'cone') face(world, row, aim.x, aim.y);
  else face(world, row, aim.x - here.x, aim.y - here.y);
}

/** Notes a part of a use that takes time and puts its user into the state that goes with it. */
function startPhase(
  world: World,
  tables: Abilities,
  ability: Ability,
  actor: number,
  aim: Aim,
  phase: number,
  ticks: number,
  part: Stretch,
): void {
  const row = world.actors.rowOf(actor);
  const before = castRow(tables, actor);
  const here = placeOf(world, row);
  const cells = {
    actor,
    ability: ability.index,
    phase,
    state: part.state,
    began: world.tick,
    ends: world.tick + ticks,
    aimX: aim.x,
    aimY: aim.y,
    target: aim.target,
    fromX: here.x,
    fromY: here.y,
    cause: world.cause,
  };
  if (before < 0) tables.casts.insert(cells);
  else tables.casts.write(before, cells);
  enterState(world, actor, part.state, 'began', { ticks: 0, move: part.move });
}

/** The cast is over, or there was none: pays where that is still to be done, and does what the ability does. */
function finish(world: World, tables: Abilities, ability: Ability, actor: number, aim: Aim, charged: boolean, instant = false): void {
  const after = ability.channel ?? ability.recovery;
  const cast = castRow(tables, actor);
  // From here on nothing can be broken any more: what follows from the use may stun its own user.
  if (cast >= 0) tables.cast.phase[cast] = RECOVERING;
  const handle = cast < 0 ? 0 : tables.casts.handle(cast);
  world.follow(events.abilityUsed, { subject: actor, source: actor, target: aim.target }, { ability: ability.id }, () => {
    if (!charged) charge(world, tables, ability, actor, ability.channel !== undefined);
    if (instant) ability.onStart?.(world, partiesOf(actor, aim));
    ability.then(world, partiesOf(actor, aim));
    if (!ability.channel) deliverTo(world, ability, actor, aim);
    const now = castRow(tables, actor);
    // Its user has gone, or has begun something else in what followed.
    if (world.actors.rowOf(actor) < 0 || (now >= 0 && tables.casts.handle(now) !== handle)) return;
    if (after && mayGoOn(world, tables, actor, after)) goOn(world, tables, ability, actor, aim);
    else over(world, tables, actor);
  });
}

/** What the ability did may have put its user into a state that it does not go on in: only its own, or one that lets it begin. */
function mayGoOn(world: World, tables: Abilities, actor: number, part: Stretch): boolean {
  const row = world.actors.rowOf(actor);
  const under = castRow(tables, actor);
  const from = stateOf(world, row);
  const own = under >= 0 && tables.cast.state[under] === from;
  return (own || mayUse(world, row)) && mayFollowState(states.in(world), from, part.state);
}

function goOn(world: World, tables: Abilities, ability: Ability, actor: number, aim: Aim): void {
  const { channel } = ability;
  if (!channel) return recover(world, tables, ability, actor, aim);
  const ticks = Math.max(1, ticksOf(world, channel.seconds(world, World.alone(actor))));
  startPhase(world, tables, ability, actor, aim, CHANNELLING, ticks, channel);
  const at = castRow(tables, actor);
  tables.cast.charged[at] = 1;
  tables.cast.pulse[at] = world.tick + pulseTicks(world, ability, actor);
}

function pulseTicks(world: World, { channel }: Ability, actor: number): number {
  return Math.max(1, ticksOf(world, channel!.every.run(world, World.alone(actor))));
}

function recover(world: World, tables: Abilities, ability: Ability, actor: number, aim: Aim): void {
  const ticks = ability.recovery ? ticksOf(world, ability.recovery.seconds(world, World.alone(actor))) : 0;
  forgetPaid(tables, actor);
  if (ticks === 0 || !mayGoOn(world, tables, actor, ability.recovery!)) return over(world, tables, actor);
  startPhase(world, tables, ability, actor, aim, RECOVERING, ticks, ability.recovery!);
}

/** Nothing of the use is left. */
function over(world: World, tables: Abilities, actor: number): void {
  forgetPaid(tables, actor);
  const at = castRow(tables, actor);
  if (at < 0) return;
  const state = tables.cast.state[at];
  tables.casts.remove(at);
  if (state >= 0) leaveState(world, actor, state);
}

/** Breaks what an actor is casting or channelling: what that costs is settled, and it is told why. Recovery just ends. */
export function breakCast(world: World, actor: number, reason: string, more: Readonly<Record<string, number | string>> = {}): void {
  const tables = abilities.in(world);
  const at = castRow(tables, actor);
  if (at < 0) return;
  const phase = tables.cast.phase[at];
  if (phase === RECOVERING) return over(world, tables, actor);
  const ability = tables.list[tables.cast.ability[at]];
  const charged = tables.cast.charged[at] === 1;
  const left = tables.cast.ends[at] - world.tick;
  const state = tables.cast.state[at];
  tables.casts.remove(at);
  if (state >= 0) leaveState(world, actor, state);
  world.follow(
    events.castBroken,
    { subject: actor, source: actor },
    { ability: ability.id, phase: PHASES[phase], reason, ticks: left, ...more },
    () => {
      settleBroken(world, tables, ability, actor, charged);
      forgetPaid(tables, actor);
      ability.onBreak?.(world, World.alone(actor));
    },
  );
}

/** Before bodies move: who heads somewhere although that breaks what it is doing, has broken it. */
export function breakByHeading(world: World): void {
  const tables = abilities.in(world);
  eachCast(world, tables, (at, actor) => {
    if (
      tables.cast.phase[at] !== RECOVERING &&
      tables.list[tables.cast.ability[at]].breaks.movement &&
      isHeading(world, world.actors.rowOf(actor))
    )
      breakCast(world, actor, 'movement');
  });
}

/** All that is under way, by the turns of those who do it. */
function eachCast(world: World, { casts, cast }: Abilities, work: (at: number, actor: number) => void): void {
  for (const handle of world.turns.rows(casts)) {
    const at = casts.rowOf(handle);
    if (at >= 0) work(at, cast.actor[at]);
  }
}

/** A tick of all that is under way: what is displaced or no longer allowed breaks, pulses fall due, and times end. */
export function advanceCasts(world: World): void {
  const tables = abilities.in(world);
  eachCast(world, tables, (at, actor) => {
    if (tables.cast.phase[at] === RECOVERING) {
      if (tables.cast.ends[at] <= world.tick) over(world, tables, actor);
      return;
    }
    world.since(tables.cast.cause[at], () => advance(world, tables, at, actor));
  });
}

function advance(world: World, tables: Abilities, at: number, actor: number): void {
  const { cast } = tables;
  const ability = tables.list[cast.ability[at]];
  const { x, y } = placeOf(world, world.actors.rowOf(actor));
  if (ability.breaks.movement && (x !== cast.fromX[at] || y !== cast.fromY[at])) return breakCast(world, actor, 'movement');
  const unmet = ability.requires.find(({ throughout, test }) => throughout && test(world, World.alone(actor)) === 0);
  if (unmet) return breakCast(world, actor, 'requirement', unmet.words);
  const aim: Aim = { x: cast.aimX[at], y: cast.aimY[at], target: cast.target[at] };
  if (cast.phase[at] === CHANNELLING) return channel(world, tables, ability, at, actor, aim);
  if (cast.ends[at] > world.tick) return;
  const failed = failure(world, ability, actor, aim, cast.charged[at] === 1);
  if (failed) return breakFor(world, actor, failed);
  finish(world, tables, ability, actor, aim, cast.charged[at] === 1);
}

/** Breaks what is under way for a reason that would have refused it. */
function breakFor(world: World, actor: number, { reason, ...more }: AbilityRefusal): void {
  breakCast(world, actor, reason, more as Record<string, number | string>);
}

/** What keeps a cast that is over from coming to anything: whom it was for has gone, or it can't be paid for. */
function failure(world: World, ability: Ability, actor: number, aim: Aim, charged: boolean): AbilityRefusal | undefined {
  const short = charged ? undefined : shortOf(world, ability, actor);
  if (short) return { reason: 'tooExpensive', ...short };
  if (ability.target.at !== 'actor') return undefined;
  const other = world.actors.rowOf(aim.target);
  return other < 0 ? { reason: 'targetGone' } : actorRefusal(world, ability, world.actors.rowOf(actor), other);
}

function channel(world: World, tables: Abilities, ability: Ability, at: number, actor: number, aim: Aim): void {
  const { cast } = tables;
  // An edit may have taken the channel out: then it is over.
  if (!ability.channel) return over(world, tables, actor);
  const failed = failure(world, ability, actor, aim, true);
  if (failed) return breakFor(world, actor, failed);
  const handle = tables.casts.handle(at);
  if (cast.pulse[at] <= world.tick) {
    cast.pulse[at] = world.tick + pulseTicks(world, ability, actor);
    world.follow(events.channelPulsed, { subject: actor, source: actor, target: aim.target }, { ability: ability.id }, () => {
      ability.channel!.then(world, partiesOf(actor, aim));
      deliverTo(world, ability, actor, aim);
    });
  }
  // A pulse may have ended the channel, or its user.
  if (tables.casts.rowOf(handle) < 0 || cast.ends[at] > world.tick) return;
  world.follow(events.channelEnded, { subject: actor, source: actor, target: aim.target }, { ability: ability.id }, () => {
    ability.channel!.onEnd?.(world, partiesOf(actor, aim));
    if (tables.casts.rowOf(handle) >= 0) recover(world, tables, ability, actor, aim);
  });
}

/** The player takes back what it is casting or channelling. Where its author does not let it, that is refused. */
export function cancelCast(world: World, actor: number): void {
  const tables = abilities.in(world);
  const at = castRow(tables, actor);
  if (at < 0 || tables.cast.phase[at] === RECOVERING) return;
  const ability = tables.list[tables.cast.ability[at]];
  if (ability.breaks.player) breakCast(world, actor, 'player');
  else world.emit(events.abilityRefused, { subject: actor }, { ability: ability.id, reason: 'notToBeBroken' });
}

/** What is announced may break what somebody is casting, at once: a loss, a status, a state that takes the cast's place. */
export function breakOnEvent(world: World, event: GameEvent): void {
  if (event.name !== 'attributeChanged' && event.name !== 'statusGained' && event.name !== 'stateChanged') return;
  const tables = abilities.in(world);
  if (tables.casts.count === 0) return;
  const at = castRow(tables, event.subject);
  if (at < 0) return;
  const { breaks } = tables.list[tables.cast.ability[at]];
  const { data, subject } = event;
  const underWay = tables.cast.phase[at] !== RECOVERING;
  if (event.name === 'stateChanged') {
    const own = tables.cast.state[at];
    const now = stateOf(world, world.actors.rowOf(subject));
    if (now !== own && data['from'] === world.rules.chapters.get('states')!.ids[own])
      breakCast(world, subject, 'state', { state: String(data['to']) });
  } else if (event.name === 'attributeChanged') {
    const lost = -Number(data['given']);
    if (underWay && data['how'] === 'hurt' && breaks.damage !== undefined && lost > 0 && lost >= breaks.damage)
      breakCast(world, subject, 'damage', { attribute: String(data['attribute']), amount: lost });
  } else if (underWay && breaks.statuses.includes(world.rules.chapters.get('statuses')!.ids.indexOf(String(data['status']))))
    breakCast(world, subject, 'status', { status: String(data['status']) });
}

/** Under edited rules: what was under way of a deleted ability is over, and who may move in spite of its state still may. */
export function adoptCasts(world: World, before: World): void {
  const old = abilities.in(before);
  const tables = abilities.in(world);
  const states = movedPositions(before.rules, world.rules, 'states');
  eachCast(before, old, (at, actor) => {
    const row = world.actors.rowOf(actor);
    if (row < 0) return;
    const now = castRow(tables, actor);
    const state = states[old.cast.state[at]] ?? -1;
    if (now < 0) {
      forgetPaid(tables, actor);
      if (state >= 0) leaveState(world, actor, state);
      return;
    }
    const ability = tables.list[tables.cast.ability[now]];
    if ([ability.cast, ability.channel, ability.recovery][tables.cast.phase[now]]?.move) letMove(world, row);
  });
}
