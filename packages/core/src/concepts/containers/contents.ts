import { toWhole } from '../../math/grid.js';
import type { RowOf } from '../../world/define-table.js';
import type { World } from '../../world/world.js';
import type { shownTable } from './tables.js';
import { attributes, changeAttribute, hasAttribute, readAttribute } from '../attributes/index.js';
import { openTable, wholeOf } from '../loot/index.js';
import { nameNumber } from '../memory/index.js';
import type { Container, Content } from './compile.js';
import { containers } from './state.js';
import { containerAt, openedBy } from './openings.js';
import { foundName, foundOf } from './found.js';
import { OPEN } from './tables.js';
import { events as lootEvents } from '../loot/events.js';
import { events } from './events.js';
import { isTold } from '../../ruleset/visible.js';

/** Contents that are everybody's. */
const COMMON = -1;
/** At most so many of a pickup, an effect or an ability come of one line of a loot table. */
const MOST_OF_ONE = 5;

const whoseFor = (world: World, container: Container, visitor: number) => (container.perPlayer ? nameNumber(world, visitor) : COMMON);

/** Decides what is in a container for a visitor, unless that is decided already. */
export function hold(world: World, thing: number, container: Container, visitor: number): void {
  const { lids, filled } = containers.in(world);
  const whose = whoseFor(world, container, visitor);
  if (filled.rowsOf(thing).some((at) => filled.cells.whose[at] === whose)) return;
  filled.insert({ thing, whose });
  const since = lids.cells.filled;
  const row = world.actors.rowOf(thing);
  if (since[row] === 0) since[row] = world.tick;
  // Luck belongs to the thing, or to the player who looks into it: not to whoever comes first.
  const lucky = container.perPlayer ? visitor : thing;
  const parties = { owner: lucky, source: visitor, target: thing };
  for (const content of container.holds) {
    // Rolled whatever the chance is, so that a change to it moves nobody else's luck.
    const drawn = world.roll(content.luck, lucky);
    if (content.chance && drawn >= content.chance.run(world, parties)) continue;
    const drawnAmount = content.amount?.run(world, parties) ?? 0;
    // What is counted in whole things lies there in whole things.
    const whole = content.gives >= 0 && attributes.of(world.rules).list[content.gives].whole;
    const amount = whole ? toWhole(drawnAmount) : drawnAmount;
    if (content.gives >= 0 && amount <= 0) continue;
    put(world, { thing, whose, what: world.textIndex(content.id), amount });
  }
  if (container.loot >= 0) rollInto(world, thing, container, visitor, whose);
}

function put(world: World, cells: Readonly<Record<'thing' | 'whose' | 'what' | 'amount', number>>): void {
  const { contents } = containers.in(world);
  contents.write(contents.add(), cells);
}

/** Puts what a container's loot table gives into it. */
function rollInto(world: World, thing: number, container: Container, visitor: number, whose: number): void {
  const parties = { owner: visitor, source: visitor, target: thing };
  const own = container.perPlayer ? visitor : 0;
  openTable(
    world,
    container.loot,
    { parties, whose: container.perPlayer ? visitor : thing, streaks: own },
    (table, drop, amount, chance, roll, rolls) => {
      const data = { table: table.id, entry: drop.id, label: drop.label, amount, chance, roll, rolls };
      world.emit(lootEvents.lootRolled, { subject: visitor, source: visitor, target: thing }, data);
      if (drop.what === 'table' || drop.what === 'nothing' || amount <= 0) return;
      const what = world.textIndex(foundName(table, drop));
      const counted = drop.what === 'gives' && attributes.of(world.rules).list[drop.index].whole ? toWhole(amount) : amount;
      if (drop.what === 'gives') return void (counted > 0 && put(world, { thing, whose, what, amount: counted }));
      for (let n = wholeOf(amount, MOST_OF_ONE); n > 0; n--) put(world, { thing, whose, what, amount: 0 });
    },
  );
}

const contentOf = (world: World, container: Container, row: number): Content | undefined => {
  const id = world.text(containers.in(world).contents.cells.what[row]);
  return id.includes('.') ? foundOf(world.rules).get(id) : container.holds.find((content) => content.id === id);
};

/** The rows of what somebody may take from a thing, in the order in which it holds them. */
function availableTo(world: World, visitor: number, thing: number, container: Container): readonly number[] {
  const { contents } = containers.in(world);
  const whose = whoseFor(world, container, visitor);
  const own = contents.rowsOf(thing).filter((row) => contents.cells.whose[row] === whose);
  const found = own.filter((row) => contentOf(world, container, row));
  // What a loot table gave comes behind the rest, in the order in which it was drawn.
  const place = (row: number) => {
    const at = container.holds.indexOf(contentOf(world, container, row)!);
    return at < 0 ? container.holds.length : at;
  };
  return found.sort((a, b) => place(a) - place(b) || a - b);
}

/** The container that somebody has wide open, with its row; undefined while it still opens. */
function openContainer(world: World, thing: number): Container | undefined {
  const row = world.actors.rowOf(thing);
  return row >= 0 && containers.in(world).lids.cells.lid[row] === OPEN ? containerAt(world, row) : undefined;
}

/** Takes one of the things that somebody is shown. */
export function takeOne(world: World, visitor: number, thing: number, item: number): void {
  const container = openContainer(world, thing);
  if (!container) return refuse(world, visitor, 'notOpen');
  if (container.takes === 'all') return refuse(world, visitor, 'onlyAll', container);
  if (!availableTo(world, visitor, thing, container).includes(item)) return refuse(world, visitor, 'taken', container);
  if (!take(world, visitor, thing, container, item)) refuse(world, visitor, 'noRoom', container);
  showAll(world);
}

/** Takes everything that somebody is shown; what there is no room for stays. */
export function takeAll(world: World, visitor: number, thing: number): void {
  const container = openContainer(world, thing);
  if (!container) return refuse(world, visitor, 'notOpen');
  if (container.takes === 'one') return refuse(world, visitor, 'onlyOne', container);
  const { contents } = containers.in(world);
  const items = availableTo(world, visitor, thing, container).map((row) => contents.handle(row));
  let left = false;
  // What one of them does may take the others away.
  for (const item of items) {
    const row = contents.rowOf(item);
    if (row >= 0 && world.actors.rowOf(visitor) >= 0 && !take(world, visitor, thing, container, row)) left = true;
  }
  if (left) refuse(world, visitor, 'noRoom', container);
  showAll(world);
}

function refuse(world: World, visitor: number, reason: string, container?: Container): void {
  world.emit(events.itemRefused, { subject: visitor, source: visitor }, { reason, ...(container && { container: container.id }) });
}

/**
 * Gives somebody a thing out of a container. What there is no room for stays in it.
 * @returns whether anything was given
 */
function take(world: World, visitor: number, thing: number, container: Container, row: number): boolean {
  const { contents } = containers.in(world);
  const content = contentOf(world, container, row)!;
  const amount = contents.cells.amount[row];
  world.goesOn(container.rule);
  const given = content.gives < 0 ? 0 : give(world, visitor, thing, content.gives, amount);
  if (content.gives >= 0 && given <= 0) return false;
  if (given < amount) contents.cells.amount[row] = amount - given;
  else contents.remove(row);
  world.follow(
    events.itemTaken,
    { subject: visitor, source: visitor, target: thing },
    {
      container: container.id,
      item: content.id,
      label: content.label,
      amount: given,
      ...(content.named && { named: content.named.id, chapter: content.named.chapter }),
      ...(content.gives >= 0 && { gives: attributes.of(world.rules).list[content.gives].id }),
    },
    () => content.then(world, { owner: visitor, source: visitor, target: thing }),
  );
  return true;
}

/** Gives what there is room for and returns how much that was. */
function give(world: World, visitor: number, thing: number, attribute: number, amount: number): number {
  const { list } = attributes.of(world.rules);
  if (!hasAttribute(world, list[attribute], world.actors.rowOf(visitor))) return 0;
  const before = readAttribute(world, visitor, attribute);
  changeAttribute(world, visitor, attribute, amount, thing, 'give');
  return readAttribute(world, visitor, attribute) - before;
}

/** Has every window show what is in its thing, and nothing else. */
export function showAll(world: World): void {
  const { openings, shown, contents } = containers.in(world);
  if (openings.count === 0 && shown.count === 0) return;
  const wanted: RowOf<typeof shownTable>[] = [];
  const visitors = openings.cells.visitor;
  for (let at = 0; at < openings.high; at++) {
    if (openings.live[at] === 0) continue;
    const visitor = visitors[at];
    const thing = openedBy(world, visitor);
    const container = openContainer(world, thing);
    if (!container) continue;
    availableTo(world, visitor, thing, container).forEach((item, place) => {
      const what = contents.cells.what[item];
      const amount = contents.cells.amount[item];
      const { label, named, gives } = contentOf(world, container, item)!;
      // Of what only the server knows they see that there is something.
      const words = !named || isTold(world.rules, named.chapter, named.id) ? label : 'Something';
      const counted = gives < 0 || isTold(world.rules, 'attributes', attributes.of(world.rules).list[gives].id);
      wanted.push({ visitor, thing, item, what, label: world.textIndex(words), amount: counted ? amount : 0, place });
    });
  }
  shown.keep(wanted);
}
