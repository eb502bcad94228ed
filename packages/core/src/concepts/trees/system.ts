import { pointer, type Problem } from '../../ruleset/problem.js';
import { movedPositions, type Rules } from '../../ruleset/rules.js';
import type { ColumnSpec } from '../../world/columns.js';
import type { SavedPlayer } from '../../world/saved.js';
import type { World } from '../../world/world.js';
import { endEffect, instancesOf } from '../effects/index.js';
import { tracks } from '../tracks/state.js';
import { tracksTable } from '../tracks/tables.js';
import { type CompiledTrees } from './compile.js';
import { legalPart, spentOn } from './legal.js';
import { treesTable } from './tables.js';
import { trees } from './state.js';

/** Spendings that the rules do not allow, in what is said to be kept of a player. */
export function savedSpending({ list, entries }: CompiledTrees, saved: SavedPlayer, rules: Rules): readonly Problem[] {
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
export function endFormerEffects(world: World, before: World): void {
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
