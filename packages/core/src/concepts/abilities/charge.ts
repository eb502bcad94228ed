import { toGrid } from '../../math/grid.js';
import { World } from '../../world/world.js';
import { changeAttribute, readAttribute } from '../attributes/index.js';
import type { Ability } from './compile.js';
import { type Abilities, ownedRow } from './tables.js';

/** Ticks that seconds come to, rounded up; none for nothing. */
export function ticksOf(world: World, seconds: number): number {
  return Math.max(0, Math.min(0x40000000, Math.ceil(seconds * world.rules.tickRate - 1e-9)));
}

export function pricesOf(world: World, ability: Ability, actor: number): readonly number[] {
  return ability.costs.map((cost) => Math.max(0, cost.amount.run(world, World.alone(actor))));
}

/** The first cost that an actor has not enough for. Two costs on one pool are asked together. */
export function shortOf(world: World, ability: Ability, actor: number): { attribute: string; needs: number; present: number } | undefined {
  const prices = pricesOf(world, ability, actor);
  for (const { attribute, id } of ability.costs) {
    const needs = toGrid(prices.reduce((sum, price, k) => (ability.costs[k].attribute === attribute ? sum + price : sum), 0));
    const present = readAttribute(world, actor, attribute);
    if (present < needs) return { attribute: id, needs, present };
  }
  return undefined;
}

/** Starts the cooldown, takes a use out of store and pays; what of the costs was paid is noted while the use goes on. */
export function charge(world: World, state: Abilities, ability: Ability, actor: number, goesOn: boolean): void {
  coolDown(world, state, ability, actor, 1);
  takeStored(world, state, ability, actor);
  const prices = pricesOf(world, ability, actor);
  world.goesOn(ability.rule);
  ability.costs.forEach((cost, i) => {
    changeAttribute(world, actor, cost.attribute, -prices[i], actor, 'cost');
    if (!goesOn || prices[i] === 0) return;
    state.paid.insert({ actor, attribute: cost.attribute, amount: prices[i] });
  });
}

/** Makes an ability wait for a share of its cooldown, and those of its groups for theirs. No wait is ever made shorter by it. */
function coolDown(world: World, state: Abilities, ability: Ability, actor: number, share: number): void {
  const wait = (index: number, ticks: number) => {
    const at = ownedRow(state, actor, index);
    if (at < 0 || ticks <= 0 || state.of.ready[at] >= world.tick + ticks) return;
    state.of.ready[at] = world.tick + ticks;
    state.of.cooldown[at] = ticks;
  };
  const seconds = Math.max(0, ability.cooldown.run(world, World.alone(actor)));
  wait(ability.index, ticksOf(world, seconds * share));
  for (const { members, ticks } of ability.groups) for (const member of members) wait(member, Math.ceil(ticks * share));
}

function takeStored(world: World, state: Abilities, ability: Ability, actor: number): void {
  const at = ownedRow(state, actor, ability.index);
  if (at < 0 || !ability.stored) return;
  state.of.stored[at]--;
  if (state.of.refill[at] === 0) state.of.refill[at] = world.tick + refillTicks(world, ability, actor);
}

function refillTicks(world: World, { stored }: Ability, actor: number): number {
  return Math.max(1, ticksOf(world, stored!.refill.run(world, World.alone(actor))));
}

/** Puts uses into store whose time has come. */
export function refillStores(world: World, state: Abilities): void {
  if (!state.list.some((ability) => ability.stored)) return;
  const { table } = state;
  for (let at = 0; at < table.high; at++) if (table.live[at] === 1) refillStore(world, state, at);
}

/** Puts the next use into store where its time has come. */
export function refillStore(world: World, { of, list }: Abilities, at: number): void {
  if (of.refill[at] === 0 || of.refill[at] > world.tick) return;
  const ability = list[of.ability[at]];
  const most = ability.stored?.most ?? 0;
  if (of.stored[at] < most) of.stored[at]++;
  of.refill[at] = of.stored[at] < most ? world.tick + refillTicks(world, ability, of.actor[at]) : 0;
}

/** What a broken use costs: gives back of what was charged, or charges of what was not, by the author's shares. */
export function settleBroken(world: World, state: Abilities, ability: Ability, actor: number, charged: boolean): void {
  const { costs, cooldown } = ability.broken;
  if (charged) return giveBack(world, state, ability, actor);
  if (cooldown > 0) coolDown(world, state, ability, actor, cooldown);
  if (costs === 0) return;
  world.goesOn(ability.rule);
  const prices = pricesOf(world, ability, actor);
  ability.costs.forEach((cost, i) => {
    const price = toGrid(Math.min(prices[i] * costs, readAttribute(world, actor, cost.attribute)));
    if (price > 0) changeAttribute(world, actor, cost.attribute, -price, actor, 'cost');
  });
}

function giveBack(world: World, state: Abilities, ability: Ability, actor: number): void {
  const { costs, cooldown } = ability.broken;
  const { paid } = state;
  world.goesOn(ability.rule);
  paid.eachOf(actor, (row) => {
    const back = toGrid(paid.cells.amount[row] * (1 - costs));
    const index = paid.cells.attribute[row];
    paid.remove(row);
    if (back > 0) changeAttribute(world, actor, index, back, actor, 'refund');
  });
  if (cooldown === 1) return;
  const at = ownedRow(state, actor, ability.index);
  if (at < 0) return;
  // Counted from when it began, so that a broken use is never worse off than a finished one.
  const { ready, cooldown: length, stored, refill } = state.of;
  const began = ready[at] - length[at];
  ready[at] = Math.min(ready[at], Math.max(world.tick, began + Math.ceil(length[at] * cooldown)));
  if (ability.stored && cooldown === 0) {
    stored[at] = Math.min(ability.stored.most, stored[at] + 1);
    if (stored[at] === ability.stored.most) refill[at] = 0;
  }
}

/** Forgets what a use was paid with: it is over. */
export function forgetPaid({ paid }: Abilities, actor: number): void {
  for (const row of paid.rowsOf(actor)) paid.remove(row);
}
