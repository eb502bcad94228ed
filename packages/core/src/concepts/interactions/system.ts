import type { CompileContext } from '../../ruleset/context.js';
import type { World } from '../../world/world.js';
import { actors } from '../actors/index.js';
import { changeAttribute, hasAttribute, attributes, readAttribute } from '../attributes/index.js';
import { isTalking, stopTalking } from '../dialogues/index.js';
import { lives } from '../lives/index.js';
import { EVERYBODY, nameNumber, recall, remember } from '../memory/index.js';
import { endWaits, isWaiting } from '../sequences/index.js';
import { events, type VisitEnd, type VisitRefusal } from './events.js';
import { isReached } from './reach.js';
import { type Interaction, interactions, type Need } from './state.js';

/** What has to be so, compiled; containers ask it too. */
export const compileNeeds = (context: CompileContext, needs: readonly { if: string; say: string }[]): readonly Need[] =>
  needs.map(({ if: test, say }) => ({ test: context.condition(test, ['target']), say }));

/** The words for the first need that is not met. */
export function unmetNeed(world: World, needs: readonly Need[], visitor: number, thing: number): string | undefined {
  return needs.find(({ test }) => test(world, { owner: visitor, source: visitor, target: thing }) === 0)?.say;
}

/** An interaction with a thing: its entry's, or what this one says otherwise. */
export function interactionWith(world: World, thing: number, index: number): Interaction {
  const { variants, list } = interactions.in(world);
  const listed = lives.in(world).table.cells.listed[world.actors.rowOf(thing)];
  return variants.get(`${listed - 1}/${index}`) ?? list[index];
}

/** The interactions that a thing has, in its order. */
export function interactionsOf(world: World, thingRow: number): readonly number[] {
  return interactions.in(world).ofType[world.actors.cells.type[thingRow]] ?? [];
}

/** The rows of visits that an actor pays or is paid. */
export function visitsOf(world: World, actor: number): readonly number[] {
  const { table } = interactions.in(world);
  const { visitor, thing } = table.cells;
  return table.rows().filter((at) => visitor[at] === actor || thing[at] === actor);
}

/** The row of the visit that somebody pays just now, or -1. */
export function visitBy(world: World, visitor: number): number {
  return interactions.in(world).table.firstOf(visitor);
}

/** What of a price an actor has to pay now; 0 for none. */
export function priceFor(world: World, { price }: Interaction, visitor: number, thing: number): number {
  return price ? Math.max(0, price.amount.run(world, { owner: visitor, source: visitor, target: thing })) : 0;
}

/**
 * What keeps somebody within reach from an interaction; nothing where it may begin. `notForYou` is not even offered.
 */
export function visitRefusal(world: World, visitor: number, thing: number, index: number): VisitRefusal | undefined {
  const one = interactionWith(world, thing, index);
  const parties = { owner: visitor, source: visitor, target: thing };
  if (one.who && one.who(world, parties) === 0) return { reason: 'notForYou' };
  const remembered = rememberedOf(world, one, visitor, thing);
  if (remembered) return remembered;
  if (one.oneAtATime) {
    const { table } = interactions.in(world);
    for (const at of visitsOf(world, thing)) {
      if (table.cells.thing[at] !== thing || table.cells.visitor[at] === visitor) continue;
      const until = table.cells.until[at];
      return { reason: 'busy', with: world.nameOf(table.cells.visitor[at]), ticks: Math.max(0, until - world.tick) };
    }
  }
  const says = unmetNeed(world, one.needs, visitor, thing);
  if (says !== undefined) return { reason: 'needs', says };
  return tooPoor(world, one, visitor, thing);
}

function rememberedOf(world: World, { remembers, purpose }: Interaction, visitor: number, thing: number): VisitRefusal | undefined {
  if (!remembers) return undefined;
  const known = recall(world, remembers.all ? EVERYBODY : nameNumber(world, visitor), purpose, thing);
  if (!known) return undefined;
  return {
    reason: 'remembered',
    ...(known.until !== 0 && { ticks: known.until - world.tick }),
    ...(remembers.say !== undefined && { says: remembers.say }),
  };
}

export function tooPoor(world: World, one: Interaction, visitor: number, thing: number): VisitRefusal | undefined {
  const { price } = one;
  if (!price) return undefined;
  const needs = priceFor(world, one, visitor, thing);
  const attribute = attributes.of(world.rules).list[price.attribute];
  const present = hasAttribute(world, attribute, world.actors.rowOf(visitor)) ? readAttribute(world, visitor, price.attribute) : 0;
  if (present >= needs) return undefined;
  return { reason: 'tooPoor', attribute: attribute.id, needs, present, ...(price.say !== undefined && { says: price.say }) };
}

/** Begins a visit that nothing refuses: what it asks is paid, then it does what it does. */
export function beginVisit(world: World, visitor: number, thing: number, index: number): void {
  const { table } = interactions.in(world);
  const one = interactionWith(world, thing, index);
  const paid = priceFor(world, one, visitor, thing);
  const row = table.add();
  const until = one.busy === 0 ? 0 : world.tick + one.busy;
  const cells = { visitor, thing, interaction: index, since: world.tick, until, paid, cause: 0 };
  table.write(row, cells);
  world.goesOn(one.rule);
  if (one.price) changeAttribute(world, visitor, one.price.attribute, -paid, thing, 'take');
  if (one.remembers) remember(world, one.remembers.all ? EVERYBODY : nameNumber(world, visitor), one.purpose, thing, one.remembers.ticks);
  const scope = scopeOf(world, row);
  const began = world.announce(
    events.visitBegan,
    { subject: visitor, source: visitor, target: thing },
    { interaction: one.id, ...withOf(world, thing) },
  );
  if (!began) return;
  table.cells.cause[row] = began.serial;
  world.because(began, () => one.then(world, { owner: visitor, source: visitor, target: thing, scope }));
  if (isOver(world, row)) endVisit(world, row, 'done');
}

/** The number that what a visit began goes by. */
const scopeOf = (world: World, row: number) => interactions.in(world).table.handle(row);

const withOf = (world: World, thing: number) => ({
  thing: actors.in(world).types[world.actors.cells.type[world.actors.rowOf(thing)]]?.id ?? '',
});

function isOver(world: World, row: number): boolean {
  const { table } = interactions.in(world);
  if (table.live[row] === 0) return false;
  const until = table.cells.until[row];
  const scope = scopeOf(world, row);
  return until <= world.tick && !isWaiting(world, scope) && !isTalking(world, scope);
}

/** Ends visits whose visitor is no longer there, and those whose time is over. */
export function endAll(world: World): void {
  const { table } = interactions.in(world);
  if (table.count === 0) return;
  const { visitor, thing, interaction } = table.cells;
  for (let row = 0; row < table.high; row++) {
    if (table.live[row] === 0) continue;
    const one = interactionWith(world, thing[row], interaction[row]);
    const reached = isReached(world, visitor[row], thing[row], one);
    if (reached !== true) endVisit(world, row, reached === 'down' ? 'fell' : 'walkedOff');
    else if (isOver(world, row)) endVisit(world, row, 'done');
  }
}

/** Ends a visit: nothing that it began goes on. One that ends before its time gives back what its author says. */
export function endVisit(world: World, row: number, how: VisitEnd): void {
  const { table } = interactions.in(world);
  if (table.live[row] === 0) return;
  const { cells } = table;
  const [visitor, thing, paid, since] = [cells.visitor[row], cells.thing[row], cells.paid[row], cells.since[row]];
  const one = interactionWith(world, thing, cells.interaction[row]);
  const cause = cells.cause[row];
  const scope = scopeOf(world, row);
  table.remove(row);
  endWaits(world, scope);
  stopTalking(world, scope);
  world.since(cause, () =>
    world.follow(
      events.visitEnded,
      { subject: visitor, source: visitor, target: thing },
      { interaction: one.id, how, ...(world.actors.rowOf(thing) >= 0 && withOf(world, thing)) },
      () => {
        if (how === 'done' || world.actors.rowOf(visitor) < 0) return;
        world.goesOn(one.rule);
        if (one.price && one.refund > 0 && world.tick - since < one.refundUntil)
          changeAttribute(world, visitor, one.price.attribute, paid * one.refund, thing, 'give');
        one.onBreak?.(world, { owner: visitor, source: visitor, target: thing });
      },
    ),
  );
}
