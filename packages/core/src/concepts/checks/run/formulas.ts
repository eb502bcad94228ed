import { compileFormula, type CompiledFormula, FormulaError } from '../../../formula/index.js';
import { attributes, hasAttribute } from '../../attributes/index.js';
import { roundTo, toGrid } from '../../../math/grid.js';
import { labelOf, positionOf, type Rules } from '../../../ruleset/rules.js';
import type { World } from '../../../world/world.js';
import { Mistake } from './mistake.js';

/** Decimals of a number that no attribute says how to show. */
const DECIMALS = 4;

/** An amount or a condition of a check, asked of one actor. */
export interface Asked {
  readonly formula: CompiledFormula;
  readonly run: (world: World, actor: number) => number;
  /** The attributes that it reads of whom it is asked of. */
  readonly reads: readonly { readonly id: string; readonly index: number }[];
  /** Decimals to which it is shown and compared. */
  readonly decimals: number;
}

/** @throws Mistake where it can't be read, or speaks of what is not there */
export function askedOf(rules: Rules, source: unknown, yields: 'amount' | 'condition', path: string): Asked {
  const formula = typeof source === 'number' ? constant(source) : compiled(rules, String(source), yields, path);
  const reads = formula.references
    .filter(({ chapter, party }) => chapter === 'attributes' && party === null)
    .map(({ id }) => ({ id, index: positionOf(rules, 'attributes', id) }));
  const { list } = attributes.of(rules);
  const decimals = formula.bare?.chapter === 'attributes' ? (list[reads[0].index]?.decimals ?? DECIMALS) : DECIMALS;
  return { formula, reads, decimals, run: (world, actor) => formula.run(world, { owner: actor, source: actor, target: actor }) };
}

const constant = (value: number): CompiledFormula => {
  const amount = toGrid(value);
  return { text: String(value), run: () => amount, references: [], constant: amount, lookups: [] };
};

function compiled(rules: Rules, text: string, yields: 'amount' | 'condition', path: string): CompiledFormula {
  try {
    return compileFormula(text, rules.vocabulary, { yields, parties: [] });
  } catch (error) {
    if (!(error instanceof FormulaError)) throw error;
    throw new Mistake(path, error.message);
  }
}

/** What an actor has to have to be asked, and has not; undefined where it has all. */
export function lackingIn(world: World, actor: number, { reads }: Asked): string | undefined {
  const { list } = attributes.of(world.rules);
  const row = world.actors.rowOf(actor);
  return reads.find(({ index }) => row < 0 || !hasAttribute(world, list[index], row))?.id;
}

/** The values that a formula reads of an actor, in words: `oxygen 12.3, suit 40`. */
export function readingsOf(world: World, actor: number, { reads }: Asked): string {
  const { list } = attributes.of(world.rules);
  const once = [...new Map(reads.map((one) => [one.id, one])).values()];
  const now = attributes.in(world).cells;
  const row = world.actors.rowOf(actor);
  return once
    .map(
      ({ id, index }) =>
        `${labelOf(world.rules, 'attributes', id).toLowerCase()} is ${roundTo(now[index].value.data[row], list[index].decimals)}`,
    )
    .join(', ');
}
