import { columnNames, defineEntryTable } from '../../world/entry-table.js';
import type { TreeEntry } from './schema.js';

type NodeEntry = TreeEntry['nodes'][number];

/** Names of a tree's columns. A dot is no part of an id. */
const spent = (tree: string) => `${tree}.spent`;
const back = (tree: string) => `${tree}.back`;
const rank = (tree: string, node: string) => `${tree}.${node}.rank`;
const on = (tree: string, node: string) => `${tree}.${node}.on`;

/** Names of a node's column, now and before: the node, or the tree as well, may have had another id. */
function nodeNames(tree: TreeEntry, node: NodeEntry, name: (tree: string, node: string) => string) {
  const { name: now, formerly = [] } = columnNames(tree, (id) => name(id, node.id));
  const before = (node.formerly ?? []).flatMap((old) => [tree.id, ...(tree.formerly ?? [])].map((id) => name(id, old)));
  return { name: now, formerly: [...formerly, ...before] };
}

export const treesTable = defineEntryTable({
  name: 'trees',
  title: 'Skills',
  extends: 'actors',
  parts: ['spent', 'rank'],
  columns: (tree: TreeEntry) => {
    const { label, see, nodes } = tree;
    const kept = { kind: 'int', see, saved: true } as const;
    const own = { kind: 'int', see: 'server' } as const;
    return {
      earned: { ...kept, ...columnNames(tree), label: `${label}, points earned`, range: [0, 100_000] },
      /** What its ranks have cost: told to seats, and kept, so that an edit which gives points back is noticed. */
      spent: { ...kept, ...columnNames(tree, spent), label: `${label}, points spent`, range: [0, 100_000] },
      /** Points that came back by an edit, and are still to be told. */
      back: { ...own, ...columnNames(tree, back) },
      nodes: nodes.map((node) => ({
        rank: { ...kept, ...nodeNames(tree, node, rank), label: `${node.label}, ranks`, range: [0, node.ranks] as const },
        /** How many ranks' effects are on. */
        on: { ...own, ...nodeNames(tree, node, on) },
      })),
    };
  },
});
