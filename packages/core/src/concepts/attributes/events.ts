import { roundTo } from '../../math/grid.js';
import { amount, entry, said, text, word } from '../../world/event-fields.js';
import { defineEvents, type EventData } from '../../world/events.js';

/** What changed an attribute: the action that did it, the price of an ability, what was given back of it, or an exchange. */
export const HOWS = ['hurt', 'heal', 'give', 'take', 'set', 'cost', 'refund', 'pay', 'receive'] as const;
export type How = (typeof HOWS)[number];

const see = { as: 'attribute' } as const;
const attribute = entry('attributes');
const number = amount('attribute');

const shown = (value: unknown) => String(roundTo(Number(value), 3));

/** What went over the top or under the bottom, by its name. */
function lostWords({ lost, how }: EventData): string {
  const amount = Number(lost);
  if (amount === 0) return '';
  const size = shown(Math.abs(amount));
  if (how === 'heal') return `, ${size} over-heal lost`;
  if (how === 'hurt') return `, ${size} overkill lost`;
  return `, ${size} lost`;
}

function resistedWords({ resisted = 0, asked }: EventData): string {
  const amount = Number(resisted);
  if (amount === 0) return '';
  const through = Math.sign(amount) === Math.sign(Number(asked)) ? 'resisted' : 'added by weakness';
  return `, ${shown(Math.abs(amount))} ${through}`;
}

const how = said(word(HOWS), {
  hurt: 'by being hurt',
  heal: 'by being healed',
  give: 'by a gift',
  take: 'by a taking',
  set: 'by being set',
  cost: 'as a price',
});

export const events = defineEvents({
  attributeChanged: {
    label: 'an attribute changes',
    when: 'A pool, a counter or a stat’s base was changed by an action, bounds and what follows from it included. Refill tells nothing.',
    arises: 'core',
    fields: { attribute, from: number, to: number, asked: number, given: number, lost: number, resisted: number, how },
    patterns: ['attribute', 'how', 'from', 'to', 'asked', 'given', 'lost', 'resisted'],
    see,
    sentence: (e, speak) => {
      const { from, to } = e.data;
      const label = speak.label('attributes', e.data['attribute']).toLowerCase();
      const by = e.source !== 0 && e.source !== e.subject ? `${e.by}: ` : '';
      return `${by}${e.who}’s ${label} ${shown(from)} → ${shown(to)}${resistedWords(e.data)}${lostWords(e.data)}`;
    },
  },
  attributeLacking: {
    label: 'an attribute that is not there is to change',
    when: 'An action would change an attribute of somebody whose kind does not have it: nothing is changed.',
    arises: 'core',
    fields: { attribute, asked: number, how },
    patterns: ['attribute', 'how'],
    see: 'server',
    sentence: (e, speak) =>
      `${e.who} has no ${speak.label('attributes', e.data['attribute']).toLowerCase()}: ${e.data['how']} ${shown(Math.abs(Number(e.data['asked'])))} changes nothing`,
  },
  thresholdEntered: {
    label: 'a threshold is entered',
    when: 'At the thresholds’ turn of a tick, once a value is within a range that it was not in.',
    arises: { from: 'attributes', field: 'attribute' },
    part: 'threshold',
    fields: { attribute, threshold: text('attribute'), value: number },
    patterns: ['attribute', 'value'],
    see,
    sentence: (e, speak) =>
      `${e.who}’s ${speak.label('attributes', e.data['attribute']).toLowerCase()} enters ${e.data['threshold']} at ${shown(e.data['value'])}`,
  },
  thresholdLeft: {
    label: 'a threshold is left',
    when: 'At the thresholds’ turn of a tick, once a value is out of a range by its margin.',
    arises: { from: 'attributes', field: 'attribute' },
    part: 'threshold',
    fields: { attribute, threshold: text('attribute'), value: number },
    patterns: ['attribute', 'value'],
    see,
    sentence: (e, speak) =>
      `${e.who}’s ${speak.label('attributes', e.data['attribute']).toLowerCase()} leaves ${e.data['threshold']} at ${shown(e.data['value'])}`,
  },
});
