import { toGrid } from '../math/grid.js';
import { positionIn } from '../ruleset/positions.js';
import { didYouMean } from '../ruleset/suggest.js';
import type { Rules } from '../ruleset/rules.js';
import type { World } from '../world/world.js';
import { functionIn, type Lookup, nameIn } from './lookup.js';
import { divide, MATH_FUNCTIONS, remainder } from './functions.js';
import { FormulaError, parseFormula, type FormulaNode } from './parser.js';
import type { Range } from './ranges.js';
import { bareWorld } from '../world/bare-world.js';

/** The actors a formula or an action can speak of, as handles; 0 where there is none. Bare names belong to the owner. */
export interface Parties {
  readonly owner: number;
  readonly source: number;
  readonly target: number;
  /** Whom an event is about, where one is being answered. */
  readonly subject?: number;
  /** What the event that is being answered carries. */
  readonly event?: Readonly<Record<string, number | string | boolean>>;
  /** Luck that was drawn before the list ran, for what is worth the same to whoever comes by it: a number that its concept gave it. */
  readonly luck?: number;
  /** Whether the list has followed for one of those who share it already: what follows once is passed over. */
  readonly repeated?: boolean;
  /** What a list of actions belongs to, where it ends with it: a number that its concept gave it. */
  readonly scope?: number;
}
export type PartyName = 'source' | 'target' | 'subject';

export const NOBODY: Parties = { owner: 0, source: 0, target: 0 };

/** A compiled formula. Conditions yield 1 or 0. */
export type FormulaFunction = (world: World, parties: Parties) => number;

/** `amount` is a number, `condition` a yes or no. */
export type Yield = 'amount' | 'condition';
/** What stands in a place: a formula, or a text with formulas of amounts in braces. */
export type PlaceYield = Yield | 'text';

/** What a concept lets formulas read of an actor by a bare name, such as an attribute's value. */
export interface NameSource {
  readonly chapter: string;
  readonly ids: readonly string[];
  readonly read: (index: number) => (world: World, actor: number) => number;
}

/** What a concept lets formulas call: `has(winded)`, `curve(pressure, depth)`. The first argument is an id of `chapter`. */
export interface EntryFunction {
  readonly name: string;
  readonly chapter: string;
  readonly ids: readonly string[];
  /** How many amounts follow the id. */
  readonly amounts: number;
  readonly yields: Yield;
  /** What an entry of its chapter is called where one is asked for: an effect, a quest. */
  readonly noun?: string;
  readonly read: (index: number) => (world: World, actor: number, amount: number) => number;
  /**
   * Between what it is for whoever asks, under these rules, whatever happens; anything where nothing is said.
   * @param comesAbout whether anything brings the entry about
   */
  readonly between?: (rules: Rules, id: string, comesAbout: boolean) => Range;
}

/** All that formulas of one ruleset can speak of. */
export interface Vocabulary {
  readonly names: readonly NameSource[];
  readonly functions: readonly EntryFunction[];
  /** Words that are often tried and are no names, each with what to write instead. */
  readonly words?: Readonly<Record<string, string>>;
}

/** What is said of one place where a formula stands. */
export interface FormulaPlace {
  readonly yields: PlaceYield;
  /** The parties that exist here besides the owner. */
  readonly parties: readonly PartyName[];
  /** The amounts of an event that can be read here, as in `event.asked`. */
  readonly event?: readonly string[];
  /** What the event is called here, where it is something else. */
  readonly carrier?: string;
  /** Amounts that are read here by bare names, such as the level that a curve is asked for; `event` of the parties holds them. */
  readonly locals?: readonly string[];
}

/** An id that a formula speaks of, and where in its text. */
export interface FormulaReference {
  readonly chapter: string;
  readonly id: string;
  readonly party: string | null;
  readonly at: number;
}

export interface CompiledFormula {
  readonly text: string;
  readonly run: FormulaFunction;
  readonly references: readonly FormulaReference[];
  /** The value, where the formula speaks of nobody. */
  readonly constant?: number;
  /** The name, where the formula is one of the owner's names and nothing else. */
  readonly bare?: FormulaReference;
  /** The words that were looked up to compile it: where each still means the same, so does the formula. */
  readonly lookups: readonly Lookup[];
}

/**
 * Compiles an amount or a condition against what a ruleset knows.
 * @throws FormulaError where it can't be read, speaks of something unknown, or mixes amounts and conditions
 */
export function compileExpression(text: string, vocabulary: Vocabulary, place: FormulaPlace): CompiledFormula {
  const compiler = new Compiler(vocabulary, place);
  const node = parseFormula(text);
  const { run, yields } = compiler.compile(node);
  if (yields !== place.yields)
    throw new FormulaError(
      place.yields === 'condition'
        ? 'A condition is expected here, such as suit < 20; this is a number.'
        : 'A number is expected here; this is a condition. Write condition ? 1 : 0 to make one of it.',
      node.at,
    );
  const onGrid: FormulaFunction = yields === 'amount' ? (world, parties) => toGrid(run(world, parties)) : run;
  if (compiler.references.length > 0) {
    const [first] = compiler.references;
    const bare = node.kind === 'name' && node.party === null ? { bare: first } : {};
    return { text, run: onGrid, references: compiler.references, ...bare, lookups: compiler.lookups };
  }
  if (!compiler.fixed) return { text, run: onGrid, references: [], lookups: [] };
  const constant = onGrid(bareWorld(), NOBODY);
  return { text, run: () => constant, references: [], constant, lookups: [] };
}

const wordIn = ({ words = {} }: Vocabulary, word: string): string | undefined => (Object.hasOwn(words, word) ? words[word] : undefined);

interface Part {
  readonly run: FormulaFunction;
  readonly yields: Yield;
}

class Compiler {
  readonly references: FormulaReference[] = [];
  readonly lookups: Lookup[] = [];
  /** Nothing that changes is read. */
  fixed = true;

  constructor(
    private readonly vocabulary: Vocabulary,
    private readonly place: FormulaPlace,
  ) {}

  compile(node: FormulaNode): Part {
    switch (node.kind) {
      case 'number': {
        const { value } = node;
        return { run: () => value, yields: 'amount' };
      }
      case 'flag': {
        const value = node.value ? 1 : 0;
        return { run: () => value, yields: 'condition' };
      }
      case 'name':
        return this.name(node.name, node.party, node.at);
      case 'unary':
        return this.unary(node.op, node.of);
      case 'binary':
        return this.binary(node.op, node.left, node.right);
      case 'choice': {
        const test = this.expect('condition', node.test);
        const yes = this.compile(node.then);
        const no = this.expect(yes.yields, node.else);
        return { run: (w, p) => (test(w, p) !== 0 ? yes.run(w, p) : no(w, p)), yields: yes.yields };
      }
      case 'call':
        return this.call(node.name, node.party, node.args, node.at);
    }
  }

  private expect(yields: Yield, node: FormulaNode): FormulaFunction {
    const part = this.compile(node);
    if (part.yields !== yields)
      throw new FormulaError(
        yields === 'amount' ? 'A number is expected here, and this is a condition.' : 'A condition is expected here, and this is a number.',
        node.at,
      );
    return part.run;
  }

  private party(party: string | null, at: number): (parties: Parties) => number {
    if (party === null) return (p) => p.owner;
    if (!(this.place.parties as readonly string[]).includes(party)) {
      const known = this.place.parties.length
        ? `${this.place.parties.join(' and ')} can be named here`
        : 'only the owner can be spoken of here, with bare names';
      throw new FormulaError(`There is no ${party} here: ${known}.`, at);
    }
    const name = party as PartyName;
    return (p) => p[name] ?? 0;
  }

  private name(id: string, party: string | null, at: number): Part {
    if (party === (this.place.carrier ?? 'event')) return this.carried(id, at);
    if (party === null && this.place.locals?.includes(id)) {
      this.fixed = false;
      return { run: (_, p) => Number(p.event?.[id] ?? 0), yields: 'amount' };
    }
    const who = this.party(party, at);
    const found = nameIn(this.vocabulary, id);
    if (found) {
      const { source, index } = found;
      this.references.push({ chapter: source.chapter, id, party, at: party === null ? at : at + party.length + 1 });
      this.lookups.push({ word: id, chapter: source.chapter, index });
      const read = source.read(index);
      return { run: (w, p) => read(w, who(p)), yields: 'amount' };
    }
    const otherwise = wordIn(this.vocabulary, id);
    if (otherwise !== undefined) throw new FormulaError(`Nothing is called ${id} here. ${otherwise}`, at);
    throw new FormulaError(`Nothing is called ${id} here.${didYouMean(id, this.knownNames())}`, at);
  }

  /** One after the other, and no further than it is asked: there may be thousands, and as many mistakes. */
  private *knownNames(): Iterable<string> {
    yield* this.place.locals ?? [];
    for (const { ids } of this.vocabulary.names) yield* ids;
  }

  /** An amount that the event carries; 0 where this one carries none. */
  private carried(name: string, at: number): Part {
    const known = this.place.event ?? [];
    if (known.length === 0) throw new FormulaError('There is no event here whose amounts could be read.', at);
    const carrier = this.place.carrier ?? 'event';
    if (!known.includes(name))
      throw new FormulaError(`The ${carrier} carries no ${name}; it carries ${known.join(', ')}.${didYouMean(name, known)}`, at);
    this.fixed = false;
    return { run: (_, p) => Number(p.event?.[name] ?? 0), yields: 'amount' };
  }

  private unary(op: string, of: FormulaNode): Part {
    if (op === 'not') {
      const run = this.expect('condition', of);
      return { run: (w, p) => (run(w, p) === 0 ? 1 : 0), yields: 'condition' };
    }
    const run = this.expect('amount', of);
    return { run: op === '-' ? (w, p) => -run(w, p) : run, yields: 'amount' };
  }

  private binary(op: string, leftNode: FormulaNode, rightNode: FormulaNode): Part {
    if (op === 'and' || op === 'or') {
      const left = this.expect('condition', leftNode);
      const right = this.expect('condition', rightNode);
      const run: FormulaFunction =
        op === 'and' ? (w, p) => (left(w, p) !== 0 ? right(w, p) : 0) : (w, p) => (left(w, p) !== 0 ? 1 : right(w, p));
      return { run, yields: 'condition' };
    }
    const left = this.expect('amount', leftNode);
    const right = this.expect('amount', rightNode);
    const comparison = COMPARISONS[op];
    if (comparison) return { run: (w, p) => (comparison(left(w, p), right(w, p)) ? 1 : 0), yields: 'condition' };
    const arithmetic = ARITHMETIC[op];
    return { run: (w, p) => arithmetic(left(w, p), right(w, p)), yields: 'amount' };
  }

  private call(name: string, party: string | null, args: readonly FormulaNode[], at: number): Part {
    const math = party === null && Object.hasOwn(MATH_FUNCTIONS, name) ? MATH_FUNCTIONS[name] : undefined;
    if (math) {
      if (args.length < math.least || args.length > math.most)
        throw new FormulaError(`Write ${math.usage}: it was given ${args.length}.`, at);
      const parts = args.map((arg) => this.expect('amount', arg));
      const { run } = math;
      if (parts.length === 1) return { run: (w, p) => run(parts[0](w, p)), yields: 'amount' };
      if (parts.length === 2) return { run: (w, p) => run(parts[0](w, p), parts[1](w, p)), yields: 'amount' };
      return { run: (w, p) => run(...parts.map((part) => part(w, p))), yields: 'amount' };
    }
    const entry = functionIn(this.vocabulary, name);
    if (entry) return this.entryCall(entry, party, args, at);
    // Of a chapter that has no entries: that is the better message than an unknown function.
    const noun = this.vocabulary.functions.find((f) => f.name === name)?.noun;
    if (noun !== undefined) throw new FormulaError(`${name}(…) needs a ${noun}, and this ruleset has none.`, at);
    const known = [...Object.keys(MATH_FUNCTIONS), ...this.vocabulary.functions.map((f) => f.name)];
    const otherwise = wordIn(this.vocabulary, name);
    if (otherwise !== undefined) throw new FormulaError(`There is no function ${name}. ${otherwise}`, at);
    throw new FormulaError(`There is no function ${name}.${didYouMean(name, known)}`, at);
  }

  private entryCall(entry: EntryFunction, party: string | null, args: readonly FormulaNode[], at: number): Part {
    const who = this.party(party, at);
    const first = args[0];
    const usage = `${entry.name}(id${', x'.repeat(entry.amounts)})`;
    if (first?.kind !== 'name' || first.party !== null || args.length !== entry.amounts + 1) throw new FormulaError(`Write ${usage}.`, at);
    const index = positionIn(entry.ids, first.name);
    if (index < 0)
      throw new FormulaError(`No ${entry.noun ?? 'entry'} is called ${first.name}.${didYouMean(first.name, entry.ids)}`, first.at);
    this.references.push({ chapter: entry.chapter, id: first.name, party, at: first.at });
    this.lookups.push({ word: entry.name, id: first.name, chapter: entry.chapter, index });
    const read = entry.read(index);
    const amount = entry.amounts > 0 ? this.expect('amount', args[1]) : () => 0;
    return { run: (w, p) => read(w, who(p), amount(w, p)), yields: entry.yields };
  }
}

const COMPARISONS: Readonly<Record<string, (a: number, b: number) => boolean>> = {
  '==': (a, b) => a === b,
  '!=': (a, b) => a !== b,
  '<': (a, b) => a < b,
  '>': (a, b) => a > b,
  '<=': (a, b) => a <= b,
  '>=': (a, b) => a >= b,
};

const ARITHMETIC: Readonly<Record<string, (a: number, b: number) => number>> = {
  '+': (a, b) => a + b,
  '-': (a, b) => a - b,
  '*': (a, b) => a * b,
  '/': divide,
  '%': remainder,
};
