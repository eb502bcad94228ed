import { roundTo } from '../../math/grid.js';
import { amount, entry } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

const see = { as: 'track' } as const;
const track = entry('tracks');
const number = amount('track');
const shown = (value: unknown) => String(roundTo(Number(value), 1));

export const events = defineEvents({
  experienceGained: {
    label: 'experience is gained',
    when: 'What was earned is counted; the levels that it reaches are still to come.',
    fields: { track, asked: number, given: number, lost: number, level: number },
    patterns: ['track', 'asked', 'given', 'lost', 'level'],
    arises: { from: 'tracks', field: 'track' },
    see,
    sentence: (e, speak) => {
      const { given, lost } = e.data;
      const over = Number(lost) === 0 ? '' : `, ${shown(lost)} lost over the top`;
      return `${e.who} gains ${shown(given)} ${speak.label('tracks', e.data['track']).toLowerCase()}${over}`;
    },
  },
  experienceLost: {
    label: 'experience is lost',
    when: 'What a fall costs is taken, levels included.',
    fields: { track, lost: number, level: number },
    patterns: ['track', 'lost', 'level'],
    arises: { from: 'tracks', field: 'track' },
    see,
    announced: true,
    sentence: (e, speak) => `${e.who} loses ${shown(e.data['lost'])} ${speak.label('tracks', e.data['track']).toLowerCase()}`,
  },
  levelReached: {
    label: 'a level is reached',
    when: 'The level counts, with its points and what grows with it; what else follows from it is still to come. One for each level.',
    fields: { track, level: number },
    patterns: ['track', 'level'],
    arises: { from: 'tracks', field: 'track' },
    see,
    announced: true,
    sentence: (e, speak) => `${e.who} reaches ${speak.label('tracks', e.data['track']).toLowerCase()} ${e.data['level']}`,
  },
});
