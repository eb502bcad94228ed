import type { World } from '../../world/world.js';
import { World as Worlds } from '../../world/world.js';
import { type NumberChange, setGifts } from '../abilities/index.js';
import { changeAttribute, readAttribute } from '../attributes/index.js';
import { applyEffect, endEffect, instancesOf } from '../effects/index.js';
import { speakerOf } from '../../replication/speaker.js';
import { peakOf } from '../tracks/levels.js';
import type { Tree } from './compile.js';
import { trees } from './state.js';
import { type LearnRefusal, learnRefusal, returnRefusal, legalPart, type Means, spentOn } from './legal.js';
import { learnRefusalWords } from './words.js';
import { events, type LearnRefused } from './events.js';

/** The ranks that an actor has learned in a tree, by node. */
export function ranksOf(world: World, row: number, tree: number): number[] {
  return trees.in(world).cells[tree].nodes.map(({ rank }) => rank.data[row]);
}

/** What an actor's spending in a tree is judged by. */
export function meansOf(world: World, row: number, tree: number): Means {
  const actor = world.actors.handle(row);
  return { earned: trees.in(world).cells[tree].earned.data[row], reached: (track) => peakOf(world, actor, track) };
}

function writeRanks(world: World, row: number, tree: Tree, ranks: readonly number[]): void {
  const cells = trees.in(world).cells[tree.index];
  cells.nodes.forEach(({ rank }, i) => (rank.data[row] = ranks[i]));
  cells.spent.data[row] = spentOn(tree, ranks);
}

const isPlayer = (world: World, row: number): boolean => trees.of(world.rules).players[world.actors.cells.type[row]];

/** Gives a player points to spend. */
export function givePoints(world: World, actor: number, tree: number, count: number): void {
  const row = world.actors.rowOf(actor);
  const whole = Math.floor(count);
  if (row < 0 || whole <= 0 || !isPlayer(world, row)) return;
  const { list, cells } = trees.in(world);
  cells[tree].earned.data[row] += whole;
  world.emit(events.pointsGained, { subject: actor }, { tree: list[tree].id, points: whole });
}

function refuse(world: World, actor: number, tree: Tree, node: number, why: LearnRefusal): void {
  const says = learnRefusalWords(tree.nodes, world.rules.chapters.get('tracks')?.ids ?? [], node, why, speakerOf(world.rules));
  const track = why.reason === 'level' ? world.rules.chapters.get('tracks')!.ids[why.track] : undefined;
  const about = { tree: tree.id, node: tree.nodes[node].id, ...(track !== undefined && { track }) };
  world.emit(events.learnRefused, { subject: actor }, { ...about, reason: why.reason, says });
}

const refuseWith = (world: World, actor: number, tree: string, node: string, reason: LearnRefused, says: string) =>
  world.emit(events.learnRefused, { subject: actor }, { tree, node, reason, says });

/** The tree and the node that a request names; refused where there is none. */
function asked(world: World, actor: number, treeId: string, nodeId?: string): { row: number; tree: Tree; node: number } | undefined {
  const row = world.actors.rowOf(actor);
  const tree = trees.in(world).list.find(({ id }) => id === treeId);
  if (row < 0 || !isPlayer(world, row)) return undefined;
  if (!tree) return void refuseWith(world, actor, treeId, nodeId ?? '', 'unknown', `There is no skill tree ${treeId}.`);
  const node = tree.nodes.findIndex(({ id }) => id === nodeId);
  if (node < 0 && nodeId !== undefined)
    return void refuseWith(world, actor, treeId, nodeId, 'unknown', `${tree.label} has no node ${nodeId}.`);
  return { row, tree, node };
}

/** Learns the next rank of a node, or says why not. */
export function learn(world: World, actor: number, treeId: string, nodeId: string): void {
  const found = asked(world, actor, treeId, nodeId);
  if (!found) return;
  const { row, tree, node } = found;
  const ranks = ranksOf(world, row, tree.index);
  const why = learnRefusal(tree, ranks, node, meansOf(world, row, tree.index));
  if (why) return refuse(world, actor, tree, node, why);
  ranks[node]++;
  writeRanks(world, row, tree, ranks);
  giveAll(world, row, tree);
  const { id, label } = tree.nodes[node];
  world.emit(
    events.nodeLearned,
    { subject: actor },
    { tree: tree.id, node: id, label, rank: ranks[node], points: tree.nodes[node].costs[ranks[node] - 1] },
  );
}

/** Gives the last rank of a node back, where the tree lets that be done at will and nothing rests on it. */
export function unlearn(world: World, actor: number, treeId: string, nodeId: string): void {
  const found = asked(world, actor, treeId, nodeId);
  if (!found) return;
  const { row, tree, node } = found;
  const says = {
    free: '',
    paid: `Points of ${tree.label} come back all at once, for their price.`,
    never: `What is learned in ${tree.label} stays learned.`,
  };
  if (tree.how !== 'free') return void refuseWith(world, actor, tree.id, nodeId, tree.how, says[tree.how]);
  const ranks = ranksOf(world, row, tree.index);
  const why = returnRefusal(tree, ranks, node, meansOf(world, row, tree.index));
  if (why) return refuse(world, actor, tree, node, why);
  const points = tree.nodes[node].costs[ranks[node] - 1];
  ranks[node]--;
  writeRanks(world, row, tree, ranks);
  giveAll(world, row, tree);
  const { id, label } = tree.nodes[node];
  world.emit(events.nodeForgotten, { subject: actor }, { tree: tree.id, node: id, label, rank: ranks[node], points });
}

/** Gives all points of a tree back, for its price where it has one: both or neither. */
export function respec(world: World, actor: number, treeId: string): void {
  const found = asked(world, actor, treeId);
  if (!found) return;
  const { row, tree } = found;
  if (tree.how === 'never') return void refuseWith(world, actor, tree.id, '', 'never', `What is learned in ${tree.label} stays learned.`);
  const points = trees.in(world).cells[tree.index].spent.data[row];
  if (points === 0) return void refuseWith(world, actor, tree.id, '', 'notLearned', `Nothing of ${tree.label} is learned.`);
  if (tree.price) {
    const price = Math.max(0, tree.price.amount.run(world, Worlds.alone(actor)));
    const present = readAttribute(world, actor, tree.price.attribute);
    const label = speakerOf(world.rules).label('attributes', tree.price.id).toLowerCase();
    if (present < price)
      return world.emit(
        events.learnRefused,
        { subject: actor },
        {
          tree: tree.id,
          node: '',
          reason: 'tooExpensive',
          says: `This takes ${price} ${label}, and you have ${Math.floor(present)}.`,
          attribute: tree.price.id,
        },
      );
    world.goesOn(tree.rule);
    changeAttribute(world, actor, tree.price.attribute, -price, actor, 'cost');
  }
  returnPoints(
    world,
    row,
    tree,
    tree.nodes.map(() => 0),
    'respec',
  );
}

/** Has an actor keep these ranks of a tree; what falls away is told, with the points that come back. */
function returnPoints(world: World, row: number, tree: Tree, keep: readonly number[], why: 'edit' | 'respec', told = 0): void {
  const ranks = ranksOf(world, row, tree.index);
  const gone = tree.nodes.filter((_, i) => keep[i] < ranks[i]).map(({ label }) => label);
  const points = told + spentOn(tree, ranks) - spentOn(tree, keep);
  writeRanks(world, row, tree, keep);
  giveAll(world, row, tree);
  if (points === 0) return;
  const actor = world.actors.handle(row);
  if (why === 'respec')
    return world.emit(events.pointsReturned, { subject: actor }, { tree: tree.id, points, why, nodes: gone.join(', ') });
  // Rules are edited and players loaded between ticks, when nobody would hear of it: it is told at the next.
  const { back } = trees.in(world).cells[tree.index];
  back.data[row] += points;
  world.setTimer(world.rules.registry.timer('trees.tell'), 1, actor, tree.index);
}

/** Tells a player which points came back by an edit. */
export function tellBack(world: World, actor: number, index: number): void {
  const row = world.actors.rowOf(actor);
  const { list, cells } = trees.in(world);
  if (row < 0 || !list[index] || cells[index].back.data[row] === 0) return;
  const points = cells[index].back.data[row];
  cells[index].back.data[row] = 0;
  world.emit(events.pointsReturned, { subject: actor }, { tree: list[index].id, points, why: 'edit', nodes: '' });
}

/**
 * Makes an actor's spending legal under the rules as they are now: under edited rules, or as it was kept under older ones.
 * What was paid for nodes that are gone, or that cost less now, comes back of itself: free is earned less spent.
 */
export function makeLegal(world: World, row: number): void {
  if (!isPlayer(world, row)) return;
  const { list, cells } = trees.in(world);
  for (const tree of list) {
    const { spent, earned } = cells[tree.index];
    if (earned.data[row] < 0) earned.data[row] = 0;
    const ranks = ranksOf(world, row, tree.index);
    const keep = legalPart(tree, ranks, meansOf(world, row, tree.index));
    // Before, so much was spent; what a node that is gone had cost is part of it.
    const lost = Math.max(0, spent.data[row] - spentOn(tree, ranks));
    returnPoints(world, row, tree, keep, 'edit', lost);
  }
}

/** What gives an actor the gifts of a tree, by its number. */
const giverOf = (tree: number): number => 1 + tree;

/** Has an actor be given what its ranks give: abilities, numbers and lasting effects, no more and no less. */
function giveAll(world: World, row: number, tree: Tree): void {
  const actor = world.actors.handle(row);
  const ranks = ranksOf(world, row, tree.index);
  const learned = tree.nodes.map((node, i) => ({ node, rank: ranks[i] })).filter(({ rank }) => rank > 0);
  const owned = learned.flatMap(({ node }) => (node.ability < 0 ? [] : [node.ability]));
  const changes = learned.flatMap(({ node, rank }) =>
    node.numbers.map(({ ability, number, change, at }): NumberChange => ({ ability, number, change, amount: at(rank) })),
  );
  setGifts(world, actor, giverOf(tree.index), owned, changes);
  const { nodes } = trees.in(world).cells[tree.index];
  tree.nodes.forEach(({ effect }, i) => {
    if (effect < 0) return;
    if (nodes[i].on.data[row] > ranks[i]) takeOff(world, row, effect);
  });
  tree.nodes.forEach(({ effect }, i) => {
    const applied = nodes[i].on.data;
    if (effect >= 0) for (; applied[row] < ranks[i]; applied[row]++) applyEffect(world, actor, effect, actor);
  });
}

/** Takes an effect off, as whatever node has given it: those that still do give it again. */
function takeOff(world: World, row: number, effect: number): void {
  const { list, cells } = trees.in(world);
  for (const at of instancesOf(world, world.actors.handle(row), effect)) endEffect(world, at, 'removed');
  for (const { index, nodes } of list) nodes.forEach((node, i) => node.effect === effect && (cells[index].nodes[i].on.data[row] = 0));
}

/** A fall takes off what is on; what is learned is on again as its bearer comes back. */
export function giveAgain(world: World, actor: number): void {
  const row = world.actors.rowOf(actor);
  if (row < 0 || !isPlayer(world, row)) return;
  const { list, cells } = trees.in(world);
  for (const { index, nodes } of list)
    nodes.forEach(({ effect }, i) => {
      if (effect >= 0 && instancesOf(world, actor, effect).length === 0) cells[index].nodes[i].on.data[row] = 0;
    });
  for (const tree of list) giveAll(world, row, tree);
}
