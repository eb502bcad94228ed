import {
  compileFormula,
  type CompiledFormula,
  FormulaError,
  type FormulaFunction,
  type FormulaReference,
  type Parties,
  type PartyName,
  type Vocabulary,
} from '../formula/index.js';
import { toGrid } from '../math/grid.js';
import { hashText } from '../world/hash.js';
import type { World } from '../world/world.js';
import { type AmountSource, toMilliseconds } from './fields.js';
import { pointer, type Path, type Problem } from './problem.js';
import type { Registry, Then } from './registry.js';
import type { Chapter, RulesetDocument } from './rules.js';

/** A compiled amount. `constant` is set where it is always the same, `references` lists what a formula reads. */
export interface Amount {
  readonly run: FormulaFunction;
  readonly constant?: number;
  /** The name, where the amount is one of the owner's names and nothing else. */
  readonly bare?: FormulaReference;
  readonly references: readonly FormulaReference[];
}

export type CompiledThen = (world: World, parties: Parties) => void;

const NOTHING: CompiledFormula = { text: '0', run: () => 0, references: [], constant: 0 };

/** What a concept's `compile` is given: the checked document and the compilers of the building blocks. */
export class CompileContext {
  /** What formulas read, gathered by path, for who-uses-what. */
  readonly problems: Problem[] = [];

  constructor(
    readonly registry: Registry,
    readonly document: RulesetDocument,
    readonly chapters: ReadonlyMap<string, Chapter>,
    readonly vocabulary: Vocabulary,
  ) {}

  get tickRate(): number {
    return this.document.tickRate;
  }

  entries<T>(chapter: string): readonly T[] {
    return (this.chapters.get(chapter)?.entries ?? []) as unknown as readonly T[];
  }

  section<T>(key: string): T {
    return this.document[key] as T;
  }

  /** The position of an entry; 0 for an id that does not exist, which the references' own check has reported. */
  index(chapter: string, id: string): number {
    return Math.max(0, this.chapters.get(chapter)?.ids.indexOf(id) ?? 0);
  }

  /** Ticks of an authored time span, rounded up. */
  ticks(text: string): number {
    return Math.ceil((toMilliseconds(text) * this.tickRate) / 1000 - 1e-9);
  }

  problem(path: Path, message: string): void {
    this.problems.push({ path: pointer(path), message });
  }

  formula(text: string, yields: 'amount' | 'condition', parties: readonly PartyName[]): CompiledFormula {
    try {
      return compileFormula(text, this.vocabulary, { yields, parties });
    } catch (error) {
      // Formulas have been checked where they stand; an incomplete document still gets its other problems listed.
      if (error instanceof FormulaError) return NOTHING;
      throw error;
    }
  }

  amount(source: AmountSource, path: Path, parties: readonly PartyName[] = []): Amount {
    if (typeof source === 'number') {
      const constant = toGrid(source);
      return { run: () => constant, constant, references: [] };
    }
    if (typeof source === 'string') return this.formula(source, 'amount', parties);
    const [least, most] = source.random;
    const purpose = this.purpose(path);
    const span = source.whole ? Math.floor(most) - Math.ceil(least) + 1 : most - least;
    const draw = (world: World, parties: Parties) => world.roll(purpose, parties.owner);
    const run: FormulaFunction = source.whole
      ? (world, parties) => Math.ceil(least) + Math.floor(draw(world, parties) * span)
      : (world, parties) => toGrid(least + draw(world, parties) * span);
    return { run, references: [] };
  }

  condition(text: string, parties: readonly PartyName[] = []): FormulaFunction {
    return this.formula(text, 'condition', parties).run;
  }

  /** Compiles a list of actions. They run in order, each for every actor its `to` selects (`self` when it says nothing). */
  then(actions: Then, path: Path): CompiledThen {
    const steps = actions.map((action, i) => {
      const { do: name, to = 'self', ...args } = action;
      const run = this.registry.actions.get(name)!.compile(args, this, [...path, i]);
      const select = this.selector(to);
      return (world: World, parties: Parties) => {
        for (const actor of select(world, parties)) if (world.actors.rowOf(actor) >= 0) run(world, actor, parties);
      };
    });
    return (world, parties) => {
      for (const step of steps) step(world, parties);
    };
  }

  private selector(to: unknown): (world: World, parties: Parties) => readonly number[] {
    if (to === 'self') return (_, p) => [p.owner];
    if (to === 'source') return (_, p) => [p.source];
    if (to === 'target') return (_, p) => [p.target];
    for (const spec of this.registry.selectors.values()) if (spec.matches(to)) return spec.select(to);
    throw new Error(`No selector reads ${JSON.stringify(to)}`);
  }

  /** What a roll is for: its place, with entries by id, so that reordering entries changes nobody's luck. */
  private purpose(path: Path): number {
    const [chapter, position, ...rest] = path;
    const id = typeof position === 'number' ? this.chapters.get(String(chapter))?.ids[position] : position;
    return hashText([chapter, id, ...rest].join('/'));
  }
}
