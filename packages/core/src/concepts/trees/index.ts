import { amount, type AmountSource, reference } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import { defineConcept } from '../../world/concept.js';
import { compileTrees } from './compile.js';
import { inputs } from './inputs.js';
import { invariants } from './invariants.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { schema, treeChapter } from './schema.js';
import { treesTable } from './tables.js';
import { giveAgain, givePoints, makeLegal, tellBack } from './spending.js';
import { isTold } from '../../ruleset/visible.js';
import { trees } from './state.js';
import { endFormerEffects, savedSpending } from './system.js';

export { trees } from './state.js';
export { type Tree, type Node as TreeNode } from './compile.js';
export {
  type LearnRefusal,
  learnRefusal,
  returnRefusal,
  isLegal,
  legalPart,
  type Means,
  needsByPosition,
  type Shape,
  spentOn,
} from './legal.js';
export { LOCALS as NODE_LOCALS, MOST_NODES, MOST_RANKS, type Needs, type NodeEntry, RESPECS, type TreeEntry } from './schema.js';
export { givePoints, meansOf, ranksOf } from './spending.js';
export { renameNode } from './rename.js';
export { learnRefusalWords } from './words.js';

/** Skill trees: points that players spend on nodes, and what those give. A spending is legal at every moment. */
export const treesConcept = defineConcept(trees, {
  sections: {
    trees: {
      kind: 'chapter',
      title: 'Skills',
      entry: schema,
      parts: (rules, tree) =>
        (treeChapter.find(rules, tree)?.nodes ?? []).map(({ id }) => ({ at: `nodes/${id}`, event: events.nodeLearned.name, part: id })),
    },
  },
  compileInParts: compileTrees,
  tables: ({ entries, players }) => [treesTable.under(entries, { present: { column: 'type', of: players } })],
  attach: (world, compiled) => ({ ...compiled, cells: treesTable.columnsIn(world, compiled.entries) }),
  events,
  invariants,
  actions: {
    givePoints: {
      label: 'give points of a skill tree',
      sentence: 'give {amount} points of {tree} to {to}',
      causes: ({ tree }) => [{ event: 'pointsGained', fields: { tree } }],
      args: { tree: reference('trees'), amount: described(amount(['source', 'target']), { amount: 'gives {value}', opposite: 'take' }) },
      compile: (args, context, path) => {
        const tree = context.index('trees', String(args['tree']));
        const by = context.amount(args['amount'] as AmountSource, [...path, 'amount'], ['source', 'target']);
        return (world, actor, parties) => givePoints(world, actor, tree, by.run(world, { ...parties, owner: actor }));
      },
    },
  },
  inputs,
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
  workbench: async () => (await import('../workbenches.js')).trees,
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
