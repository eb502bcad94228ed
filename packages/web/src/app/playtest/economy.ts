import { AGAINST, type Copy, tradeRefusalWords } from '@eager-ember/core';
import { displayOf, rowOf } from './display';

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
  readonly against: string;
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
  const [dayRow] = copy.rows('days');
  if (!days || dayRow === undefined) return undefined;
  const own = (table: string) => copy.rows(table).filter((at) => rowOf(Number(copy.value(table, at, 'actor') ?? -1)) === row);
  const account = (column: string) => Number(copy.value('accounts', row, column) ?? 0);
  const labelOf = (id: string) => attributes.find((one) => one.id === id)?.label.toLowerCase() ?? id;
  const words = (amount: number, id: string) => `${amount} ${labelOf(id)}`;
  const purse = Number(copy.value('attributes', row, days.currency) ?? 0);
  const owed = account('owed');
  const lines = own('ledger').map((at) => ({
    day: Number(copy.value('ledger', at, 'day')),
    label: String(copy.value('ledger', at, 'label')),
    amount: Number(copy.value('ledger', at, 'amount')),
    times: Number(copy.value('ledger', at, 'times')),
  }));
  const statement = (day: number, opening: number, closing: number): StatementView => {
    const of = lines.filter((line) => line.day === day);
    return {
      day,
      opening,
      closing,
      result: Math.round((closing - opening) * 100) / 100,
      income: of.filter(({ amount }) => amount > 0),
      costs: of.filter(({ amount }) => amount < 0),
    };
  };
  const near = own('stalls').map((at) => ({ shop: copy.value('stalls', at, 'shop'), market: copy.value('stalls', at, 'market') }));
  const [lastDay, until] = [account('lastDay'), account('until')];
  const left = until > 0 ? Math.max(0, Math.ceil((until - copy.tick) / copy.schema.tickRate)) : 0;
  const over =
    account('ruined') === 1
      ? `Ruined on day ${account('days')}.`
      : account('goal') > 0
        ? `The goal was reached on day ${account('goal')}.`
        : '';
  const ends = Number(copy.value('days', dayRow, 'ends') ?? 0);
  const settling = copy.value('days', dayRow, 'settling') === 1;
  return {
    currency: labelOf(days.currency),
    purse,
    day: account('days') + 1,
    ends: endWords(copy, ends, days.key, settling),
    mayEnd: days.key && !settling && over === '',
    ready: account('ready') === 1,
    settling,
    short:
      until > 0
        ? owed > 0
          ? `You owe ${owed}: sell within ${left} s, or you are ruined.`
          : `You have ${left} s to mend it, or you are ruined.`
        : '',
    over,
    markets: (markets ?? [])
      .filter(({ id }) => near.some(({ market }) => market === id))
      .map(({ id, label, goods }) => ({
        id,
        label,
        goods: goods.map((good) => {
          const at = copy
            .rows('prices')
            .find((one) => copy.value('prices', one, 'market') === id && copy.value('prices', one, 'good') === good.id);
          const number = (column: string) => (at === undefined ? 0 : Number(copy.value('prices', at, column) ?? 0));
          return { ...good, price: number('price'), before: number('before'), have: Number(copy.value('attributes', row, good.id) ?? 0) };
        }),
      })),
    shops: (shops?.shops ?? [])
      .filter(({ id }) => near.some(({ shop }) => shop === id))
      .map(({ id, label, sells }) => ({
        id,
        label,
        wares: sells.flatMap((offer) => {
          const at = own('wares').find((one) => copy.value('wares', one, 'offer') === offer);
          const known = shops!.offers.find((one) => one.id === offer);
          if (at === undefined || !known) return [];
          return [wareOf(copy, at, known, own('warePrices'), words, labelOf)];
        }),
      })),
    today: statement(account('days') + 1, account('opening'), Math.round((purse - owed) * 100) / 100),
    last: lastDay > 0 ? statement(lastDay, account('lastOpening'), account('lastClosing')) : undefined,
  };
}

function wareOf(
  copy: Copy,
  at: number,
  { id, label, tiers }: { readonly id: string; readonly label: string; readonly tiers: number },
  prices: readonly number[],
  words: (amount: number, id: string) => string,
  labelOf: (id: string) => string,
): WareView {
  const cell = (column: string) => copy.value('wares', at, column);
  const parts = prices
    .filter((one) => copy.value('warePrices', one, 'offer') === id)
    .map((one) => ({
      attribute: String(copy.value('warePrices', one, 'attribute')),
      amount: Number(copy.value('warePrices', one, 'amount')),
    }));
  const phrase = (sign: 1 | -1) =>
    parts
      .filter(({ amount }) => Math.sign(amount) === sign)
      .map(({ attribute, amount }) => words(Math.abs(amount), attribute))
      .join(', ');
  const [held, left, upkeep] = ['held', 'left', 'upkeep'].map((column) => Number(cell(column) ?? 0));
  const reason = AGAINST[Number(cell('against') ?? 0)];
  const short = parts.find(
    ({ attribute, amount }) => amount < 0 && Number(copy.value('attributes', ownerRow(copy, at), attribute) ?? 0) < -amount,
  );
  const says = String(cell('says') ?? '');
  const data = {
    reason,
    ...(says !== '' && { says }),
    ...(reason === 'tooPoor' &&
      short && {
        attribute: short.attribute,
        needs: -short.amount,
        present: Number(copy.value('attributes', ownerRow(copy, at), short.attribute) ?? 0),
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
    against:
      reason === ''
        ? ''
        : reason === 'noRoom'
          ? 'There is no room for it.'
          : tradeRefusalWords(data, { label: (_, one) => labelOf(String(one)) }),
  };
}

const ownerRow = (copy: Copy, at: number): number => rowOf(Number(copy.value('wares', at, 'actor') ?? -1));

/** How the day ends, and whom it waits for. */
function endWords(copy: Copy, ends: number, key: boolean, settling: boolean): string {
  if (settling) return 'the day is being settled';
  const players = copy.rows('seats').map((at) => rowOf(Number(copy.value('seats', at, 'actor') ?? -1)));
  const open = players.filter(
    (row) => copy.value('accounts', row, 'ruined') !== 1 && Number(copy.value('accounts', row, 'goal') ?? 0) === 0,
  );
  const ready = open.filter((row) => copy.value('accounts', row, 'ready') === 1);
  const waits = key && open.length > 1 ? `${ready.length} of ${open.length} would end it` : '';
  const clock = ends > 0 ? `ends in ${Math.max(0, Math.ceil((ends - copy.tick) / copy.schema.tickRate))} s` : '';
  return [clock, waits].filter(Boolean).join(', ');
}
