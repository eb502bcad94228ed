import { amount, entry, forSubject, text, word } from '../../world/event-fields.js';
import { defineEvents, type EventData, type Speaker } from '../../world/events.js';
import { refusalWords, refusedFields } from './refusals.js';
import { PHASES } from './tables.js';

/** Why a cast or a channel broke. */
const BROKEN_BY = [
  'damage',
  'movement',
  'status',
  'state',
  'player',
  'requirement',
  'tooExpensive',
  'targetGone',
  'notATarget',
  'outOfRange',
  'outOfSight',
] as const;

const fields = { ability: entry('abilities') };
const patterns = ['ability'];
const see = { as: 'ability' } as const;
const nameOf = (data: EventData, speak: Speaker) => speak.label('abilities', data['ability']);
const small = (data: EventData, speak: Speaker) => nameOf(data, speak).toLowerCase();

/** What broke it, in words. */
function breakWords(data: EventData, speak: Speaker): string {
  const { reason, amount, status, state, attribute, needs, present, says } = data;
  switch (reason as (typeof BROKEN_BY)[number] | undefined) {
    case undefined:
      return '';
    case 'damage':
      return `by a loss of ${Math.round(Number(amount) * 10) / 10}`;
    case 'movement':
      return 'by moving';
    case 'status':
      return `by being ${speak.label('statuses', status).toLowerCase()}`;
    case 'state':
      return `by being ${speak.label('states', state).toLowerCase()}`;
    case 'player':
      return 'on purpose';
    case 'requirement':
      return `: ${says}`;
    case 'tooExpensive':
      return `: it needs ${needs} ${speak.label('attributes', attribute).toLowerCase()}, and there is ${Math.floor(Number(present) * 10) / 10}`;
    case 'targetGone':
      return ': whom it was for has gone';
    case 'notATarget':
      return ': it is not for this one any more';
    case 'outOfRange':
      return ': whom it was for is out of range';
    case 'outOfSight':
      return ': whom it was for is out of sight';
  }
}

export const events = defineEvents({
  castStarted: {
    label: 'a cast begins',
    when: 'A cast with a time of its own is under way; what is charged at the start is paid.',
    arises: { from: 'abilities', field: 'ability' },
    fields: { ...fields, ticks: amount() },
    patterns: [...patterns, 'ticks'],
    see,
    announced: true,
    sentence: (e, speak) => `${e.who} begins ${small(e.data, speak)}, for ${speak.time(Number(e.data['ticks']))}`,
  },
  castBroken: {
    label: 'a cast or a channel breaks',
    when: 'A cast or a channel has ended before its time; what that costs is paid.',
    arises: { from: 'abilities', field: 'ability' },
    fields: {
      ...fields,
      reason: word(BROKEN_BY, 'attribute', 'status', 'state', 'says'),
      phase: word(PHASES),
      ticks: amount(),
      attribute: entry('attributes'),
      amount: amount('attribute'),
      needs: amount('attribute'),
      present: amount('attribute'),
      status: entry('statuses'),
      state: entry('states'),
      // What keeps its user from it is written for its user.
      says: forSubject(text('status')),
      range: amount(),
      distance: amount(),
    },
    patterns: [...patterns, 'reason', 'phase', 'ticks'],
    see,
    announced: true,
    refusal: true,
    sentence: (e, speak) => {
      const words = breakWords(e.data, speak);
      return `${e.who}’s ${small(e.data, speak)} is broken${words === '' || words.startsWith(':') ? '' : ' '}${words}`;
    },
  },
  abilityUsed: {
    label: 'an ability is used',
    when: 'A cast is complete and paid, or an ability without one was begun; what it does is still to come.',
    arises: { from: 'abilities', field: 'ability' },
    fields,
    patterns,
    see,
    announced: true,
    sentence: (e, speak) => `${e.who} uses ${small(e.data, speak)}`,
  },
  channelPulsed: {
    label: 'a channel pulses',
    when: 'At each interval of a channel, before what it does.',
    arises: { from: 'abilities', field: 'ability' },
    fields,
    patterns,
    see,
    sentence: (e, speak) => `${e.who}’s ${small(e.data, speak)} pulses`,
  },
  channelEnded: {
    label: 'a channel runs to its end',
    when: 'A channel has lasted its whole length.',
    arises: { from: 'abilities', field: 'ability' },
    fields,
    patterns,
    see,
    announced: true,
    sentence: (e, speak) => `${e.who} ends ${small(e.data, speak)}`,
  },
  abilityHit: {
    label: 'an ability hits somebody',
    when: 'What an ability sent out has met somebody who counts; what it does there is still to come.',
    arises: { from: 'abilities', field: 'ability' },
    // It is its user's: whoever is hit may not know it.
    fields: { ability: entry('abilities', 'source') },
    patterns,
    see,
    announced: true,
    sentence: (e, speak) =>
      e.source === e.subject ? `${small(e.data, speak)} takes hold of ${e.who}` : `${e.by}’s ${small(e.data, speak)} hits ${e.who}`,
  },
  abilityMissed: {
    label: 'an ability hits nobody',
    when: 'A projectile has gone its way, or an area was over, without having met anybody.',
    arises: { from: 'abilities', field: 'ability' },
    fields,
    patterns,
    see,
    announced: true,
    sentence: (e, speak) => `${e.who}’s ${small(e.data, speak)} hits nobody`,
  },
  abilityRefused: {
    label: 'an ability is refused',
    when: 'A use was asked for and not begun; nothing was changed.',
    arises: { from: 'abilities', field: 'ability' },
    fields: { ...fields, ...refusedFields },
    patterns: [...patterns, 'reason'],
    see: 'owner',
    announced: true,
    refusal: true,
    sentence: refusalWords,
  },
});
