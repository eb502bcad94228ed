import type { Speaker } from '../../world/events.js';
import type { LearnRefusal } from './legal.js';

const listed = (names: readonly string[], word: string) =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} ${word} ${names.at(-1)}`;

/** Why a rank can't be learned or given back, in words a player can act on. */
export function learnRefusalWords(
  nodes: readonly { readonly label: string }[],
  trackIds: readonly string[],
  node: number,
  why: LearnRefusal,
  speak: Pick<Speaker, 'label'>,
): string {
  const { label } = nodes[node];
  const wanted = (missing: readonly { readonly node: number; readonly rank: number }[], word: string) =>
    listed(
      missing.map(({ node: other, rank }) => `${nodes[other].label}${rank > 1 ? ` at rank ${rank}` : ''}`),
      word,
    );
  switch (why.reason) {
    case 'full':
      return `${label} is learned to its last rank.`;
    case 'excluded':
      return `${label} can’t be learned along with ${nodes[why.node].label}.`;
    case 'level':
      return `${label} needs ${speak.label('tracks', trackIds[why.track]).toLowerCase()} ${why.level}.`;
    case 'spent':
      return `${label} needs ${why.points} ${why.points === 1 ? 'point' : 'points'} spent here before.`;
    case 'needsAll':
      return `${label} needs ${wanted(why.missing, 'and')} first.`;
    case 'needsAny':
      return `${label} needs ${wanted(why.missing, 'or')} first.`;
    case 'points':
      return `${label} takes ${why.cost} ${why.cost === 1 ? 'point' : 'points'}, and ${why.free === 0 ? 'none is' : `${why.free} ${why.free === 1 ? 'is' : 'are'}`} free.`;
    case 'notLearned':
      return `${label} is not learned.`;
    case 'restsOn':
      return `${listed(
        why.nodes.map((other) => nodes[other].label),
        'and',
      )} ${why.nodes.length === 1 ? 'rests' : 'rest'} on ${label}: give ${why.nodes.length === 1 ? 'that' : 'those'} back first.`;
  }
}
