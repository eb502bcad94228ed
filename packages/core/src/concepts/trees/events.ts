import type { EventData, EventSpec } from '../../world/events.js';
import type { Visibility } from '../../world/table.js';

const carries = { entries: { tree: 'trees' }, amounts: ['rank', 'points'] };
const seenAsTree = (data: EventData, seeEntry: (chapter: string, id: string) => Visibility) => seeEntry('trees', String(data['tree']));
const points = (count: unknown) => `${count} ${count === 1 ? 'point' : 'points'}`;

export const events: Readonly<Record<string, EventSpec>> = {
  pointsGained: {
    label: 'points are gained',
    when: 'Points can be spent in a skill tree.',
    carries,
    see: seenAsTree,
    announced: true,
    sentence: (e, speak) => `${e.who} has ${points(e.data['points'])} more for ${speak.label('trees', String(e.data['tree']))}`,
  },
  nodeLearned: {
    label: 'a node is learned',
    when: 'A rank is learned and paid for, and what it gives is there.',
    carries,
    arises: { from: 'trees', field: 'tree' },
    see: seenAsTree,
    announced: true,
    sentence: (e) => `${e.who} learns ${e.data['label']}${Number(e.data['rank']) > 1 ? `, rank ${e.data['rank']}` : ''}`,
  },
  nodeForgotten: {
    label: 'a node is given back',
    when: 'A rank is given back: its points are free, and what it gave is gone.',
    carries,
    arises: { from: 'trees', field: 'tree' },
    see: seenAsTree,
    announced: true,
    sentence: (e) => `${e.who} gives ${e.data['label']} back`,
  },
  pointsReturned: {
    label: 'points come back',
    when: 'All points of a tree came back at once, or those of what edited rules no longer allow.',
    carries,
    arises: { from: 'trees', field: 'tree' },
    see: seenAsTree,
    announced: true,
    sentence: (e, speak) => {
      const label = speak.label('trees', String(e.data['tree']));
      const why = e.data['why'] === 'edit' ? `${label} has changed: ` : '';
      return `${why}${e.who} gets ${points(e.data['points'])} of ${label} back${e.data['nodes'] === '' ? '' : ` (${e.data['nodes']})`}`;
    },
  },
  learnRefused: {
    label: 'learning is refused',
    when: 'A rank was to be learned or given back and something stands against it; nothing was changed.',
    see: 'owner',
    announced: true,
    refusal: true,
    sentence: (e) => String(e.data['says']),
  },
};
