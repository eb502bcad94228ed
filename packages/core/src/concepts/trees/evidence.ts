import { learnRefusal, returnRefusal, legalPart, type Means, spentOn } from './legal.js';
import { learnRefusalWords } from './words.js';
import { trees } from './state.js';
import { speakerOf } from '../../replication/speaker.js';
import type { Rules } from '../../ruleset/rules.js';

/** A tree as somebody who walks it sees it. */
export interface TreeWalk {
  readonly spent: number;
  readonly free: number;
  /** What the whole tree takes. */
  readonly whole: number;
  readonly nodes: readonly {
    readonly id: string;
    readonly rank: number;
    readonly ranks: number;
    readonly cost: number;
    /** Why its next rank can't be learned; none where it can. */
    readonly locked?: string;
    /** Why its last rank can't be given back; none where it can. */
    readonly held?: string;
  }[];
}

/**
 * How a tree stands with so many points, a level reached on every track, and these ranks by node; ranks that the rules do
 * not allow are left out.
 */
export function walkTree(
  rules: Rules,
  id: string,
  ranks: Readonly<Record<string, number>>,
  points: number,
  level: number,
): TreeWalk | undefined {
  const tree = trees.of(rules).list.find((one) => one.id === id);
  if (!tree) return undefined;
  const means: Means = { earned: points, reached: () => level };
  const learned = legalPart(
    tree,
    tree.nodes.map((node) => ranks[node.id] ?? 0),
    means,
  );
  const say = (node: number, why: ReturnType<typeof learnRefusal>) =>
    why && learnRefusalWords(tree.nodes, rules.chapters.get('tracks')?.ids ?? [], node, why, speakerOf(rules));
  const spent = spentOn(tree, learned);
  return {
    spent,
    free: points - spent,
    whole: spentOn(
      tree,
      tree.nodes.map((node) => node.ranks),
    ),
    nodes: tree.nodes.map((node, i) => {
      const locked = say(i, learnRefusal(tree, learned, i, means));
      const held = say(i, returnRefusal(tree, learned, i, means));
      return {
        id: node.id,
        rank: learned[i],
        ranks: node.ranks,
        cost: node.costs[learned[i]] ?? 0,
        ...(locked !== undefined && { locked }),
        ...(held !== undefined && { held }),
      };
    }),
  };
}
