import {
  accountsTable,
  attributesTable,
  type Copy,
  daysTable,
  ledgerTable,
  pricesTable,
  rowInHandle,
  seatsTable,
  stallsTable,
  type ToldRowOf,
  tradeRefusalWords,
  warePricesTable,
  waresTable,
} from '@eager-ember/core';
import { displayOf } from './display';

/** A line of an account, summed by where it came from. */
export interface LineView {
  readonly label: string;
  readonly amount: number;
  readonly times: number;
}

export interface StatementView {
  readonly day: number;
  readonly opening: number;
  readonly closing: number;
  readonly result: number;
  readonly income: readonly LineView[];
  readonly costs: readonly LineView[];
}

/** Something that a shop near by sells, as it is for this player now. */
export interface WareView {
  readonly id: string;
  readonly label: string;
  readonly held: string;
  readonly left: string;
  readonly costs: string;
  readonly gets: string;
  readonly upkeep: string;
  /** What stands against buying it; nothing where it may be bought. */
  readonly refusal: string;
}

export interface GoodView {
  readonly id: string;
  readonly label: string;
  readonly price: number;
  readonly before: number;
  readonly have: number;
}

/** A player's money, as far as their copy was told. */
export interface EconomyView {
  readonly currency: string;
  readonly purse: number;
  readonly day: number;
  /** How the day ends, and whom it waits for. */
  readonly ends: string;
  readonly mayEnd: boolean;
  readonly ready: boolean;
  readonly settling: boolean;
  /** What is owed and how long there is to sell for it; nothing where nothing is. */
  readonly short: string;
  /** Ruined, or the goal reached: in words. */
  readonly over: string;
  readonly markets: readonly { readonly id: string; readonly label: string; readonly goods: readonly GoodView[] }[];
  readonly shops: readonly { readonly id: string; readonly label: string; readonly wares: readonly WareView[] }[];
  readonly today: StatementView;
  /** The last day that is over. */
  readonly last: StatementView | undefined;
}

/** Reads a player's money from a copy; undefined where the rules have none. */
export function economyOf(copy: Copy, row: number): EconomyView | undefined {
  const display = displayOf(copy.schema);
  const { days, markets, shops, attributes } = display;
  const [now] = copy.of(daysTable).all();
  if (!days || now === undefined) return undefined;
  const account = copy.of(accountsTable).row(row);
  const { days: over = 0, opening = 0, owed = 0, until = 0, ruined = false, goal = 0 } = account;
  const values = copy.entries(attributesTable);
  const have = (id: string) => values.value(row, id) ?? 0;
  const labelOf = (id: string) => attributes.find((one) => one.id === id)?.label.toLowerCase() ?? id;
  const words = (amount: number, id: string) => `${amount} ${labelOf(id)}`;
  const purse = have(days.currency);
  const told = copy.of(ledgerTable).ownedBy(row);
  const lines = told.map(({ day = 0, label = '', amount = 0, times = 0 }) => ({ day, label, amount, times }));
  const statement = (day: number, began: number, closing: number): StatementView => {
    const of = lines.filter((line) => line.day === day);
    return {
      day,
      opening: began,
      closing,
      result: Math.round((closing - began) * 100) / 100,
      income: of.filter(({ amount }) => amount > 0),
      costs: of.filter(({ amount }) => amount < 0),
    };
  };
  const near = copy.of(stallsTable).ownedBy(row);
  const prices = copy.of(pricesTable).all();
  const [wares, parts] = [copy.of(waresTable).ownedBy(row), copy.of(warePricesTable).ownedBy(row)];
  const { lastDay = 0, lastOpening = 0, lastClosing = 0 } = account;
  const left = until > 0 ? Math.max(0, Math.ceil((until - copy.tick) / copy.schema.tickRate)) : 0;
  const end = ruined ? `Ruined on day ${over}.` : goal > 0 ? `The goal was reached on day ${goal}.` : '';
  const { ends = 0, settling = false } = now;
  return {
    currency: labelOf(days.currency),
    purse,
    day: over + 1,
    ends: endWords(copy, ends, days.key, settling),
    mayEnd: days.key && !settling && end === '',
    ready: account.ready ?? false,
    settling,
    short:
      until > 0
        ? owed > 0
          ? `You owe ${owed}: sell within ${left} s, or you are ruined.`
          : `You have ${left} s to mend it, or you are ruined.`
        : '',
    over: end,
    markets: (markets ?? [])
      .filter(({ id }) => near.some(({ market }) => market === id))
      .map(({ id, label, goods }) => ({
        id,
        label,
        goods: goods.map((good) => {
          const { price = 0, before = 0 } = prices.find((one) => one.market === id && one.good === good.id) ?? {};
          return { ...good, price, before, have: have(good.id) };
        }),
      })),
    shops: (shops?.shops ?? [])
      .filter(({ id }) => near.some(({ shop }) => shop === id))
      .map(({ id, label, sells }) => ({
        id,
        label,
        wares: sells.flatMap((offer) => {
          const ware = wares.find((one) => one.offer === offer);
          const known = shops!.offers.find((one) => one.id === offer);
          return ware && known ? [wareOf(ware, known, parts, have, words, labelOf)] : [];
        }),
      })),
    today: statement(over + 1, opening, Math.round((purse - owed) * 100) / 100),
    last: lastDay > 0 ? statement(lastDay, lastOpening, lastClosing) : undefined,
  };
}

function wareOf(
  { held = 0, left = 0, upkeep = 0, says = '', against: reason = '' }: ToldRowOf<typeof waresTable>,
  { id, label, tiers }: { readonly id: string; readonly label: string; readonly tiers: number },
  prices: readonly ToldRowOf<typeof warePricesTable>[],
  have: (attribute: string) => number,
  words: (amount: number, id: string) => string,
  labelOf: (id: string) => string,
): WareView {
  const parts = prices.filter(({ offer }) => offer === id).map(({ attribute = '', amount = 0 }) => ({ attribute, amount }));
  const phrase = (sign: 1 | -1) =>
    parts
      .filter(({ amount }) => Math.sign(amount) === sign)
      .map(({ attribute, amount }) => words(Math.abs(amount), attribute))
      .join(', ');
  const short = parts.find(({ attribute, amount }) => amount < 0 && have(attribute) < -amount);
  const data = {
    reason,
    ...(says !== '' && { says }),
    ...(reason === 'tooPoor' &&
      short && {
        attribute: short.attribute,
        needs: -short.amount,
        present: have(short.attribute),
      }),
  };
  return {
    id,
    label,
    held: tiers > 0 ? `tier ${held} of ${tiers}` : held > 0 ? `${held} bought` : '',
    left: left < 0 ? '' : `${left} left`,
    costs: phrase(-1) || 'nothing',
    gets: phrase(1),
    upkeep: upkeep > 0 ? `then ${upkeep} a day` : '',
    refusal:
      reason === ''
        ? ''
        : reason === 'noRoom'
          ? 'There is no room for it.'
          : tradeRefusalWords(data, { label: (_, one) => labelOf(String(one)) }),
  };
}

/** How the day ends, and whom it waits for. */
function endWords(copy: Copy, ends: number, key: boolean, settling: boolean): string {
  if (settling) return 'the day is being settled';
  const accounts = copy.of(accountsTable);
  const players = copy.of(seatsTable).all();
  const open = players
    .map(({ actor = 0 }) => accounts.row(rowInHandle(actor)))
    .filter(({ ruined = false, goal = 0 }) => !ruined && goal === 0);
  const ready = open.filter((account) => account.ready);
  const waits = key && open.length > 1 ? `${ready.length} of ${open.length} would end it` : '';
  const clock = ends > 0 ? `ends in ${Math.max(0, Math.ceil((ends - copy.tick) / copy.schema.tickRate))} s` : '';
  return [clock, waits].filter(Boolean).join(', ');
}
