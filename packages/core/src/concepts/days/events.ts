import { amount, entry, forSubject, text } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

const signed = (value: unknown) => `${Number(value) > 0 ? '+' : ''}${String(value)}`;

const money = entry('attributes');
const sum = amount('money');

export const events = defineEvents({
  dayEndAsked: {
    label: 'a player asks for the day to end',
    when: 'A player would have the day end; it ends when all would.',
    patterns: [],
    arises: 'core',
    see: 'everyone',
    announced: true,
    sentence: (e) => `${e.who} would end the day`,
  },
  upkeepPaid: {
    label: 'upkeep is paid',
    when: 'At the end of a day, once what an offer costs is paid as far as the purse gives; the rest is owed.',
    fields: { offer: entry('offers'), cost: amount('offer'), paid: amount('offer') },
    patterns: ['offer', 'cost', 'paid'],
    arises: { from: 'offers', field: 'offer' },
    see: 'owner',
    sentence: (e, speak) =>
      `${e.who} pays ${e.data['paid']} for ${speak.label('offers', e.data['offer']).toLowerCase()}${Number(e.data['paid']) < Number(e.data['cost']) ? `, and owes ${Number(e.data['cost']) - Number(e.data['paid'])}` : ''}`,
  },
  shortAtDayEnd: {
    label: 'a player is short at the end of a day',
    when: 'The day is over and somebody can’t pay what it cost; until their last chance is over they may sell.',
    fields: { money, owed: amount('money'), ticks: amount() },
    patterns: ['owed'],
    arises: 'core',
    see: 'owner',
    announced: true,
    refusal: true,
    sentence: (e, speak) =>
      Number(e.data['owed']) > 0
        ? `You owe ${e.data['owed']}: sell something within ${speak.time(Number(e.data['ticks']))}, or you are ruined.`
        : `You can’t go on like this: you have ${speak.time(Number(e.data['ticks']))}, or you are ruined.`,
  },
  playerRuined: {
    label: 'a player is ruined',
    when: 'A last chance is over, or there was none: the last statement is drawn up, and nobody trades with them any more.',
    fields: { days: amount(), money, owed: forSubject(amount('money')), says: text() },
    patterns: ['days', 'owed'],
    arises: 'core',
    see: 'everyone',
    announced: true,
    sentence: (e) => (e.data['says'] === undefined ? `${e.who} is ruined on day ${e.data['days']}` : `${e.who}: ${e.data['says']}`),
  },
  goalReached: {
    label: 'the goal is reached',
    when: 'The goal of the economy is met for the first time; the days that it took are counted.',
    fields: { days: amount(), says: text() },
    patterns: ['days'],
    arises: 'core',
    see: 'everyone',
    announced: true,
    sentence: (e) => `${e.who} reaches the goal on day ${e.data['days']}${e.data['says'] === undefined ? '' : `: ${e.data['says']}`}`,
  },
  dayEnded: {
    label: 'a day ends',
    when: 'All that the day cost is paid or owed, and its statement is drawn up: opening, income, costs, closing.',
    fields: { day: amount(), money, opening: sum, income: sum, costs: sum, closing: sum, result: sum },
    patterns: ['day', 'opening', 'income', 'costs', 'closing', 'result'],
    arises: 'core',
    see: 'owner',
    announced: true,
    sentence: (e) => `${e.who}, day ${e.data['day']}: ${e.data['opening']} → ${e.data['closing']} (${signed(e.data['result'])})`,
  },
  dayBegan: {
    label: 'a day begins',
    when: 'Every statement of the last day is drawn up, prices have moved, and what is filled up daily is full.',
    fields: { day: amount() },
    patterns: ['day'],
    arises: 'core',
    see: 'everyone',
    announced: true,
    sentence: (e) => `Day ${e.data['day']} begins`,
  },
});
