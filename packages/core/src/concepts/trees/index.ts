import { z } from 'zod';
import { amount, type AmountSource, reference } from '../../ruleset/fields.js';
import { pointer, type Problem } from '../../ruleset/problem.js';
import { movedPositions, type Rules } from '../../ruleset/rules.js';
import { type Concept, defineConcept } from '../../world/concept.js';
import type { SavedPlayer } from '../../world/players.js';
import type { PerEntry, TableSpec } from '../../world/columns.js';
import type { Column } from '../../world/table.js';
import type { World } from '../../world/world.js';
import { endEffect, instancesOf } from '../effects/index.js';
import { peakColumn } from '../tracks/index.js';
import { type CompiledTrees, compileTrees } from './compile.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { legalPart, spentOn } from './legal.js';
import { schema } from './schema.js';
import { giveAgain, givePoints, learn, makeLegal, respec, tellBack, unlearn } from './spending.js';
import { isTold } from '../../ruleset/visible.js';

export { type Tree, type Node as TreeNode } from './compile.js';
export { type Hindrance, hindrance, hindranceBack, isLegal, legalPart, type Means, needsByPosition, type Shape, spentOn } from './legal.js';
export { LOCALS as NODE_LOCALS, MOST_NODES, MOST_RANKS, type Needs, type NodeEntry, RESPECS, type TreeEntry } from './schema.js';
export { givePoints, meansOf, ranksOf } from './spending.js';
export { renameNode } from './rename.js';
export { hindranceWords } from './words.js';

interface Trees extends CompiledTrees {
  readonly cells: readonly {
    readonly earned: Column;
    /** What its ranks have cost: told to seats, and kept, so that an edit which gives points back is noticed. */
    readonly spent: Column;
    readonly ranks: readonly Column[];
    /** Points that came back by an edit, and are still to be told. */
    readonly back: Column;
    /** How many ranks' effects are on. */
    readonly on: readonly Column[];
  }[];
}

/** Names of a tree's columns. A dot is no part of an id. */
const columnsOf = {
  earned: (tree: string) => tree,
  spent: (tree: string) => `${tree}.spent`,
  back: (tree: string) => `${tree}.back`,
  rank: (tree: string, node: string) => `${tree}.${node}.rank`,
  on: (tree: string, node: string) => `${tree}.${node}.on`,
};

function treeTables({ entries, players }: CompiledTrees): readonly TableSpec[] {
  const present: PerEntry<boolean> = { column: 'type', of: players };
  return [
    {
      name: 'trees',
      title: 'Skills',
      extends: 'actors',
      columns: entries.flatMap(({ id, label, see, nodes, formerly = [] }) => {
        const column = (name: (tree: string) => string, saved = true, others: readonly string[] = []) => ({
          name: name(id),
          kind: 'int' as const,
          see: saved ? see : ('server' as const),
          ...(saved && { saved: true }),
          present,
          formerly: [...formerly.map(name), ...others],
        });
        /** What a node's column was called when the node, or the tree as well, had another id. */
        const before = (name: (tree: string, node: string) => string, olds: readonly string[] = []) =>
          olds.flatMap((old) => [id, ...formerly].map((tree) => name(tree, old)));
        return [
          { ...column(columnsOf.earned), label: `${label}, points earned`, range: [0, 100_000] as const },
          { ...column(columnsOf.spent), label: `${label}, points spent`, range: [0, 100_000] as const },
          column(columnsOf.back, false),
          ...nodes.flatMap((node) => [
            {
              ...column((tree) => columnsOf.rank(tree, node.id), true, before(columnsOf.rank, node.formerly)),
              label: `${node.label}, ranks`,
              range: [0, node.ranks] as const,
            },
            column((tree) => columnsOf.on(tree, node.id), false, before(columnsOf.on, node.formerly)),
          ]),
        ];
      }),
    },
  ];
}

const names = { tree: z.string().max(48), node: z.string().max(48) };

/** Skill trees: points that players spend on nodes, and what those give. A spending is legal at every moment. */
export const trees: Concept<CompiledTrees, Trees> = defineConcept<CompiledTrees, Trees>({
  id: 'trees',
  sections: { trees: { kind: 'chapter', title: 'Skills', entry: schema } },
  compile: compileTrees,
  tables: treeTables,
  attach: (world, compiled) => {
    const table = world.table('trees');
    return {
      ...compiled,
      cells: compiled.list.map(({ id, nodes }) => ({
        earned: table.column(columnsOf.earned(id)),
        spent: table.column(columnsOf.spent(id)),
        back: table.column(columnsOf.back(id)),
        ranks: nodes.map((node) => table.column(columnsOf.rank(id, node.id))),
        on: nodes.map((node) => table.column(columnsOf.on(id, node.id))),
      })),
    };
  },
  events,
  actions: {
    givePoints: {
      label: 'give points of a skill tree',
      sentence: 'give {amount} points of {tree} to {to}',
      causes: ({ tree }) => [{ event: 'pointsGained', fields: { tree } }],
      args: { tree: reference('trees'), amount: amount(['source', 'target']) },
      compile: (args, context, path) => {
        const tree = context.index('trees', String(args['tree']));
        const by = context.amount(args['amount'] as AmountSource, [...path, 'amount'], ['source', 'target']);
        return (world, actor, parties) => givePoints(world, actor, tree, by.run(world, { ...parties, owner: actor }));
      },
    },
  },
  inputs: {
    learn: { args: names, traced: true, run: (world, actor, { tree, node }) => learn(world, actor, String(tree), String(node)) },
    unlearn: { args: names, traced: true, run: (world, actor, { tree, node }) => unlearn(world, actor, String(tree), String(node)) },
    respec: { args: { tree: names.tree }, traced: true, run: (world, actor, { tree }) => respec(world, actor, String(tree)) },
  },
  findings,
  lifecycle: {
    actorSpawned: (world, row) => {
      const { list, cells, players } = trees.in(world);
      if (!players[world.actors.column('type').data[row]]) return;
      for (const { index, points } of list) cells[index].earned.data[row] = points;
    },
    playerLoaded: makeLegal,
    rulesAdopted: (world, before) => {
      endFormerEffects(world, before);
      for (let row = 0; row < world.actors.high; row++) if (world.actors.live[row] === 1) makeLegal(world, row);
    },
  },
  checkSaved: savedSpending,
  timers: { tell: tellBack },
  listeners: { actorReturned: (world, event) => giveAgain(world, event.subject) },
  display: ({ entries, list }, rules) =>
    entries
      .map((entry, i) => ({ entry, tree: list[i] }))
      .filter(({ entry }) => entry.see !== 'server')
      .map(({ entry, tree }) => ({
        id: entry.id,
        label: entry.label,
        see: entry.see,
        how: entry.respec.how,
        ...(tree.price?.amount.constant !== undefined &&
          isTold(rules, 'attributes', tree.price.id) && { price: { attribute: tree.price.id, amount: tree.price.amount.constant } }),
        tracks: (rules.chapters.get('tracks')?.ids ?? []).map((id) => (isTold(rules, 'tracks', id) ? id : '')),
        excludes: tree.excludes,
        nodes: entry.nodes.map(({ id, label, note = '', x, y }, i) => ({
          id,
          label,
          note,
          x,
          y,
          ranks: tree.nodes[i].ranks,
          costs: tree.nodes[i].costs,
          needs: tree.nodes[i].needs,
        })),
      })),
});

/** Spendings that the rules do not allow, in what is said to be kept of a player. */
function savedSpending({ list }: CompiledTrees, saved: SavedPlayer, rules: Rules): readonly Problem[] {
  const cells = saved['trees'] ?? {};
  const levels = saved['tracks'] ?? {};
  return list.flatMap((tree): readonly Problem[] => {
    const number = (name: string) => Number(cells[name] ?? 0);
    const ranks = tree.nodes.map(({ id }) => number(columnsOf.rank(tree.id, id)));
    const spent = spentOn(tree, ranks);
    const earned = Number(cells[tree.id] ?? tree.points);
    const path = (name: string) => pointer(['trees', name]);
    if (spent > earned)
      return [{ path: path(tree.id), message: `${tree.label}: the ranks cost ${spent}, and ${earned} points were earned.` }];
    if (cells[columnsOf.spent(tree.id)] !== undefined && number(columnsOf.spent(tree.id)) !== spent)
      return [
        {
          path: path(columnsOf.spent(tree.id)),
          message: `${tree.label}: the ranks cost ${spent}, and not ${number(columnsOf.spent(tree.id))}.`,
        },
      ];
    const reached = (track: number) => Number(levels[peakColumn(rules.chapters.get('tracks')?.ids[track] ?? '')] ?? 1);
    const legal = legalPart(tree, ranks, { earned, reached });
    return tree.nodes.flatMap(({ id, label }, i) =>
      legal[i] === ranks[i]
        ? []
        : [
            {
              path: path(columnsOf.rank(tree.id, id)),
              message: `${label} cannot have rank ${ranks[i]}: something that it needs is missing.`,
            },
          ],
    );
  });
}

/** Effects that a node gave before an edit and gives no more are off, so that what it gives now can come on. */
function endFormerEffects(world: World, before: World): void {
  const was = trees.in(before);
  const now = trees.in(world);
  const effectsNow = movedPositions(before.rules, world.rules, 'effects');
  const treesNow = movedPositions(before.rules, world.rules, 'trees');
  was.list.forEach((tree, t) =>
    tree.nodes.forEach((node, i) => {
      if (node.effect < 0) return;
      const successor = now.list[treesNow[t]];
      const k = successor?.nodes.findIndex(({ id }) => id === node.id) ?? -1;
      const effect = effectsNow[node.effect] ?? -1;
      if (k >= 0 && effect >= 0 && successor.nodes[k].effect === effect) return;
      const applied = was.cells[t].on[i].data;
      for (let row = 0; row < world.actors.high; row++) {
        if (world.actors.live[row] === 0 || !(applied[row] > 0)) continue;
        if (effect >= 0) for (const at of instancesOf(world, world.actors.handle(row), effect)) endEffect(world, at, 'removed');
        if (k >= 0) now.cells[treesNow[t]].on[k].data[row] = 0;
      }
    }),
  );
}
