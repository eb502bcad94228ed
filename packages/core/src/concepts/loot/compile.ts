import type { FormulaFunction } from '../../formula/index.js';
import { everyAction } from '../../ruleset/actions.js';
import type { Amount, CompileContext, CompiledThen } from '../../ruleset/context.js';
import type { AmountSource } from '../../ruleset/fields.js';
import { componentsOf } from '../../ruleset/circles.js';
import type { Path } from '../../ruleset/problem.js';
import type { Then } from '../../ruleset/registry.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { playerKinds } from '../actors/index.js';
import { type AlwaysJson, type LootEntryJson, type LootTableJson, PARTIES } from './schema.js';

const CHAPTER = 'loot';

/** What a line gives, by the chapter that it is of. */
const NAMED = ['pickup', 'gives', 'effect', 'ability', 'table'] as const;
export type What = (typeof NAMED)[number] | 'then' | 'nothing';
const CHAPTER_OF: Readonly<Record<(typeof NAMED)[number], string>> = {
  pickup: 'pickups',
  gives: 'attributes',
  effect: 'effects',
  ability: 'abilities',
  table: 'loot',
};

/** How much there is of something: always the same, a formula, or drawn between two. Luck is a number of its own here. */
export interface Quantity {
  readonly constant: number | undefined;
  readonly formula: FormulaFunction | undefined;
  readonly least: number;
  readonly most: number;
  readonly whole: boolean;
  readonly luck: number;
  readonly references: Amount['references'];
}

/** One line of a table. */
export interface Drop {
  readonly id: string;
  readonly label: string;
  /** The entry whose label it goes by; undefined where its label is its author's own. */
  readonly named: { readonly chapter: string; readonly id: string } | undefined;
  readonly what: What;
  /** The position of what is given in its chapter; -1 where it is of none. */
  readonly index: number;
  readonly quantity: Quantity;
  /** How much of a thing it is whatever the moment; -1 where that has to be worked out, or where it is a table or nothing. */
  readonly always: number;
  readonly test: FormulaFunction | undefined;
  readonly then: CompiledThen | undefined;
}

export interface WeightedDrop extends Drop {
  readonly weight: Amount;
}

export interface LootTable {
  readonly index: number;
  readonly id: string;
  readonly label: string;
  /** It, among the rules that act. */
  readonly rule: number;
  readonly rolled: LootTableJson['rolled'];
  readonly rolls: Quantity;
  readonly replaced: boolean;
  readonly always: readonly Drop[];
  readonly entries: readonly WeightedDrop[];
  readonly streak: { readonly at: number; readonly after: number; readonly adds: number; readonly certain: number } | undefined;
  /** Weights that are always the same; undefined where a formula or a condition moves them. */
  readonly steady: SteadyWeights | undefined;
  /** A roll draws from the steady weights as they are: nothing is taken out of them, and no bad luck adds to one. */
  readonly plain: boolean;
  readonly luck: number;
}

interface SteadyWeights {
  readonly sum: number;
  /** Added up from the first. */
  readonly sums: readonly number[];
  /** For each of equal parts of the whole sum, the first entry that a draw in it can fall on. */
  readonly guide: Uint8Array;
  /** What share of the sum each entry has. */
  readonly chances: readonly number[];
}

export interface CompiledLoot {
  readonly entries: readonly LootTableJson[];
  readonly list: readonly LootTable[];
  readonly players: readonly boolean[];
  /** What the luck of where pickups lie is for. */
  readonly spread: { readonly x: number; readonly y: number };
}

/** What a line needs to know of what it gives. */
interface Target {
  readonly id: string;
  readonly label: string;
  readonly kind?: string;
}

/** A quantity as it is written: a number, a formula, or a range. */
function quantityOf(context: CompileContext, source: AmountSource, path: Path): Quantity {
  const luck = context.purpose(path);
  if (typeof source === 'object') {
    const [least, most] = source.random;
    return { constant: undefined, formula: undefined, least, most, whole: source.whole === true, luck, references: [] };
  }
  const { run, constant, references } = context.amount(source, path, PARTIES);
  return { constant, formula: run, least: 0, most: 0, whole: false, luck, references };
}

function dropOf(context: CompileContext, json: AlwaysJson | LootEntryJson, path: Path, byId: Path): Drop {
  const named = NAMED.filter((what) => json[what] !== undefined);
  if (named.length > 1)
    context.problem([...path, named[1]], `${json.id} gives one thing: ${named.join(' or ')}. Make two entries, or put both in a table.`);
  const [what] = named;
  const chapter = what && CHAPTER_OF[what];
  const target = what && context.fields<Target, keyof Target>(chapter!, String(json[what]), 'id', 'label', 'kind');
  if (what === 'gives' && target?.kind === 'stat')
    context.problem([...path, 'gives'], `${target.label} is a stat: what drops is given to a pool or a counter.`);
  const actions = (json.then ?? []) as Then;
  if (!what && actions.length > 0 && [...everyAction(actions)].every(({ do: name }) => name === 'flourish'))
    context.problem([...path, 'then'], `${json.label ?? json.id} only shows something: say what drops, or make it nothing.`);
  if (!what && actions.length === 0 && json.quantity !== undefined)
    context.problem([...path, 'quantity'], 'This is nothing, and there is no amount of nothing: say what drops.');
  const quantity = quantityOf(context, json.quantity ?? 1, [...byId, 'quantity']);
  const thing = what === undefined ? actions.length > 0 : what !== 'table';
  return {
    id: json.id,
    label: json.label ?? target?.label ?? (actions.length > 0 ? json.id : 'Nothing'),
    named: json.label !== undefined || !target ? undefined : { chapter: chapter!, id: target.id },
    what: what ?? (actions.length > 0 ? 'then' : 'nothing'),
    index: what === undefined ? -1 : context.index(chapter!, String(json[what])),
    quantity,
    always: thing && quantity.constant !== undefined && quantity.constant >= 0 ? quantity.constant : -1,
    test: json.if === undefined ? undefined : context.condition(json.if, PARTIES),
    then: actions.length === 0 ? undefined : context.then(actions, [...path, 'then']),
  };
}

function compileOne(context: CompileContext, json: LootTableJson, index: number): LootTable {
  const path: Path = [CHAPTER, index];
  const all = [
    ...json.always.map((one, k) => ({ one, at: ['always', k] })),
    ...json.entries.map((one, k) => ({ one, at: ['entries', k] })),
  ];
  all.forEach(({ one, at }, k) => {
    if (all.findIndex(({ one: other }) => other.id === one.id) < k)
      context.problem([...path, ...at, 'id'], `${one.id} is in this table already: ids are unique.`);
  });
  // By id: reordering entries changes nobody's luck.
  const drop = (one: AlwaysJson | LootEntryJson, list: string, k: number) =>
    dropOf(context, one, [...path, list, k], [...path, list, one.id]);
  const entries = json.entries.map((one, k): WeightedDrop => {
    if (typeof one.weight === 'number' && one.weight < 0)
      context.problem([...path, 'entries', k, 'weight'], `A weight is a share, and not below nothing. This is ${one.weight}.`);
    return { ...drop(one, 'entries', k), weight: context.amount(one.weight, [...path, 'entries', one.id, 'weight'], PARTIES) };
  });
  const streak = streakOf(context, json, path);
  const steady = entries.every(({ weight, test }) => weight.constant !== undefined && !test)
    ? steadyOf(entries.map(({ weight }) => weight.constant!))
    : undefined;
  return {
    index,
    id: json.id,
    label: json.label,
    rule: context.ruleAt(['loot', index]),
    rolled: json.rolled,
    rolls: quantityOf(context, json.rolls, [...path, 'rolls']),
    replaced: !json.withoutReplacement,
    always: json.always.map((one, k) => drop(one, 'always', k)),
    entries,
    streak,
    steady,
    plain: steady !== undefined && !streak && !json.withoutReplacement,
    luck: context.purpose([...path, 'entries']),
  };
}

/** A power of two: a part's lower end is then no rounded number, and no draw in it lies below. */
const GUIDE_PARTS = 64;

function steadyOf(weights: readonly number[]): SteadyWeights {
  let sum = 0;
  const sums = weights.map((weight) => (sum += weight));
  return { sum, sums, guide: guideOf(sums, sum), chances: weights.map((weight) => weight / sum) };
}

/**
 * Where to begin to look along sums of weights (Chen and Asau, 1974): the entry that a draw falls on is the same as if one
 * had looked from the first.
 */
function guideOf(sums: readonly number[], sum: number): Uint8Array {
  const guide = new Uint8Array(GUIDE_PARTS);
  if (sum > 0) for (let part = 0; part < GUIDE_PARTS; part++) guide[part] = sums.findIndex((upTo) => upTo > (part / GUIDE_PARTS) * sum);
  return guide;
}

function streakOf(context: CompileContext, { streak, entries, label }: LootTableJson, path: Path): LootTable['streak'] {
  if (!streak) return undefined;
  const at = entries.findIndex(({ id }) => id === streak.entry);
  const ids = entries.map(({ id }) => id);
  if (at < 0) context.problem([...path, 'streak', 'entry'], `${label} has no entry ${streak.entry}.${didYouMean(streak.entry, ids)}`);
  if (streak.adds === 0 && streak.certain === undefined)
    context.problem(
      [...path, 'streak', 'adds'],
      'This adds nothing to its weight: say by how much it grows, or at which opening it is certain.',
    );
  if (streak.certain !== undefined && streak.certain <= streak.after)
    context.problem(
      [...path, 'streak', 'certain'],
      `It is certain at opening ${streak.certain}, before its weight grows after ${streak.after}: the certain one comes later.`,
    );
  return { at: Math.max(0, at), after: streak.after, adds: streak.adds, certain: streak.certain ?? 0 };
}

/** Refuses tables that are in themselves, at any depth: rolling one would never end. */
function refuseCircles(context: CompileContext, entries: readonly LootTableJson[]): void {
  const inside = (json: LootTableJson) => [...json.always, ...json.entries].flatMap(({ table }) => (table === undefined ? [] : [table]));
  const circles = componentsOf(new Map(entries.map((json) => [json.id, inside(json)] as const)));
  entries.forEach((json, i) => {
    for (const list of ['always', 'entries'] as const)
      json[list].forEach(({ table }, k) => {
        if (table === undefined || circles.get(table) !== circles.get(json.id)) return;
        const label = context.entry<LootTableJson>(CHAPTER, table)?.label ?? table;
        context.problem(
          [CHAPTER, i, list, k, 'table'],
          table === json.id
            ? `${json.label} is in itself: rolling it would never end.`
            : `${json.label} is in ${label}, which is in it: rolling it would never end.`,
        );
      });
  });
}

export function* compileLoot(context: CompileContext): Generator<void, CompiledLoot> {
  const entries = context.entries<LootTableJson>(CHAPTER);
  refuseCircles(context, entries);
  return {
    entries,
    list: yield* context.each('loot', entries, (json, i) => compileOne(context, json, i)),
    players: playerKinds(context),
    spread: { x: context.purpose([CHAPTER, 'spread', 'x']), y: context.purpose([CHAPTER, 'spread', 'y']) },
  };
}
