import { amount, entry, said, text, word } from '../../world/event-fields.js';
import { defineEvents, type GameEvent } from '../../world/events.js';
import { REASONS } from './schema.js';

const fields = { effect: entry('effects') };
const patterns = ['effect'];
const see = { as: 'effect' } as const;
const ENDINGS: Readonly<Record<string, string>> = {
  ranOut: 'runs out',
  used: 'is used up',
  removed: 'is removed',
  ownerGone: 'goes with its bearer',
};

export const events = defineEvents({
  effectStarted: {
    label: 'an effect starts',
    when: 'An instance is on its bearer, its modifiers and statuses included; what it does at the start is still to come.',
    fields: { ...fields, ticks: amount('effect') },
    patterns: [...patterns, 'ticks'],
    see,
    announced: true,
    sentence: (e, speak) => {
      const label = speak.label('effects', e.data['effect']);
      const time = Number(e.data['ticks']) > 0 ? `, for ${speak.time(Number(e.data['ticks']))}` : '';
      return `${label} begins on ${e.who}${time}${by(e)}`;
    },
  },
  effectStacked: {
    label: 'an effect is refreshed or stacked',
    when: 'An instance that was on already has its new time and stacks.',
    fields: { ...fields, stacks: amount('effect'), ticks: amount('effect') },
    patterns: [...patterns, 'stacks', 'ticks'],
    see,
    announced: true,
    sentence: (e, speak) => {
      const stacks = Number(e.data['stacks']) > 1 ? `, ${e.data['stacks']} stacks` : '';
      const time = Number(e.data['ticks']) > 0 ? `, for ${speak.time(Number(e.data['ticks']))} from now` : '';
      return `${speak.label('effects', e.data['effect'])} is renewed on ${e.who}${stacks}${time}${by(e)}`;
    },
  },
  effectEnded: {
    label: 'an effect ends',
    when: 'An instance is off its bearer, its modifiers and statuses included; what it does at the end is still to come.',
    arises: { from: 'effects', field: 'effect' },
    fields: {
      ...fields,
      reason: said(word(REASONS), {
        ranOut: 'as it ran out',
        used: 'as it was used up',
        removed: 'as it was removed',
        ownerGone: 'as its bearer went',
      }),
    },
    patterns: [...patterns, 'reason'],
    see,
    announced: true,
    sentence: (e, speak) => `${speak.label('effects', e.data['effect'])} ${ENDINGS[String(e.data['reason'])]} on ${e.who}`,
  },
  effectRefused: {
    label: 'an effect does not take',
    when: 'An effect was to start and something kept it off; nothing was changed.',
    fields: { ...fields, why: word(['once', 'most', 'blocked', 'full'], 'by'), by: entry({ field: 'chapter' }), chapter: text('by') },
    patterns,
    see,
    announced: true,
    sentence: (e, speak) => {
      const { effect, why, by: blocker, chapter } = e.data;
      const words = {
        once: ': it is on already',
        most: ': it is on as often as it can be',
        full: ': more than there can be at a time are on already',
        blocked: `: ${speak.label(String(chapter), blocker).toLowerCase()} keeps it off`,
      }[String(why)];
      return `${speak.label('effects', effect)} does not take on ${e.who}${words ?? ''}`;
    },
  },
});

function by({ source, subject, by: name }: GameEvent): string {
  return source !== 0 && source !== subject && name ? `, from ${name}` : '';
}
