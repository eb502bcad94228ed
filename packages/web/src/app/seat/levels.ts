import {
  type Copy,
  learnRefusal,
  returnRefusal,
  learnRefusalWords,
  type Means,
  partName,
  type Shape,
  spentOn,
  tracksTable,
  treesTable,
} from '@eager-ember/core';
import { displayOf } from './display';

/** A level track of an actor, as far as its copy was told. */
export interface LevelView {
  readonly id: string;
  readonly label: string;
  readonly level: number;
  /** Towards the next level. */
  readonly have: number;
  readonly need: number;
  /** 0 to 1. */
  readonly share: number;
  readonly text: string;
}

/** A skill tree of an actor, with what can be done about each node. */
export interface TreeView {
  readonly id: string;
  readonly label: string;
  readonly free: number;
  readonly spent: number;
  /** Words for giving everything back; nothing where that is not done. */
  readonly respec: string;
  readonly nodes: readonly {
    readonly id: string;
    readonly label: string;
    readonly note: string;
    readonly rank: number;
    readonly ranks: number;
    readonly cost: number;
    readonly locked: string;
    readonly held: string;
  }[];
}

export interface LevelsView {
  readonly levels: readonly LevelView[];
  readonly trees: readonly TreeView[];
}

/** Reads an actor's levels and skill trees from a copy: only what the copy was told. */
export function levelsOf(copy: Copy, row: number): LevelsView {
  const { tracks = [], trees = [], attributes } = displayOf(copy.schema);
  const [reached, learned] = [copy.entries(tracksTable), copy.entries(treesTable)];
  const levels = tracks.flatMap(({ id, label, levels: top, needs }): readonly LevelView[] => {
    const level = reached.value(row, id, 'level');
    if (level === undefined || level < 1) return [];
    const have = reached.value(row, id) ?? 0;
    const need = level < top ? (needs[level - 1] ?? 0) : 0;
    const share = need > 0 ? Math.min(1, have / need) : 1;
    return [{ id, label, level, have, need, share, text: need > 0 ? `${Math.floor(have)} of ${Math.ceil(need)}` : 'the top' }];
  });
  return {
    levels,
    trees: trees.flatMap((tree): readonly TreeView[] => {
      const earned = learned.value(row, tree.id);
      if (earned === undefined) return [];
      const ranks = tree.nodes.map((node) => learned.value(row, partName(tree.id, node.id), 'rank') ?? 0);
      const shape: Shape = tree;
      const means: Means = { earned, reached: (track) => reached.value(row, tree.tracks[track], 'peak') ?? 0 };
      const speak = { label: (_: string, id: string) => tracks.find((track) => track.id === id)?.label ?? id };
      const words = (node: number, why: ReturnType<typeof learnRefusal>) =>
        why === undefined ? '' : learnRefusalWords(tree.nodes, tree.tracks, node, why, speak);
      const price =
        tree.price &&
        `${tree.price.amount} ${attributes.find(({ id }) => id === tree.price!.attribute)?.label.toLowerCase() ?? tree.price.attribute}`;
      const spent = spentOn(shape, ranks);
      return [
        {
          id: tree.id,
          label: tree.label,
          free: earned - spent,
          spent,
          respec: tree.how === 'never' ? '' : tree.how === 'paid' ? `give all back, ${price ?? 'for a price'}` : 'give all back',
          nodes: tree.nodes.map((node, i) => ({
            id: node.id,
            label: node.label,
            note: node.note,
            rank: ranks[i],
            ranks: node.ranks,
            cost: node.costs[ranks[i]] ?? 0,
            locked: words(i, learnRefusal(shape, ranks, i, means)),
            held: tree.how === 'free' ? words(i, returnRefusal(shape, ranks, i, means)) : 'not one by one',
          })),
        },
      ];
    }),
  };
}
