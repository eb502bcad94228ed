import { isWaitedFor } from '../../analysis/net.js';
import { actionsWritten } from '../../analysis/collect.js';
import type { Finding } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { abilityChapter } from '../abilities/schema.js';
import { tracks } from '../tracks/state.js';
import type { CompiledTrees, Tree } from './compile.js';
import type { NodeEntry, TreeEntry } from './schema.js';
import { legalPart, type Means, spentOn } from './legal.js';

const MANY = 1_000_000;
const endless: Means = { earned: MANY, reached: () => MANY };

const isEmpty = (gives: NodeEntry['gives']) =>
  gives?.effect === undefined && gives?.ability === undefined && (gives?.numbers ?? []).length === 0;
const isNeeded = ({ nodes }: TreeEntry, id: string) =>
  nodes.some(({ needs }) => [...(needs?.all ?? []), ...(needs?.any ?? [])].some(({ node }) => node === id));
/** Whether anything waits for a node to be learned. */
const hears = (rules: Rules, node: string) => isWaitedFor(rules, 'nodeLearned', 'node', node);

/** Nodes that can never be learned, choices that lock what lies behind them, and points that nobody is ever given. */
export function findings({ entries, list }: CompiledTrees, rules: Rules): readonly Finding[] {
  const levels = tracks.of(rules).list;
  const asActions = actionsWritten(rules, 'givePoints').length > 0;
  return list.flatMap((tree, t): Finding[] => {
    const path = `/trees/${t}`;
    const found: Finding[] = [];
    // Alone: everything is learned for it, as if choices excluded nothing.
    const open = legalPart(
      { nodes: tree.nodes, excludes: tree.excludes.map(() => []) },
      tree.nodes.map(({ ranks }) => ranks),
      endless,
    );
    tree.nodes.forEach((node, i) => {
      const at = `${path}/nodes/${i}`;
      if (isEmpty(entries[t].nodes[i].gives) && !isNeeded(entries[t], node.id) && !hears(rules, node.id))
        found.push({
          kind: 'givesNothing',
          path: at,
          message: `${node.label} gives nothing to whoever learns it, and nothing needs it. Say what it gives.`,
        });
      found.push(...changingNothing(rules, entries[t].nodes[i], at));
      const { track, level } = node.needs;
      if (track >= 0 && levels[track] && level > levels[track].levels)
        found.push({
          kind: 'neverOpen',
          path: `${at}/needs/level`,
          message: `${node.label} can never be learned: ${levels[track].label} ends at ${levels[track].levels}, and it needs ${level}.`,
        });
      else if (open[i] === 0)
        found.push({ kind: 'neverOpen', path: at, message: `${node.label} can never be learned: ${circleWords(tree, i)}` });
      else if (isLocked(tree, i))
        found.push({
          kind: 'lockedByChoice',
          path: at,
          message: `${node.label} can never be learned: it needs nodes that exclude each other. Have it need any of them, or take the choice out.`,
        });
    });
    const whole = spentOn(
      tree,
      tree.nodes.map(({ ranks }) => ranks),
    );
    const given =
      entries[t].points +
      levels.reduce(
        (sum, { points, levels: top }) => sum + points.filter((p) => p.tree === t).reduce((s, p) => s + p.each * (top - 1), 0),
        0,
      );
    if (tree.nodes.length > 0 && given === 0 && !asActions)
      found.push({
        kind: 'noPoints',
        path,
        message: `Nobody ever has a point for ${tree.label}: have the levels of a track give some, or let everybody begin with some.`,
      });
    else if (tree.nodes.length > 0 && !asActions && given < Math.min(...tree.nodes.map(({ costs }) => costs[0] ?? 0)))
      found.push({
        kind: 'noPoints',
        path,
        message: `${given} points are ever given for ${tree.label}, and its cheapest node takes more. The whole tree takes ${whole}.`,
      });
    return found;
  });
}

/** Numbers of abilities that an ability has only where it says so. */
const OWN = { cooldown: 'cooldown', cast: 'cast time', recovery: 'recovery', channel: 'channel time', costs: 'costs' } as const;

/** Numbers that a node changes of an ability that has none. */
function changingNothing(rules: Rules, { label, gives }: NodeEntry, at: string): readonly Finding[] {
  return (gives?.numbers ?? []).flatMap(({ ability: id, number }, k) => {
    const ability = abilityChapter.find(rules, id);
    const words = number === 'range' ? undefined : OWN[number];
    const own = words === undefined ? undefined : ability?.[number as keyof typeof OWN];
    if (!ability || words === undefined || (Array.isArray(own) ? own.length > 0 : own !== undefined)) return [];
    const other = number === 'cooldown' && ability.stored ? ': its store refills in a time of its own' : '';
    return [
      {
        kind: 'changesNothing',
        path: `${at}/gives/numbers/${k}`,
        message: `${label} changes the ${words} of ${ability.label}, which has none${other}. Have it change another number, or take it out.`,
      },
    ];
  });
}

function circleWords({ nodes }: Tree, i: number): string {
  const { all, any, spent } = nodes[i].needs;
  const names = [...all, ...any].map(({ node }) => nodes[node].label);
  if (names.length > 0) return `what it needs (${names.join(', ')}) needs it in turn, or can’t be learned either.`;
  return spent > 0 ? `it needs ${spent} points spent, and the nodes that can be learned take fewer.` : 'look at what it needs.';
}

/** Whether a node needs others that exclude each other, or itself, along every way to it. */
function isLocked(tree: Tree, node: number): boolean {
  return !ways(tree, node, [], 0).some(() => true);
}

/** Sets of nodes with which a node can be learned and that do not exclude each other: some of them, as many as need be looked at. */
function ways(tree: Tree, node: number, within: readonly number[], depth: number): readonly (readonly number[])[] {
  if (depth > 12 || within.includes(node)) return [within];
  if (within.some((one) => tree.excludes[node].includes(one))) return [];
  const { all, any } = tree.nodes[node].needs;
  let sets: readonly (readonly number[])[] = [[...within, node]];
  for (const { node: other } of all)
    sets = sets.flatMap((set) => (set.includes(other) ? [set] : ways(tree, other, set, depth + 1))).slice(0, 64);
  if (any.length > 0)
    sets = sets
      .flatMap((set) => any.flatMap(({ node: other }) => (set.includes(other) ? [set] : ways(tree, other, set, depth + 1))))
      .slice(0, 64);
  return sets;
}
