import type { Parties } from '../../formula/index.js';
import { toGrid, toWhole } from '../../math/grid.js';
import type { World } from '../../world/world.js';
import type { CompiledLoot, Drop, LootTable, Quantity } from './compile.js';
import { dryOf, noteDry } from './streaks.js';
import { loot } from './state.js';

/** At most so many lines are drawn at an opening, nested tables included; at most so often a table is rolled at once. */
const MOST_DRAWN = 1000;
export const MOST_ROLLS = 100;

/** Who opens a table, and whose luck it is. */
export interface Opener {
  /** The owner is the one who rolls: bare names in formulas are theirs. */
  readonly parties: Parties;
  /** Whose luck is used: an actor's handle, or 0 for the room's own. */
  readonly whose: number;
  /** The player whose streaks count; 0 for those of the room. */
  readonly streaks: number;
}

/**
 * Told of each line that an opening came to, nested tables already opened.
 * @param chance how likely it was drawn at that roll, 1 for what is always there
 * @param roll which roll of the table it was, from 1; 0 for what is always there
 */
type DropVisitor = (table: LootTable, drop: Drop, amount: number, chance: number, roll: number, rolls: number) => void;

/** How much there is of something this time. */
export function quantityNow(world: World, quantity: Quantity, opener: Opener): number {
  if (quantity.constant !== undefined) return quantity.constant;
  if (quantity.formula) return quantity.formula(world, opener.parties);
  const { least, most, whole, luck } = quantity;
  const drawn = world.roll(luck, opener.whose);
  return whole ? Math.ceil(least) + Math.floor(drawn * (Math.floor(most) - Math.ceil(least) + 1)) : toGrid(least + drawn * (most - least));
}

/** A count of something: whole, and not below nothing. */
export const wholeOf = (amount: number, most: number): number => Math.max(0, Math.min(most, toWhole(amount)));

/** The weight of each entry as it is now, for whoever opens; `out` takes them, and their sum is returned. */
export function weigh(world: World, table: LootTable, opener: Opener, dry: number, out: number[]): number {
  let sum = 0;
  const { entries, streak } = table;
  for (let i = 0; i < entries.length; i++) {
    const { weight, test } = entries[i];
    let own = test && test(world, opener.parties) === 0 ? 0 : Math.max(0, weight.constant ?? weight.run(world, opener.parties));
    // What cannot be there at all is not brought about by bad luck either.
    if (streak && streak.at === i && own > 0 && dry >= streak.after) own += streak.adds * (dry - streak.after + 1);
    out[i] = own;
    sum += own;
  }
  if (out.length > entries.length) out.length = entries.length;
  if (streak && streak.certain > 0 && dry + 1 >= streak.certain && out[streak.at] > 0) {
    sum = out[streak.at];
    for (let i = 0; i < out.length; i++) if (i !== streak.at) out[i] = 0;
  }
  return sum;
}

/** Opens a table: what is always there, then what its rolls draw. Luck is used up the same whatever the weights are. */
export function openTable(world: World, index: number, opener: Opener, visit: DropVisitor): void {
  open(world, loot.of(world.rules), index, opener, visit, { drawn: 0 }, 0);
}

interface Count {
  drawn: number;
}
/** Weights while they are being drawn from; nothing in it outlives an opening. */
const scratch: number[][] = [];

function open(world: World, compiled: CompiledLoot, index: number, opener: Opener, visit: DropVisitor, count: Count, depth: number): void {
  const table = compiled.list[index];
  // As many lines as there may be: what would be drawn from here on is nobody's.
  if (count.drawn >= MOST_DRAWN || !world.spend(1)) return;
  for (const drop of table.always)
    if (!drop.test || drop.test(world, opener.parties) !== 0) give(world, compiled, table, drop, 1, 0, 0, opener, visit, count, depth);
  const rolls = wholeOf(quantityNow(world, table.rolls, opener), MOST_ROLLS);
  if (!table.plain) return drawWeighed(world, compiled, table, rolls, opener, visit, count, depth);
  const { entries, luck } = table;
  const { sum, sums, guide, chances } = table.steady!;
  for (let n = 1; n <= rolls && count.drawn < MOST_DRAWN; n++) {
    const share = world.roll(luck, opener.whose);
    if (sum <= 0) continue;
    const drawn = share * sum;
    let at = guide[(share * guide.length) | 0];
    while (sums[at] <= drawn) at++;
    const drop = entries[at];
    // The most common case at its barest: so much of a thing, whatever the moment.
    if (drop.always >= 0) {
      if (count.drawn++ < MOST_DRAWN) visit(table, drop, drop.always, chances[at], n, rolls);
    } else give(world, compiled, table, drop, chances[at], n, rolls, opener, visit, count, depth);
  }
}

/** Draws from weights that move: by formulas and conditions, by what was drawn already, by bad luck. */
function drawWeighed(
  world: World,
  compiled: CompiledLoot,
  table: LootTable,
  rolls: number,
  opener: Opener,
  visit: DropVisitor,
  count: Count,
  depth: number,
): void {
  const { entries, streak, replaced } = table;
  const dry = streak ? dryOf(world, table.index, opener.streaks) : 0;
  // Nested tables weigh while this one still draws: each depth has a list of its own.
  const weights = (scratch[depth] ??= []);
  let sum = weigh(world, table, opener, dry, weights);
  let fell = false;
  for (let n = 1; n <= rolls && count.drawn < MOST_DRAWN; n++) {
    let left = world.roll(table.luck, opener.whose) * sum;
    if (sum <= 0) continue;
    let at = 0;
    while (at < weights.length && (left -= weights[at]) >= 0) at++;
    // The rest that rounding makes belongs to the last entry whose weight is above zero.
    if (at === weights.length) at = weights.reduce((last, weight, i) => (weight > 0 ? i : last), -1);
    const weight = weights[at];
    const chance = weight / sum;
    if (streak?.at === at) fell = true;
    if (!replaced) {
      weights[at] = 0;
      // Added up anew: taking away would leave a rest of rounding.
      sum = weights.reduce((all, one) => all + one, 0);
    }
    give(world, compiled, table, entries[at], chance, n, rolls, opener, visit, count, depth);
  }
  if (streak && rolls > 0) noteDry(world, table.index, opener.streaks, fell ? 0 : dry + 1);
}

function give(
  world: World,
  compiled: CompiledLoot,
  table: LootTable,
  drop: Drop,
  chance: number,
  roll: number,
  rolls: number,
  opener: Opener,
  visit: DropVisitor,
  count: Count,
  depth: number,
): void {
  if (count.drawn++ >= MOST_DRAWN) return;
  const amount = drop.what === 'nothing' ? 0 : Math.max(0, quantityNow(world, drop.quantity, opener));
  visit(table, drop, amount, chance, roll, rolls);
  if (drop.what !== 'table') return;
  for (let n = wholeOf(amount, MOST_ROLLS); n > 0 && count.drawn < MOST_DRAWN; n--)
    open(world, compiled, drop.index, opener, visit, count, depth + 1);
}
