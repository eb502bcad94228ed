import { z } from 'zod';
import { amount, type AmountSource, reference } from '../../ruleset/fields.js';
import { pointer, type Problem } from '../../ruleset/problem.js';
import { movedPositions, type Rules } from '../../ruleset/rules.js';
import { defineConcept } from '../../world/concept.js';
import type { ColumnSpec } from '../../world/columns.js';
import type { SavedPlayer } from '../../world/players.js';
import type { World } from '../../world/world.js';
import { endEffect, instancesOf } from '../effects/index.js';
import { tracks, tracksTable } from '../tracks/index.js';
import { type CompiledTrees, compileTrees } from './compile.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { legalPart, spentOn } from './legal.js';
import { schema } from './schema.js';
import { treesTable } from './tables.js';
import { giveAgain, givePoints, learn, makeLegal, respec, tellBack, unlearn } from './spending.js';
import { isTold } from '../../ruleset/visible.js';
import { trees } from './state.js';

export { trees } from './state.js';
export { type Tree, type Node as TreeNode } from './compile.js';
export { type Hindrance, hindrance, hindranceBack, isLegal, legalPart, type Means, needsByPosition, type Shape, spentOn } from './legal.js';
export { LOCALS as NODE_LOCALS, MOST_NODES, MOST_RANKS, type Needs, type NodeEntry, RESPECS, type TreeEntry } from './schema.js';
export { givePoints, meansOf, ranksOf } from './spending.js';
export { renameNode } from './rename.js';
export { hindranceWords } from './words.js';

const names = { tree: z.string().max(48), node: z.string().max(48) };

/** Skill trees: points that players spend on nodes, and what those give. A spending is legal at every moment. */
export const treesConcept = defineConcept(trees, {
  sections: { trees: { kind: 'chapter', title: 'Skills', entry: schema } },
  compile: compileTrees,
  tables: ({ entries, players }) => [treesTable.under(entries, { present: { column: 'type', of: players } })],
  attach: (world, compiled) => ({ ...compiled, cells: treesTable.columnsIn(world, compiled.entries) }),
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
      if (!players[world.actors.cells.type[row]]) return;
      for (const { index, points } of list) cells[index].earned.data[row] = points;
    },
    playerLoaded: makeLegal,
    rulesAdopted: (world, before) => {
      endFormerEffects(world, before);
      world.actors.each((row) => makeLegal(world, row));
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
function savedSpending({ list, entries }: CompiledTrees, saved: SavedPlayer, rules: Rules): readonly Problem[] {
  const cells = saved[treesTable.name] ?? {};
  const levels = saved[tracksTable.name] ?? {};
  const peaks = tracksTable.shapes(tracks.of(rules).entries);
  const shapes = treesTable.shapes(entries);
  return list.flatMap((tree, t): readonly Problem[] => {
    const { nodes, ...own } = shapes[t];
    const number = ({ name }: ColumnSpec) => Number(cells[name] ?? 0);
    const ranks = nodes.map(({ rank }) => number(rank));
    const spent = spentOn(tree, ranks);
    const earned = Number(cells[own.earned.name] ?? tree.points);
    const path = ({ name }: ColumnSpec) => pointer([treesTable.name, name]);
    if (spent > earned)
      return [{ path: path(own.earned), message: `${tree.label}: the ranks cost ${spent}, and ${earned} points were earned.` }];
    if (cells[own.spent.name] !== undefined && number(own.spent) !== spent)
      return [{ path: path(own.spent), message: `${tree.label}: the ranks cost ${spent}, and not ${number(own.spent)}.` }];
    const reached = (track: number) => Number(levels[peaks[track]?.peak.name ?? ''] ?? 1);
    const legal = legalPart(tree, ranks, { earned, reached });
    return tree.nodes.flatMap(({ label }, i) =>
      legal[i] === ranks[i]
        ? []
        : [{ path: path(nodes[i].rank), message: `${label} cannot have rank ${ranks[i]}: something that it needs is missing.` }],
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
      const applied = was.cells[t].nodes[i].on.data;
      for (let row = 0; row < world.actors.high; row++) {
        if (world.actors.live[row] === 0 || !(applied[row] > 0)) continue;
        if (effect >= 0) for (const at of instancesOf(world, world.actors.handle(row), effect)) endEffect(world, at, 'removed');
        if (k >= 0) now.cells[treesNow[t]].nodes[k].on.data[row] = 0;
      }
    }),
  );
}
