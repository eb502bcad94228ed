import { toGrid } from '../../math/grid.js';
import type { Amount } from '../../ruleset/context.js';
import type { World } from '../../world/world.js';
import { abilities } from './state.js';
import { giveAbilities } from './owned.js';
import { type AbilityNumber, CHANGEABLE, type CHANGES } from './tables.js';

/** A change of a number of an ability, for one actor. */
export interface NumberChange {
  readonly ability: number;
  readonly number: AbilityNumber;
  readonly change: (typeof CHANGES)[number];
  readonly amount: number;
}

/** Makes these all that a giver gives an actor: abilities beyond those of its kind, and changes of numbers. */
export function setGifts(world: World, actor: number, giver: number, owned: readonly number[], changes: readonly NumberChange[]): void {
  const { gifts, numbers } = abilities.in(world);
  for (const table of [gifts, numbers]) for (const at of table.rowsOf(actor)) if (table.cells.giver[at] === giver) table.remove(at);
  for (const ability of owned) gifts.insert({ actor, ability, giver });
  for (const { ability, number, change, amount } of changes) numbers.insert({ actor, ability, number, change, amount, giver });
  const row = world.actors.rowOf(actor);
  if (row >= 0) giveAbilities(world, row);
}

/** A number of an ability as it is for an actor. */
function adjusted(world: World, actor: number, ability: number, number: AbilityNumber, value: number): number {
  const { numbers } = abilities.in(world);
  if (numbers.count === 0) return value;
  const { ability: of, number: which, change, amount } = numbers.cells;
  const wanted = CHANGEABLE.indexOf(number);
  let add = 0;
  let percent = 0;
  for (let at = numbers.firstOf(actor); at >= 0; at = numbers.nextOf(at)) {
    if (of[at] !== ability || which[at] !== wanted) continue;
    if (change[at] === 0) add += amount[at];
    else percent += amount[at];
  }
  return changed(value, add, percent);
}

/** A number of an ability with what was learned: sums first, then percents together; never below nothing. */
export function changed(value: number, add: number, percent: number): number {
  if (add === 0 && percent === 0) return value;
  return toGrid(Math.max(0, (value + add) * (1 + percent / 100)));
}

/** An amount of an ability that what its user has learned may change. */
export const adjustable = (amount: Amount, ability: number, number: AbilityNumber): Amount => ({
  ...amount,
  run: (world, parties) => adjusted(world, parties.owner, ability, number, amount.run(world, parties)),
});
