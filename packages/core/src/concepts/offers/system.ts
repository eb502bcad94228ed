import type { World } from '../../world/world.js';
import { attributes } from '../attributes/index.js';
import { containerAt, closeBy, openedBy, openingRefusal, openThing } from '../containers/index.js';
import {
  apart,
  beginVisit,
  interactions,
  interactionsOf,
  interactionWith,
  isReached,
  priceFor,
  visitBy,
  visitRefusal,
} from '../interactions/index.js';
import { bodyRadius, movement } from '../movement/index.js';
import { seats } from '../seats/index.js';
import { isDown, mayUse, stateOf } from '../states/index.js';
import { events as interactionsEvents, type VisitRefusal, type VisitRefused } from '../interactions/events.js';
import { isTold } from '../../ruleset/visible.js';
import type { RowOf } from '../../world/define-table.js';
import { type offersTable } from './tables.js';
import { offers, type Things } from './state.js';

/** What is offered is a container, not one of the interactions. */
const CONTAINER = -1;

/** At most this many offers at a time. */
const MOST_OFFERS = 6;

/** What it costs to find out whether something is offered, in rows that are looked through. */
const ROWS_OF_OFFER = 32;

export interface Offer {
  readonly thing: number;
  /** The interaction's position, or CONTAINER. */
  readonly what: number;
  readonly price: number;
  readonly currency: number;
}

/** The rows of those that offer something; found anew when actors came or went. */
function thingsOf(world: World): Things {
  const { things } = offers.in(world);
  const { version, high, live } = world.actors;
  if (things.version === version) return things;
  things.version = version;
  things.rows = [];
  for (let row = 0; row < high; row++) {
    if (live[row] === 1 && (interactionsOf(world, row).length > 0 || containerAt(world, row) !== undefined)) things.rows.push(row);
  }
  return things;
}

/** Those that offer something and may be near enough to somebody for it. */
function thingsNear(world: World, row: number): readonly number[] {
  const { rows } = thingsOf(world);
  if (rows.length === 0) return rows;
  const { x, y } = movement.in(world).table.cells;
  const own = offers.in(world).farthest + bodyRadius(world, row);
  const found: number[] = [];
  for (const other of rows) {
    const dx = x[other] - x[row];
    const dy = y[other] - y[row];
    const most = own + bodyRadius(world, other);
    if (other !== row && dx * dx + dy * dy <= most * most) found.push(other);
  }
  return found;
}

const NO_OFFERS: readonly Offer[] = [];

/** What is offered to somebody, the nearest first, each thing's in its own order. Containers come before interactions. */
function offersTo(world: World, visitor: number): readonly Offer[] {
  const row = world.actors.rowOf(visitor);
  if (row < 0 || isDown(world, row)) return [];
  const close = thingsNear(world, row);
  if (close.length === 0) return NO_OFFERS;
  const near = close.map((other) => ({ other, away: apart(world, row, other) })).sort((a, b) => a.away - b.away || a.other - b.other);
  const found: Offer[] = [];
  for (const { other } of near) {
    const thing = world.actors.handle(other);
    const parties = { owner: visitor, source: visitor, target: thing };
    const offered = interactionsOf(world, other);
    // The nearest are asked first: where the tick has no steps left for more, there is no more.
    if (found.length >= MOST_OFFERS || !world.lookThrough((1 + offered.length) * ROWS_OF_OFFER)) break;
    const container = containerAt(world, other);
    if (container && isReached(world, visitor, thing, container) === true && container.who?.(world, parties) !== 0)
      found.push({ thing, what: CONTAINER, price: 0, currency: -1 });
    for (const what of offered) {
      const one = interactionWith(world, thing, what);
      if (isReached(world, visitor, thing, one) !== true || one.who?.(world, parties) === 0) continue;
      found.push({ thing, what, price: priceFor(world, one, visitor, thing), currency: one.price?.attribute ?? -1 });
    }
  }
  return found.slice(0, MOST_OFFERS);
}

/** Notes for every seat what is offered to its player, where that has changed. */
export function offerAll(world: World): void {
  const { table: seated } = seats.in(world);
  const { offers: table, farthest } = offers.in(world);
  if (farthest === 0 && table.count === 0) return;
  if (table.count === 0 && thingsOf(world).rows.length === 0) return;
  const actors = seated.cells.actor;
  const wanted: RowOf<typeof offersTable>[] = [];
  for (let row = 0; row < seated.high; row++) {
    if (seated.live[row] === 0) continue;
    const visitor = actors[row];
    offersTo(world, visitor).forEach(({ thing, what, price, currency }, order) => {
      const container = what === CONTAINER ? containerAt(world, world.actors.rowOf(thing)) : undefined;
      const prompt = world.textIndex(container ? container.prompt : interactionWith(world, thing, what).prompt);
      const refusal = container ? openingRefusal(world, visitor, thing, container) : visitRefusal(world, visitor, thing, what);
      const busy = refusal?.['reason'] === 'busy' || (refusal?.['reason'] === 'remembered' && refusal['ticks'] !== undefined);
      const busyUntil = busy && Number(refusal['ticks']) > 0 ? world.tick + Number(refusal['ticks']) : 0;
      // A price in what only the server knows is not told.
      const priced = currency >= 0 && isTold(world.rules, 'attributes', attributes.of(world.rules).list[currency].id);
      const told = { price: priced ? price : 0, currency: priced ? currency : -1 };
      wanted.push({ visitor, thing, interaction: what, prompt, ...told, busyUntil, busy, order });
    });
  }
  table.keep(wanted);
}

export function refuse(world: World, visitor: number, thing: number, data: VisitRefusal): void {
  const row = world.actors.rowOf(thing);
  world.emit(
    interactionsEvents.visitRefused,
    { subject: visitor, source: visitor, target: thing },
    { ...(row >= 0 && { thing: world.rules.chapters.get('actors')!.ids[world.actors.cells.type[row]] }), ...data },
  );
}

/** What a player asks of a thing: what it offers begins, or they are told why not. */
export function ask(world: World, visitor: number, args: Readonly<Record<string, unknown>>): void {
  const row = world.actors.rowOf(visitor);
  const wanted = args['with'] === undefined ? undefined : Number(args['with']);
  if (wanted !== undefined && (wanted >= world.actors.high || world.actors.live[wanted] === 0))
    return refuse(world, visitor, 0, { reason: 'nothing' });
  const found = offersTo(world, visitor).filter(({ thing }) => wanted === undefined || world.actors.rowOf(thing) === wanted);
  const id = args['what'] as string | undefined;
  const offer = id === undefined ? found[0] : found.find(({ what }) => what !== CONTAINER && interactions.in(world).list[what].id === id);
  const thing = offer?.thing ?? (wanted === undefined ? 0 : world.actors.handle(wanted));
  if (isDown(world, row)) return refuse(world, visitor, thing, { reason: 'down' });
  // Asking for what one has open already closes it.
  if (thing !== 0 && offer?.what === CONTAINER && openedBy(world, visitor) === thing) return void closeBy(world, visitor);
  if (!mayUse(world, row))
    return refuse(world, visitor, thing, { reason: 'state', state: world.rules.chapters.get('states')!.ids[stateOf(world, row)] });
  if (!offer) return refuse(world, visitor, thing, { reason: whyNot(world, visitor, thing, id) });
  const pays = visitBy(world, visitor);
  if (pays >= 0 || openedBy(world, visitor) !== 0) return refuse(world, visitor, thing, refusedMeanwhile(world, pays, thing));
  if (offer.what === CONTAINER) {
    const container = containerAt(world, world.actors.rowOf(thing))!;
    const refusal = openingRefusal(world, visitor, thing, container);
    if (refusal) return refuse(world, visitor, thing, { container: container.id, ...refusal });
    return openThing(world, visitor, thing, container);
  }
  const refusal = visitRefusal(world, visitor, thing, offer.what);
  if (refusal) return refuse(world, visitor, thing, { interaction: interactions.in(world).list[offer.what].id, ...refusal });
  beginVisit(world, visitor, thing, offer.what);
}

/** What somebody is told who asks while they are busy: with the very one that they ask, or with another. */
function refusedMeanwhile(world: World, visit: number, thing: number): VisitRefusal {
  const { table } = interactions.in(world);
  if (visit < 0 || table.cells.thing[visit] !== thing) return { reason: 'visiting' };
  return { reason: 'served', ticks: Math.max(0, table.cells.until[visit] - world.tick) };
}

/** Why a thing that was asked offers nothing. */
function whyNot(world: World, visitor: number, thing: number, id: string | undefined): VisitRefused {
  const row = world.actors.rowOf(thing);
  if (row < 0) return 'nothing';
  const all = interactionsOf(world, row).filter((what) => id === undefined || interactions.in(world).list[what].id === id);
  const container = id === undefined ? containerAt(world, row) : undefined;
  const reaches = [...(container ? [container] : []), ...all.map((what) => interactionWith(world, thing, what))];
  if (reaches.length === 0) return 'nothing';
  const met = reaches.map((one) => isReached(world, visitor, thing, one));
  if (met.includes(true)) return 'notForYou';
  return met.includes('hidden') ? 'hidden' : met.includes('tooFar') ? 'tooFar' : 'down';
}
