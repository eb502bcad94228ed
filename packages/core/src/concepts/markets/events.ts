import { entry } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';
import { amount } from '../../world/event-fields.js';

export const money = entry('attributes');

export const paid = amount('good', 'money');

export const fields = { market: entry('markets'), good: entry('attributes'), money, amount: amount('good'), price: paid, total: paid };

export const events = defineEvents({
  goodSold: {
    label: 'goods are sold',
    when: 'The goods are gone and their price is in the purse: both, or neither.',
    fields,
    patterns: ['market', 'good', 'amount', 'price', 'total'],
    arises: { from: 'markets', field: 'market' },
    see: 'owner',
    announced: true,
    sentence: (e, speak) =>
      `${e.who} sells ${Number(e.data['amount'] ?? 1) === 1 ? '' : `${e.data['amount']} × `}${speak.label('attributes', e.data['good']).toLowerCase()}${e.data['price'] === undefined ? '' : ` at ${e.data['price']}: ${e.data['total']}`}`,
  },
  priceMoved: {
    label: 'a price moves',
    when: 'A new day has begun, and a market pays another price than yesterday.',
    fields: { market: entry('markets'), good: entry('attributes'), money, price: paid, before: paid },
    patterns: ['market', 'good', 'price', 'before'],
    arises: { from: 'markets', field: 'market' },
    see: 'everyone',
    sentence: (e, speak) => `${speak.label('attributes', e.data['good'])} ${e.data['before']} → ${e.data['price']}`,
  },
});
