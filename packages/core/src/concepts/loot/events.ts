import { roundTo } from '../../math/grid.js';
import { amount, entry, flag, text } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

/** A chance as it is read: `55 %`, `0.2 %`, `under one in a million`. */
export function percent(chance: number): string {
  if (chance <= 0) return '0 %';
  if (chance < 1e-6) return 'under one in a million';
  const hundredths = chance * 100;
  return `${hundredths < 0.1 ? Number(hundredths.toPrecision(2)) : roundTo(hundredths, hundredths < 1 ? 2 : 1)} %`;
}

/** How much of something, in words: `2 brass fittings`; one of it goes by its name alone. */
export const amountWords = (amount: number, label: string): string =>
  amount === 0 || amount === 1 ? label.toLowerCase() : `${roundTo(amount, 2)} × ${label.toLowerCase()}`;

export const events = defineEvents({
  lootRolled: {
    label: 'a loot table is rolled',
    when: 'A line of a table is drawn, or is always there; what it gives is still to come. Told to the trace alone: chances are the server’s.',
    fields: {
      table: entry('loot'),
      entry: text('table'),
      label: text('table'),
      amount: amount('table'),
      chance: amount('table'),
      roll: amount('table'),
      rolls: amount('table'),
    },
    patterns: ['table', 'amount', 'chance', 'roll'],
    // A container rolls one without any action, and a table what is nested in it.
    arises: { from: 'loot', field: 'table' },
    part: 'entry',
    see: 'server',
    sentence: (e, speak) => {
      const { table, label, amount, chance, roll, rolls } = e.data;
      const how =
        Number(roll) === 0 ? 'always there' : `${Number(rolls) > 1 ? `roll ${roll} of ${rolls}, ` : ''}chance ${percent(Number(chance))}`;
      return `${speak.label('loot', table)}${e.who === '' ? '' : ` for ${e.who}`}: ${amountWords(Number(amount), String(label))} (${how})`;
    },
  },
  lootFound: {
    label: 'something drops',
    when: 'What a table gave is there: it lies in the arena, or whoever it is for has it.',
    // Which table it came from is the server's. What it gives may be too.
    fields: {
      table: entry('loot'),
      named: entry({ field: 'chapter' }),
      chapter: text('named'),
      label: text('named'),
      gives: entry('attributes'),
      amount: amount('gives'),
      lies: flag(),
    },
    patterns: ['table', 'amount'],
    arises: { from: 'loot', field: 'table' },
    see: 'owner',
    announced: true,
    sentence: (e) => {
      const words = amountWords(Number(e.data['amount'] ?? 1), String(e.data['label'] ?? 'Something'));
      return e.data['lies'] === true
        ? `${words} ${Number(e.data['amount']) > 1 ? 'lie' : 'lies'} there${e.who === '' ? '' : ` for ${e.who}`}`
        : `${e.who} finds ${words}`;
    },
  },
});
