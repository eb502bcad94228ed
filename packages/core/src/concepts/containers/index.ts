import { z } from 'zod';
import { defineConcept } from '../../world/concept.js';
import type { World } from '../../world/world.js';
import { isReached, unmetNeed } from '../interactions/index.js';
import { lives } from '../lives/index.js';
import { compileContainers, type Container } from './compile.js';
import { hold, showAll, takeAll, takeOne } from './contents.js';
import { events, type Leave, LEAVES, type OPENS } from './events.js';
import { findings } from './findings.js';
import { schema } from './schema.js';
import { CLOSED, CLOSING, contentsTable, filledTable, lidsTable, OPEN, OPENING, openingsTable, shownTable } from './tables.js';
import type { VisitRefusal } from '../interactions/events.js';
import { containers } from './state.js';

export { containers } from './state.js';
export { type Container } from './compile.js';
export { hold } from './contents.js';
export { CONTENTS, type ContainerEntry, type ContentEntry, TAKES, VISITORS } from './schema.js';
export { LIDS, type Lid } from './tables.js';

/**
 * Containers: things with a lid and a life (closed, opening, open, closing). What is in one is decided when it is first
 * open and stays until it is taken; what a visitor's window shows is worked out from that, so the two can't disagree.
 */
export const containersConcept = defineConcept(containers, {
  sections: { containers: { kind: 'chapter', title: 'Containers', entry: schema } },
  compile: compileContainers,
  tables: () => [lidsTable, openingsTable, contentsTable, filledTable, shownTable],
  attach: (world, compiled) => ({
    ...compiled,
    lids: lidsTable.in(world),
    openings: openingsTable.in(world),
    contents: contentsTable.in(world),
    filled: filledTable.in(world),
    shown: shownTable.in(world),
  }),
  events,
  inputs: {
    take: {
      args: {
        /** The row of one of the things that are shown; everything where nothing is said. */
        item: z.int('An item is a whole number.').min(0).optional(),
      },
      traced: true,
      run: (world, visitor, { item }) => {
        const thing = openedBy(world, visitor);
        if (item === undefined) takeAll(world, visitor, thing);
        else takeOne(world, visitor, thing, Number(item));
      },
    },
  },
  findings,
  lifecycle: {
    // What an edit has made something else has no lid any more, and nobody has it open.
    rulesAdopted: (world) => {
      const { lids, openings } = containers.in(world);
      const thing = openings.cells.thing;
      for (let at = 0; at < openings.high; at++) {
        const row = openings.live[at] === 1 ? world.actors.rowOf(thing[at]) : -1;
        if (openings.live[at] === 1 && (row < 0 || !containerAt(world, row))) openings.remove(at);
      }
      for (const row of lids.rows()) if (!containerAt(world, row)) lids.write(row, { lid: CLOSED, until: 0 });
      showAll(world);
    },
    actorLeaving: (world, row) => {
      const { openings } = containers.in(world);
      const actor = world.actors.handle(row);
      const { visitor, thing } = openings.cells;
      for (const at of openings.rows()) if (visitor[at] === actor || thing[at] === actor) leave(world, at, 'gone');
    },
  },
  systems: { overlaps: moveLids },
  display: ({ list, ofType }, rules) =>
    ofType.flatMap((index, type) =>
      index < 0 ? [] : [{ actor: rules.chapters.get('actors')!.ids[type], id: list[index].id, takes: list[index].takes }],
    ),
});

/** The container that a thing is: its entry's, or what this one says otherwise; undefined where it is none. */
export function containerAt(world: World, row: number): Container | undefined {
  const { list, variants, ofType } = containers.in(world);
  const index = ofType[world.actors.cells.type[row]] ?? -1;
  if (index < 0) return undefined;
  return variants.get(lives.in(world).table.cells.listed[row] - 1) ?? list[index];
}

/** The row of what says that somebody has something open, or is opening it; -1 where nobody has. */
function openingBy(world: World, visitor: number): number {
  return containers.in(world).openings.firstOf(visitor);
}

/** The thing that somebody has open, or is opening; 0 for none. */
export function openedBy(world: World, visitor: number): number {
  const at = openingBy(world, visitor);
  return at < 0 ? 0 : containers.in(world).openings.cells.thing[at];
}

/** The rows of what says that somebody has a thing open, or is opening it. */
function openingsOf(world: World, thing: number): readonly number[] {
  const { openings } = containers.in(world);
  return openings.rows().filter((at) => openings.cells.thing[at] === thing);
}

/** Those who have a thing open, or are opening it. */
export function visitorsOf(world: World, thing: number): readonly number[] {
  const visitor = containers.in(world).openings.cells.visitor;
  return openingsOf(world, thing).map((at) => visitor[at]);
}

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
function leave(world: World, at: number, how: Leave): void {
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

function open(world: World, row: number, container: Container): void {
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

function close(world: World, row: number, container: Container, by: number): void {
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
function moveLids(world: World): void {
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
function empty(world: World, row: number, container: Container): void {
  const grip = containers.in(world);
  const thing = world.actors.handle(row);
  for (const table of [grip.contents, grip.filled]) for (const at of table.rowsOf(thing)) table.remove(at);
  grip.lids.cells.filled[row] = 0;
  world.emit(events.containerFilled, { target: thing }, { container: container.id });
}
