import { toWhole } from '../../math/grid.js';
import type { World } from '../../world/world.js';
import { useAbility } from '../abilities/index.js';
import { typeOf } from '../actors/index.js';
import { attributes, changeAttribute, hasAttribute, readAttribute } from '../attributes/index.js';
import { applyEffect } from '../effects/index.js';
import { placeOf } from '../movement/index.js';
import { layDown } from '../pickups/index.js';
import type { Drop, LootTable } from './compile.js';
import { loot } from './state.js';
import { openTable, wholeOf } from './roll.js';
import { events } from './events.js';

/** At most so many pickups of a kind are put down by one line. */
const MOST_LAID = 20;
/** At most so many instances of an effect by one line. */
const MOST_APPLIED = 10;
/** How far from where something fell its pickups lie. */
const SPREAD = 18;

const isPlayer = (world: World, actor: number): boolean => {
  const row = world.actors.rowOf(actor);
  return row >= 0 && typeOf(world, row).kind === 'player';
};

/** Whom a table is rolled for: players alone have loot. 0 is everybody at once. */
function openersOf(world: World, table: LootTable, doer: number): readonly number[] {
  if (table.rolled === 'once') return [0];
  if (table.rolled === 'doer') return doer === 0 ? [] : [doer];
  const all: number[] = [];
  for (const row of world.actors.rows()) if (typeOf(world, row).kind === 'player') all.push(world.actors.handle(row));
  return all;
}

/**
 * Rolls a table where a thing is, and gives what it comes to.
 * @param thing where it happens: the fallen, a chest, the one who opens
 * @param by who brought it about; nobody where that is no player
 */
export function dropFrom(world: World, index: number, thing: number, by: number): void {
  const table = loot.of(world.rules).list[index];
  const doer = isPlayer(world, by) ? by : 0;
  for (const who of openersOf(world, table, doer)) {
    const receiver = who === 0 ? doer : who;
    const parties = { owner: receiver, source: doer, target: thing };
    openTable(world, index, { parties, whose: who, streaks: who }, (from, drop, amount, chance, roll, rolls) => {
      const data = { table: from.id, entry: drop.id, label: drop.label, amount, chance, roll, rolls };
      world.follow(events.lootRolled, { subject: receiver, source: doer, target: thing }, data, () =>
        deliver(world, from, drop, amount, { thing, receiver, owner: who }),
      );
    });
  }
}

interface Delivery {
  readonly thing: number;
  /** Who gets what does not lie about. */
  readonly receiver: number;
  /** Whose the pickups are; 0 for whoever comes first. */
  readonly owner: number;
}

function deliver(world: World, table: LootTable, drop: Drop, amount: number, { thing, receiver, owner }: Delivery): void {
  world.goesOn(table.rule);
  const tell = (got: number, lies: boolean) =>
    world.emit(
      events.lootFound,
      { subject: receiver, source: receiver, target: thing },
      {
        table: table.id,
        label: drop.label,
        amount: got,
        lies,
        ...(drop.named && { named: drop.named.id, chapter: drop.named.chapter }),
        ...(drop.what === 'gives' && { gives: attributes.of(world.rules).list[drop.index].id }),
      },
    );
  if (drop.what === 'pickup') {
    const laid = layAround(world, drop, wholeOf(amount, MOST_LAID), thing, owner);
    if (laid > 0) tell(laid, true);
  } else if (drop.what !== 'table' && receiver !== 0 && world.actors.rowOf(receiver) >= 0) {
    const got = giveTo(world, drop, amount, receiver, thing);
    if (got > 0) tell(got, false);
  }
  // What happens besides happens once, whatever the amount.
  if (drop.then && amount > 0 && receiver !== 0) drop.then(world, { owner: receiver, source: receiver, target: thing });
}

/**
 * Gives somebody what a line comes to, apart from pickups and nested tables, and says how much of it they got.
 * Also for what is taken out of a container.
 */
export function giveTo(world: World, drop: Drop, amount: number, receiver: number, from: number): number {
  if (drop.what === 'gives') {
    const attribute = attributes.of(world.rules).list[drop.index];
    if (!hasAttribute(world, attribute, world.actors.rowOf(receiver))) return 0;
    const before = readAttribute(world, receiver, drop.index);
    changeAttribute(world, receiver, drop.index, attribute.whole ? toWhole(amount) : amount, from, 'give');
    return readAttribute(world, receiver, drop.index) - before;
  }
  if (drop.what === 'effect') {
    const times = wholeOf(amount, MOST_APPLIED);
    for (let n = 0; n < times; n++) applyEffect(world, receiver, drop.index, receiver);
    return times;
  }
  if (drop.what === 'ability') {
    if (wholeOf(amount, 1) === 0) return 0;
    useAbility(world, receiver, world.rules.chapters.get('abilities')!.ids[drop.index]);
    return 1;
  }
  return drop.what === 'then' && amount > 0 ? 1 : 0;
}

function layAround(world: World, drop: Drop, count: number, thing: number, owner: number): number {
  const row = world.actors.rowOf(thing);
  if (row < 0) return 0;
  const { x, y } = placeOf(world, row);
  const { spread } = loot.of(world.rules);
  const whose = owner === 0 ? 0 : owner;
  for (let n = 0; n < count; n++) {
    // The first lies where it fell; others around it.
    const [dx, dy] = [spread.x, spread.y].map((purpose) => (world.roll(purpose, whose) * 2 - 1) * (n === 0 ? 0 : SPREAD));
    layDown(world, drop.index, x + dx, y + dy, { owner });
  }
  return count;
}
