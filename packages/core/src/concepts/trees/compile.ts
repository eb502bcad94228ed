import { NOBODY } from '../../formula/index.js';
import type { Amount, CompileContext } from '../../ruleset/context.js';
import { didYouMean } from '../../ruleset/suggest.js';
import type { AbilityNumber, NumberChange } from '../abilities/index.js';
import { playerKinds } from '../actors/index.js';
import type { EffectEntry } from '../effects/index.js';
import { needsByPosition, type NodeNeeds, type Shape } from './legal.js';
import { LOCALS, type NodeEntry, type TreeEntry } from './schema.js';
import { bareWorld } from '../../world/bare-world.js';

const CHAPTER = 'trees';

export interface Node {
  readonly id: string;
  readonly label: string;
  readonly ranks: number;
  /** Points for each of its ranks. */
  readonly costs: readonly number[];
  readonly needs: NodeNeeds;
  /** The lasting effect that it gives; -1 for none. */
  readonly effect: number;
  /** The ability that it gives; -1 for none. */
  readonly ability: number;
  readonly numbers: readonly {
    readonly ability: number;
    readonly number: AbilityNumber;
    readonly change: NumberChange['change'];
    readonly at: (rank: number) => number;
  }[];
}

export interface Tree extends Shape {
  readonly index: number;
  readonly id: string;
  readonly label: string;
  /** It, among the rules that act. */
  readonly rule: number;
  readonly points: number;
  readonly nodes: readonly Node[];
  readonly how: TreeEntry['respec']['how'];
  readonly price: { readonly attribute: number; readonly id: string; readonly amount: Amount } | undefined;
}

export interface CompiledTrees {
  readonly entries: readonly TreeEntry[];
  readonly list: readonly Tree[];
  /** By kind of actor: players alone have trees. */
  readonly players: readonly boolean[];
}

export function* compileTrees(context: CompileContext): Generator<void, CompiledTrees> {
  const entries = context.entries<TreeEntry>(CHAPTER);
  return {
    entries,
    list: yield* context.each('trees', entries, (entry, i) => compileOne(context, entry, i)),
    players: playerKinds(context),
  };
}

function compileOne(context: CompileContext, entry: TreeEntry, index: number): Tree {
  const path = [CHAPTER, index];
  const ids = entry.nodes.map((node) => node.id);
  const known = (id: string, at: readonly (string | number)[]) => {
    if (!ids.includes(id)) context.problem([...path, ...at], `${entry.label} has no node ${id}.${didYouMean(id, ids)}`);
  };
  ids.forEach((id, i) => {
    if (ids.indexOf(id) < i) context.problem([...path, 'nodes', i, 'id'], `${entry.label} has a node ${id} already.`);
    entry.nodes[i].formerly?.forEach((old, k) => {
      const owner = entry.nodes.find((other, o) => other.id === old || (o < i && other.formerly?.includes(old)));
      if (owner)
        context.problem(
          [...path, 'nodes', i, 'formerly', k],
          `${old} ${owner.id === old ? 'is a node' : `was the id of ${owner.id}`}: ranks that were kept under it belong there.`,
        );
    });
  });
  entry.nodes.forEach(({ needs }, i) => {
    for (const kind of ['all', 'any'] as const)
      needs?.[kind]?.forEach(({ node, rank = 1 }, k) => {
        const at = ['nodes', i, 'needs', kind, k];
        known(node, [...at, 'node']);
        const most = entry.nodes[ids.indexOf(node)]?.ranks ?? rank;
        if (rank > most)
          context.problem([...path, ...at, 'rank'], `${node} has ${most} ${most === 1 ? 'rank' : 'ranks'}: ${rank} are never learned.`);
      });
  });
  entry.exclusive.forEach((group, g) => group.forEach((id, k) => known(id, ['exclusive', g, k])));
  const excludes = ids.map((id, i) =>
    ids.flatMap((other, k) => (k !== i && entry.exclusive.some((group) => group.includes(id) && group.includes(other)) ? [k] : [])),
  );
  const { how, price } = entry.respec;
  if (how === 'paid' && !price) context.problem([...path, 'respec', 'price'], 'This is missing: say what giving points back costs.');
  if (how !== 'paid' && price)
    context.problem([...path, 'respec', 'price'], 'Only points that are paid for have a price: make it paid, or take the price out.');
  return {
    index,
    rule: context.ruleAt(['trees', index]),
    id: entry.id,
    label: entry.label,
    points: entry.points,
    nodes: entry.nodes.map((node, i) => compileNode(context, node, ids, [...path, 'nodes', i])),
    excludes,
    how,
    price: price && {
      attribute: context.index('attributes', price.attribute),
      id: price.attribute,
      amount: context.amount(price.amount, [...path, 'respec', 'price', 'amount']),
    },
  };
}

function compileNode(context: CompileContext, node: NodeEntry, ids: readonly string[], path: readonly (string | number)[]): Node {
  const over = (source: number | string, at: readonly (string | number)[]) => {
    const { run, references } = context.amountOver(source, LOCALS);
    const [read] = references;
    if (read) context.problem([...path, ...at], `This is the same for everybody: it can read rank, and not ${read.id}.`);
    return (rank: number) => (read ? 0 : run(bareWorld(), { ...NOBODY, event: { rank } }));
  };
  const cost = over(node.cost, ['cost']);
  const costs = Array.from({ length: node.ranks }, (_, i) => Math.max(0, Math.ceil(cost(i + 1))));
  const { effect, ability, numbers = [] } = node.gives ?? {};
  if (effect !== undefined) {
    const target = context.fields<EffectEntry, 'label' | 'lifetime'>('effects', effect, 'label', 'lifetime');
    if (target && target.lifetime !== 'lasting')
      context.problem(
        [...path, 'gives', 'effect'],
        `${target.label} is ${target.lifetime}: what is learned lasts, so the effect that a node gives is lasting.`,
      );
  }
  return {
    id: node.id,
    label: node.label,
    ranks: node.ranks,
    costs,
    needs: needsByPosition(node.needs, ids, (track) => context.index('tracks', track)),
    effect: effect === undefined ? -1 : context.index('effects', effect),
    ability: ability === undefined ? -1 : context.index('abilities', ability),
    numbers: numbers.map(({ ability: of, number, change, amount }, k) => {
      const run = over(amount, ['gives', 'numbers', k, 'amount']);
      return {
        ability: context.index('abilities', of),
        number,
        change,
        at: (rank: number) => (typeof amount === 'number' ? amount * rank : run(rank)),
      };
    }),
  };
}
