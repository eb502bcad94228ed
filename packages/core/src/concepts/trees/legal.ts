import type { Needs } from './schema.js';
import { type Refusal } from '../../world/refusal.js';

/** What has to be so for a node, with nodes by position. */
export interface NodeNeeds {
  readonly all: readonly Wanted[];
  readonly any: readonly Wanted[];
  /** The track and the level that has to have been reached on it; -1 for none. */
  readonly track: number;
  readonly level: number;
  readonly spent: number;
}

interface Wanted {
  readonly node: number;
  readonly rank: number;
}

/** A tree as its rules of spending see it. */
export interface Shape {
  readonly nodes: readonly { readonly ranks: number; readonly costs: readonly number[]; readonly needs: NodeNeeds }[];
  /** By node: those that can't be learned along with it. */
  readonly excludes: readonly (readonly number[])[];
}

/** What a spending is judged by beside its ranks: the points there are, and the highest level reached on a track. */
export interface Means {
  readonly earned: number;
  readonly reached: (track: number) => number;
}

/** Why a rank can't be learned, or be given back; each with what its words need. */
export type LearnRefusal =
  | Refusal<'full' | 'notLearned'>
  | Refusal<'excluded', { readonly node: number }>
  | Refusal<'level', { readonly track: number; readonly level: number }>
  | Refusal<'spent', { readonly points: number }>
  | Refusal<'needsAll' | 'needsAny', { readonly missing: readonly Wanted[] }>
  | Refusal<'points', { readonly cost: number; readonly free: number }>
  | Refusal<'restsOn', { readonly nodes: readonly number[] }>;

export function spentOn({ nodes }: Shape, ranks: readonly number[]): number {
  return nodes.reduce((sum, { costs }, i) => sum + costs.slice(0, ranks[i]).reduce((part, cost) => part + cost, 0), 0);
}

/** What is not met of a node's needs; the points that a rank costs are not looked at. */
function unmet({ nodes }: Shape, ranks: readonly number[], node: number, spent: number, means: Means): LearnRefusal | undefined {
  const { all, any, track, level, spent: points } = nodes[node].needs;
  const has = (wanted: Wanted) => ranks[wanted.node] >= wanted.rank;
  if (track >= 0 && means.reached(track) < level) return { reason: 'level', track, level };
  const missing = all.filter((one) => !has(one));
  if (missing.length > 0) return { reason: 'needsAll', missing };
  if (any.length > 0 && !any.some(has)) return { reason: 'needsAny', missing: any };
  return spent < points ? { reason: 'spent', points } : undefined;
}

/** What keeps the next rank of a node from being learned, the most lasting reason first; nothing where it can be. */
export function learnRefusal(shape: Shape, ranks: readonly number[], node: number, means: Means): LearnRefusal | undefined {
  const { costs, ranks: most } = shape.nodes[node];
  if (ranks[node] >= most) return { reason: 'full' };
  const other = shape.excludes[node].find((one) => ranks[one] > 0);
  if (other !== undefined) return { reason: 'excluded', node: other };
  const spent = spentOn(shape, ranks);
  const missing = ranks[node] === 0 ? unmet(shape, ranks, node, spent, means) : undefined;
  if (missing) return missing;
  const free = means.earned - spent;
  const cost = costs[ranks[node]];
  return cost > free ? { reason: 'points', cost, free } : undefined;
}

/**
 * The largest part of a spending that is legal: one that can be learned rank by rank, each with its needs met at the time and
 * within the points there are. Needs only ever become met by learning more, so learning what can be learned in the order of
 * the nodes, again and again, comes to the largest. A legal spending comes to itself.
 */
export function legalPart(shape: Shape, ranks: readonly number[], means: Means): readonly number[] {
  const learned = shape.nodes.map(() => 0);
  const wanted = shape.nodes.map(({ ranks: most }, i) => Math.max(0, Math.min(most, Math.floor(ranks[i] ?? 0))));
  for (let grew = true; grew;) {
    grew = false;
    for (let node = 0; node < wanted.length; node++)
      while (learned[node] < wanted[node] && learnRefusal(shape, learned, node, means) === undefined) {
        learned[node]++;
        grew = true;
      }
  }
  return learned;
}

export function isLegal(shape: Shape, ranks: readonly number[], means: Means): boolean {
  const part = legalPart(shape, ranks, means);
  return ranks.every((rank, i) => part[i] === rank);
}

/** What keeps the last rank of a node from being given back: those that would not be legal without it. */
export function returnRefusal(shape: Shape, ranks: readonly number[], node: number, means: Means): LearnRefusal | undefined {
  if (ranks[node] === 0) return { reason: 'notLearned' };
  const without = ranks.map((rank, i) => (i === node ? rank - 1 : rank));
  const part = legalPart(shape, without, means);
  const nodes = without.flatMap((rank, i) => (part[i] < rank ? [i] : []));
  return nodes.length === 0 ? undefined : { reason: 'restsOn', nodes };
}

/** The needs as their author wrote them, with nodes by position; what names none is left out. */
export function needsByPosition(needs: Needs | undefined, ids: readonly string[], trackOf: (id: string) => number): NodeNeeds {
  const wanted = (list: Needs['all']) =>
    (list ?? []).flatMap(({ node, rank = 1 }) => (ids.includes(node) ? [{ node: ids.indexOf(node), rank }] : []));
  return {
    all: wanted(needs?.all),
    any: wanted(needs?.any),
    track: needs?.level ? trackOf(needs.level.track) : -1,
    level: needs?.level?.at ?? 0,
    spent: needs?.spent ?? 0,
  };
}
