import { amount, entry, text, word } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

/** Why a rank can't be learned or given back, or points don't come back. */
const LEARN_REFUSALS = [
  'unknown',
  'full',
  'excluded',
  'level',
  'spent',
  'needsAll',
  'needsAny',
  'points',
  'notLearned',
  'restsOn',
  'free',
  'paid',
  'never',
  'tooExpensive',
] as const;
export type LearnRefused = (typeof LEARN_REFUSALS)[number];

const tree = entry('trees');
const see = { as: 'tree' } as const;
const patterns = ['tree', 'rank', 'points'];
const fields = { tree, node: text('tree'), label: text('tree'), rank: amount('tree'), points: amount('tree') };
const points = (count: unknown) => `${count} ${count === 1 ? 'point' : 'points'}`;

export const events = defineEvents({
  pointsGained: {
    label: 'points are gained',
    when: 'Points can be spent in a skill tree.',
    fields,
    patterns,
    see,
    announced: true,
    sentence: (e, speak) => `${e.who} has ${points(e.data['points'])} more for ${speak.label('trees', e.data['tree'])}`,
  },
  nodeLearned: {
    label: 'a node is learned',
    when: 'A rank is learned and paid for, and what it gives is there.',
    fields,
    patterns,
    arises: { from: 'trees', field: 'tree' },
    part: 'node',
    see,
    announced: true,
    sentence: (e) => `${e.who} learns ${e.data['label']}${Number(e.data['rank']) > 1 ? `, rank ${e.data['rank']}` : ''}`,
  },
  nodeForgotten: {
    label: 'a node is given back',
    when: 'A rank is given back: its points are free, and what it gave is gone.',
    fields,
    patterns,
    arises: { from: 'trees', field: 'tree' },
    see,
    announced: true,
    sentence: (e) => `${e.who} gives ${e.data['label']} back`,
  },
  pointsReturned: {
    label: 'points come back',
    when: 'All points of a tree came back at once, or those of what edited rules no longer allow.',
    fields: { ...fields, why: word(['edit', 'respec']), nodes: text('tree') },
    patterns,
    arises: { from: 'trees', field: 'tree' },
    see,
    announced: true,
    sentence: (e, speak) => {
      const label = speak.label('trees', e.data['tree']);
      const why = e.data['why'] === 'edit' ? `${label} has changed: ` : '';
      return `${why}${e.who} gets ${points(e.data['points'])} of ${label} back${e.data['nodes'] === '' ? '' : ` (${e.data['nodes']})`}`;
    },
  },
  learnRefused: {
    label: 'learning is refused',
    when: 'A rank was to be learned or given back and something stands against it; nothing was changed.',
    fields: {
      tree,
      node: text('tree'),
      reason: word(LEARN_REFUSALS, 'tree', 'track', 'attribute'),
      says: text('tree', 'track', 'attribute'),
      track: entry('tracks'),
      attribute: entry('attributes'),
    },
    see: 'owner',
    announced: true,
    refusal: true,
    sentence: ({ data }) =>
      data['tree'] === undefined ? 'You have no such skill tree.' : String(data['says'] ?? 'This can’t be learned just now.'),
  },
});
