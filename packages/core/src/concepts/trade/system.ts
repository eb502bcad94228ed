import { z } from 'zod';
import { toGrid, toWhole } from '../../math/grid.js';
import { amount, reference } from '../../ruleset/fields.js';
import type { Amount } from '../../ruleset/context.js';
import type { World } from '../../world/world.js';
import { attributes, changeAttribute, hasAttribute, highOf, lowOf, readAttribute } from '../attributes/index.js';
import { ledger, noteLine } from '../ledger/index.js';
import { described } from '../../ruleset/described.js';
import { type Refusal } from '../../world/refusal.js';

/** So much of an attribute. */
export interface Part {
  readonly attribute: number;
  readonly amount: number;
}

/** A part as it is written: a pool or counter, and how much of it. */
/** @param says what is said of its amount, with {value} where that stands */
export const part = (parties: readonly ('source' | 'target')[], says: string) =>
  z.strictObject({
    attribute: reference('attributes', ['pool', 'counter']),
    amount: described(amount(parties), { amount: says, of: 'attribute' }),
  });

export type PartJson = z.infer<ReturnType<typeof part>>;

export interface CompiledPart {
  readonly attribute: number;
  readonly amount: Amount;
}

export type ExchangeRefusal = Refusal<
  'tooPoor' | 'noRoom',
  { readonly attribute: string; readonly needs: number; readonly present: number }
>;

export const wholeOf = (world: World, { attribute, amount: asked }: Part): number => {
  const { whole, kind } = attributes.of(world.rules).list[attribute];
  const positive = Math.max(0, asked);
  // What is counted changes hands in whole things.
  return toGrid(whole || kind === 'counter' ? toWhole(positive) : positive);
};

/** Parts by attribute: two prices in one currency are asked for together. */
export function together(world: World, list: readonly Part[]): readonly Part[] {
  if (list.length === 1) return [{ attribute: list[0].attribute, amount: wholeOf(world, list[0]) }];
  const sums = new Map<number, number>();
  for (const one of list) sums.set(one.attribute, toGrid((sums.get(one.attribute) ?? 0) + wholeOf(world, one)));
  return [...sums].map(([attribute, sum]) => ({ attribute, amount: sum }));
}

/** What keeps somebody from an exchange: they have not enough of something, or no room for what they would get. */
export function exchangeRefusal(world: World, actor: number, pays: readonly Part[], gets: readonly Part[]): ExchangeRefusal | undefined {
  const row = world.actors.rowOf(actor);
  const { list } = attributes.of(world.rules);
  const paid = together(world, pays);
  const present = (attribute: number) =>
    row >= 0 && hasAttribute(world, list[attribute], row) ? readAttribute(world, actor, attribute) : 0;
  for (const { attribute, amount: needs } of paid)
    if (needs > 0 && present(attribute) - Math.max(0, lowest(world, actor, attribute)) < needs)
      return { reason: 'tooPoor', attribute: list[attribute].id, needs, present: present(attribute) };
  for (const { attribute, amount: asked } of together(world, gets)) {
    const has = row >= 0 && hasAttribute(world, list[attribute], row);
    const after = present(attribute) - (paid.find((one) => one.attribute === attribute)?.amount ?? 0);
    const room = has ? highOf(world, list[attribute], actor, lowest(world, actor, attribute)) - after : 0;
    if (asked > 0 && room < asked) return { reason: 'noRoom', attribute: list[attribute].id, needs: asked, present: Math.max(0, room) };
  }
  return undefined;
}

export const lowest = (world: World, actor: number, attribute: number): number =>
  lowOf(world, attributes.of(world.rules).list[attribute], actor);

/**
 * Pays and receives in one step, or does nothing at all.
 * @param source what it is called in the ledger
 * @returns why it was not done; nothing where it was
 */
export function exchange(
  world: World,
  actor: number,
  pays: readonly Part[],
  gets: readonly Part[],
  source: string,
  from = actor,
): ExchangeRefusal | undefined {
  const short = exchangeRefusal(world, actor, pays, gets);
  if (short) return short;
  const { currency } = ledger.in(world);
  const move = (attribute: number, by: number, how: 'pay' | 'receive') => {
    if (by === 0) return;
    changeAttribute(world, actor, attribute, by, from, how);
    if (attribute === currency) noteLine(world, actor, source, by);
  };
  for (const { attribute, amount: price } of together(world, pays)) move(attribute, -price, 'pay');
  for (const { attribute, amount: asked } of together(world, gets)) move(attribute, asked, 'receive');
  return undefined;
}
