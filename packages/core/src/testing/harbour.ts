import { compileRuleset, type Rules } from '../index.js';
import { counter, input, join, pool, rulesetWith, stat, Trial } from './rulesets.js';
import { ledgerTable } from '../concepts/ledger/tables.js';
import { pricesTable } from '../concepts/markets/tables.js';

/** A harbour with money: a market of two goods, a yard with three offers, days that end when one asks. */
export const HARBOUR = {
  attributes: [stat('finSpeed', 120), pool('suit'), counter('scrip', { start: 100 }), counter('brass', { max: 20 }), counter('glass')],
  economy: {
    currency: 'scrip',
    ruin: { lastChance: '2s', say: 'The harbour has written you off.' },
    goal: { if: 'tier(slip) >= 2', say: 'Your slip is finished.' },
  },
  markets: [
    {
      id: 'quay',
      label: 'Quay market',
      goods: [
        { good: 'brass', price: { range: [6, 12] } },
        { good: 'glass', price: { walk: { start: 20, step: 4, least: 10, most: 30 } } },
      ],
    },
  ],
  shops: [{ id: 'yard', label: 'Yard', sells: ['slip', 'bottle', 'lamp'] }],
  offers: [
    { id: 'slip', label: 'Slip', tiers: 3, costs: [{ attribute: 'scrip', amount: '40 * tier' }], upkeep: '10 * tier' },
    {
      id: 'bottle',
      label: 'Brass bottle',
      costs: [{ attribute: 'scrip', amount: 5 }],
      gets: [{ attribute: 'brass', amount: 2 }],
      stock: 3,
      restock: 'daily',
    },
    {
      id: 'lamp',
      label: 'Lamp',
      costs: [
        { attribute: 'scrip', amount: 30 },
        { attribute: 'brass', amount: 1 },
      ],
      stock: 1,
      needs: [{ if: 'glass >= 0', say: 'Not for you.' }],
    },
  ],
  arena: { starts: [{ x: 100, y: 100 }] },
};
export const harbour = (more: Record<string, unknown> = {}): Rules => compileRuleset(rulesetWith({ ...HARBOUR, ...more }));
export const at = (more: Record<string, unknown> = {}, seats = ['north'], seed = 1) =>
  new Trial(
    harbour(more),
    seats.map((seat) => join(seat)),
    seed,
  );
export const ask = (trial: Trial, what: Record<string, unknown>, seat = 'north') => trial.step(input(seat, what));
export const buy = (trial: Trial, offer: string, seat = 'north') => ask(trial, { do: 'buy', offer }, seat);
export const sell = (trial: Trial, good: string, amount?: number, seat = 'north') =>
  ask(trial, { do: 'sell', good, ...(amount !== undefined && { amount }) }, seat);
export const endDay = (trial: Trial, seat = 'north') => ask(trial, { do: 'endDay' }, seat);
export const refusals = (trial: Trial) => trial.named('tradeRefused').map(({ data }) => data['reason']);
export const give = (trial: Trial, attribute: string, amount: number, seat = 'north') =>
  trial.poke({ do: 'give', attribute, amount }, seat);
export const statement = (trial: Trial) => trial.named('dayEnded').map(({ data }) => data);
export const lines = (trial: Trial, seat = 'north') => {
  const table = ledgerTable.in(trial.world);
  const { day, label, amount } = table.cells;
  return table.rowsOf(trial.actor(seat)).map((row) => `${day[row]} ${trial.world.text(label[row])} ${amount[row]}`);
};
export const price = (trial: Trial, good: number) => pricesTable.in(trial.world).cells.price[good];
