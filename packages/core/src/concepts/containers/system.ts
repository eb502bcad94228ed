import type { World } from '../../world/world.js';
import { isReached, unmetNeed } from '../interactions/index.js';
import { type Container } from './compile.js';
import { hold, showAll } from './contents.js';
import { events, type Leave, LEAVES, type OPENS } from './events.js';
import { CLOSED, CLOSING, OPEN, OPENING } from './tables.js';
import type { VisitRefusal } from '../interactions/events.js';
import { containers } from './state.js';
import { containerAt, openingBy, openingsOf, visitorsOf } from './openings.js';

/** What keeps somebody within reach from opening a thing; nothing where it may be opened. */
export function openingRefusal(world: World, visitor: number, thing: number, container: Container): VisitRefusal | undefined {
  const parties = { owner: visitor, source: visitor, target: thing };
  if (container.who && container.who(world, parties) === 0) return { reason: 'notForYou' };
  const [other] = visitorsOf(world, thing).filter((one) => one !== visitor);
  if (container.alone && other !== undefined) return { reason: 'busy', with: world.nameOf(other), ticks: 0 };
  const says = unmetNeed(world, container.needs, visitor, thing);
  return says === undefined ? undefined : { reason: 'needs', says };
}

/** Has somebody whom nothing refuses open a thing: it begins to open, or they see at once what is in it. */
export function openThing(world: World, visitor: number, thing: number, container: Container): void {
  const { lids, openings } = containers.in(world);
  const row = world.actors.rowOf(thing);
  const at = openings.add();
  const lid = lids.cells.lid;
  const begins = lid[row] === CLOSED || lid[row] === CLOSING;
  const cells = { visitor, thing, begins: begins ? 1 : 0, since: world.tick, cause: world.cause };
  openings.write(at, cells);
  lids.cells.cause[row] = world.cause;
  if (begins) {
    lid[row] = OPENING;
    lids.cells.until[row] = world.tick + container.opening;
    if (container.opening === 0) open(world, row, container);
  } else if (lid[row] === OPEN) {
    hold(world, thing, container, visitor);
    tellOpen(world, at, container, 'joined');
  }
  showAll(world);
}

/** Has somebody close what they have open, or are opening. Nothing where they have nothing open. */
export function closeBy(world: World, visitor: number): boolean {
  const at = openingBy(world, visitor);
  if (at < 0) return false;
  leave(world, at, 'closed');
  showAll(world);
  return true;
}

/** Ends somebody's part in an open thing. The last to go has the lid come down. */
export function leave(world: World, at: number, how: Leave): void {
  const { lids, openings } = containers.in(world);
  const visitor = openings.cells.visitor[at];
  const thing = openings.cells.thing[at];
  openings.remove(at);
  const row = world.actors.rowOf(thing);
  if (row < 0 || visitorsOf(world, thing).length > 0) return;
  const lid = lids.cells.lid;
  const container = containerAt(world, row);
  if (lid[row] === CLOSED || !container) return;
  lid[row] = CLOSING;
  lids.cells.until[row] = world.tick + container.closing;
  lids.cells.how[row] = LEAVES.indexOf(how);
  if (container.closing === 0) close(world, row, container, visitor);
}

export function open(world: World, row: number, container: Container): void {
  const { lids } = containers.in(world);
  const thing = world.actors.handle(row);
  lids.cells.lid[row] = OPEN;
  lids.cells.until[row] = 0;
  const present = openingsOf(world, thing);
  const { openings } = containers.in(world);
  const of = openings.cells;
  for (const at of present) hold(world, thing, container, of.visitor[at]);
  // Who had it come up is told of first, then who came by; where that one has gone, who came by first has it open.
  const order = [...present].sort((a, b) => of.begins[b] - of.begins[a] || of.since[a] - of.since[b]);
  const told = order.map((at) => openings.handle(at));
  told.forEach((handle, i) => {
    const at = openings.rowOf(handle);
    if (at >= 0) tellOpen(world, at, container, i === 0 ? 'opened' : 'joined');
  });
}

/** Says of somebody that they have a thing open. */
function tellOpen(world: World, at: number, { id }: Container, how: (typeof OPENS)[number]): void {
  const { visitor, thing, cause } = containers.in(world).openings.cells;
  const [subject, target] = [visitor[at], thing[at]];
  world.since(cause[at], () => world.emit(events.containerOpened, { subject, source: subject, target }, { container: id, how }));
}

export function close(world: World, row: number, container: Container, by: number): void {
  const { lids } = containers.in(world);
  lids.cells.lid[row] = CLOSED;
  lids.cells.until[row] = 0;
  const subject = world.actors.rowOf(by) < 0 ? 0 : by;
  const how = LEAVES[lids.cells.how[row]];
  world.since(lids.cells.cause[row], () =>
    world.emit(events.containerClosed, { subject, source: subject, target: world.actors.handle(row) }, { container: container.id, how }),
  );
}

/** Lids follow their visitors and their times: who is out of reach has let go, what has opened is open, what was left closes. */
export function moveLids(world: World): void {
  const { lids, openings, ofType } = containers.in(world);
  if (!ofType.some((index) => index >= 0)) return;
  const { visitor, thing } = openings.cells;
  for (let at = 0; at < openings.high; at++) {
    if (openings.live[at] === 0) continue;
    const row = world.actors.rowOf(thing[at]);
    const container = row < 0 ? undefined : containerAt(world, row);
    const reached = container && isReached(world, visitor[at], thing[at], container);
    if (reached !== true) leave(world, at, reached === 'down' ? 'fell' : 'walkedOff');
  }
  const { lid, until, filled } = lids.cells;
  for (let row = 0; row < lids.high; row++) {
    if (lids.live[row] === 0 || (lid[row] === CLOSED && filled[row] === 0)) continue;
    const container = containerAt(world, row);
    if (!container) continue;
    if (lid[row] === OPENING && until[row] <= world.tick) open(world, row, container);
    else if (lid[row] === CLOSING && until[row] <= world.tick) close(world, row, container, 0);
    if (lid[row] === CLOSED && filled[row] !== 0 && container.refills > 0 && filled[row] + container.refills <= world.tick)
      empty(world, row, container);
  }
  showAll(world);
}

/** Takes out what was left in a closed container: what is in it next is decided when it is next open. */
export function empty(world: World, row: number, container: Container): void {
  const state = containers.in(world);
  const thing = world.actors.handle(row);
  for (const table of [state.contents, state.filled]) for (const at of table.rowsOf(thing)) table.remove(at);
  state.lids.cells.filled[row] = 0;
  world.emit(events.containerFilled, { target: thing }, { container: container.id });
}
