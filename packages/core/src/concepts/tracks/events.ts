import { roundTo } from '../../math/grid.js';
import type { EventData, EventSpec } from '../../world/events.js';
import type { Visibility } from '../../world/table.js';

const seenAsTrack = (data: EventData, seeEntry: (chapter: string, id: string) => Visibility) => seeEntry('tracks', String(data['track']));
const shown = (value: unknown) => String(roundTo(Number(value), 1));

export const events: Readonly<Record<string, EventSpec>> = {
  experienceGained: {
    label: 'experience is gained',
    when: 'What was earned is counted; the levels that it reaches are still to come.',
    carries: { entries: { track: 'tracks' }, amounts: ['asked', 'given', 'lost', 'level'] },
    arises: { from: 'tracks', field: 'track' },
    see: seenAsTrack,
    sentence: (e, speak) => {
      const { track, given, lost } = e.data;
      const over = Number(lost) === 0 ? '' : `, ${shown(lost)} lost over the top`;
      return `${e.who} gains ${shown(given)} ${speak.label('tracks', String(track)).toLowerCase()}${over}`;
    },
  },
  experienceLost: {
    label: 'experience is lost',
    when: 'What a fall costs is taken, levels included.',
    carries: { entries: { track: 'tracks' }, amounts: ['lost', 'level'] },
    arises: { from: 'tracks', field: 'track' },
    see: seenAsTrack,
    announced: true,
    sentence: (e, speak) => `${e.who} loses ${shown(e.data['lost'])} ${speak.label('tracks', String(e.data['track'])).toLowerCase()}`,
  },
  levelReached: {
    label: 'a level is reached',
    when: 'The level counts, with its points and what grows with it; what else follows from it is still to come. One for each level.',
    carries: { entries: { track: 'tracks' }, amounts: ['level'] },
    arises: { from: 'tracks', field: 'track' },
    see: seenAsTrack,
    announced: true,
    sentence: (e, speak) => `${e.who} reaches ${speak.label('tracks', String(e.data['track'])).toLowerCase()} ${e.data['level']}`,
  },
};
