import { LARGEST_AMOUNT } from '../math/grid.js';

/** The parsed form of a formula. `at` is the offset of the node's first character in the text. */
export type FormulaNode =
  | { readonly kind: 'number'; readonly value: number; readonly at: number }
  | { readonly kind: 'flag'; readonly value: boolean; readonly at: number }
  | { readonly kind: 'name'; readonly party: string | null; readonly name: string; readonly at: number }
  | { readonly kind: 'unary'; readonly op: '-' | '+' | 'not'; readonly of: FormulaNode; readonly at: number }
  | { readonly kind: 'binary'; readonly op: string; readonly left: FormulaNode; readonly right: FormulaNode; readonly at: number }
  | { readonly kind: 'choice'; readonly test: FormulaNode; readonly then: FormulaNode; readonly else: FormulaNode; readonly at: number }
  | {
      readonly kind: 'call';
      readonly party: string | null;
      readonly name: string;
      readonly args: readonly FormulaNode[];
      readonly at: number;
    };

/** A formula that can't be read: where in the text, and what to do about it. */
export class FormulaError extends Error {
  constructor(
    message: string,
    readonly at: number,
  ) {
    super(message);
    this.name = 'FormulaError';
  }
}

/** Formulas longer than this, or nested deeper than {@link DEEPEST}, are refused. */
export const LONGEST_FORMULA = 500;
const DEEPEST = 40;
/** Parentheses cost nothing in the end, but the stack while they are read. */
const DEEPEST_READING = 400;

/** Operators by binding strength, weakest first. */
const BINARY: Record<string, number> = {
  or: 1,
  and: 2,
  '==': 6,
  '!=': 6,
  '<': 7,
  '>': 7,
  '<=': 7,
  '>=': 7,
  '+': 9,
  '-': 9,
  '*': 10,
  '/': 10,
  '%': 10,
};

const STRONGEST = 20;

/** What our operators are mistaken for, and how to write them. */
const FOREIGN: Record<string, string> = { '&&': 'and', '||': 'or', '!': 'not', '=': '==', '**': '^' };

/** Binds stronger than every other, and to the right: 2 ^ 3 ^ 2 is 2 ^ (3 ^ 2). */
const POWER = '^';
const SIGNS = ['-', '+', 'not'];

const NAME = /[A-Za-z_$\u0080-\uffff][\w$\u0080-\uffff]*/y;
const NUMERAL = /(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?/y;
const SIGN = /[=!<>]=|[-+*/%^<>?:(),.]/y;
const BLANK = /[ \t\n\r]*/y;

interface Token {
  readonly kind: 'number' | 'name' | 'sign' | 'end';
  readonly text: string;
  readonly at: number;
}

/** What would be misread among other signs. */
const NAMED: Readonly<Record<string, string>> = { ',': 'a comma', ':': 'a colon', ')': 'a closing parenthesis' };

const NOT_KNOWN = 'Formulas know numbers, names, arithmetic, comparisons and functions only.';

/** Reads by binding strength (V. Pratt, 1973), one token ahead. */
class Parser {
  private at = 0;
  private token: Token;

  constructor(private readonly text: string) {
    this.token = this.next();
  }

  whole(): FormulaNode {
    const node = this.choice(0);
    const { kind, text, at } = this.token;
    if (kind === 'end') return node;
    throw text === ')'
      ? this.unexpected()
      : new FormulaError('One formula is expected; an operator is missing between two of its parts.', at);
  }

  private match(pattern: RegExp): string | undefined {
    pattern.lastIndex = this.at;
    return pattern.exec(this.text)?.[0];
  }

  private next(): Token {
    this.at += this.match(BLANK)!.length;
    const { at } = this;
    const found = (kind: Token['kind'], text: string): Token => {
      this.at += text.length;
      return { kind, text, at };
    };
    if (at >= this.text.length) return { kind: 'end', text: '', at };
    const name = this.match(NAME);
    if (name !== undefined) return found('name', name);
    const numeral = this.match(NUMERAL);
    if (numeral !== undefined) {
      const token = found('number', numeral);
      const more = this.match(NAME) ?? (this.text[this.at] === '.' ? '.' : undefined);
      if (more !== undefined) throw new FormulaError(`This can't be read: ${numeral}${more} is neither a number nor a name.`, at);
      return token;
    }
    const sign = this.match(SIGN);
    if (sign !== undefined) return found('sign', sign);
    if (/["'`]/.test(this.text[at]))
      throw new FormulaError('Text is no part of a formula: refer to entries by their id, without quotes.', at);
    throw new FormulaError(NOT_KNOWN, at);
  }

  private advance(): Token {
    const { token } = this;
    this.token = this.next();
    return token;
  }

  private is(text: string): boolean {
    return this.token.text === text && this.token.kind !== 'end';
  }

  private expect(text: string): void {
    if (!this.is(text)) throw this.unexpected(`${NAMED[text] ?? text} is expected`);
    this.advance();
  }

  private unexpected(instead?: string): FormulaError {
    const { kind, text, at } = this.token;
    const there = kind === 'end' ? 'it ends too early' : `${NAMED[text] ?? text} is not expected here`;
    return new FormulaError(`This can't be read: ${there}${instead === undefined ? '' : `, ${instead}`}.`, at);
  }

  private choice(depth: number): FormulaNode {
    const test = this.binary(0, depth);
    if (!this.is('?')) return test;
    this.advance();
    const then = this.choice(depth + 1);
    this.expect(':');
    return { kind: 'choice', test, then, else: this.choice(depth + 1), at: test.at };
  }

  /** What is bound by operators that are stronger than `least`. */
  private binary(least: number, depth: number): FormulaNode {
    let left = this.signed(depth);
    for (;;) {
      const op = this.token.kind === 'end' ? '' : this.token.text;
      const strength = op === POWER ? STRONGEST : Object.hasOwn(BINARY, op) ? BINARY[op] : 0;
      if (strength <= least) return left;
      this.advance();
      if (op === POWER) {
        // -x ^ 2 is read in two ways; a signed base is written out.
        if (left.kind === 'unary') throw new FormulaError('Write pow(-x, y), or -(x ^ y), for a power with a sign before it.', left.at);
        left = { kind: 'call', party: null, name: 'pow', args: [left, this.binary(STRONGEST - 1, depth + 1)], at: left.at };
      } else left = { kind: 'binary', op, left, right: this.binary(strength, depth + 1), at: left.at };
    }
  }

  private signed(depth: number): FormulaNode {
    if (depth > DEEPEST_READING) throw tooDeep(this.token.at);
    const { kind, text } = this.token;
    if (kind === 'end' || !SIGNS.includes(text)) return this.primary(depth);
    this.advance();
    const of = this.signed(depth + 1);
    return { kind: 'unary', op: text as '-' | '+' | 'not', of, at: of.at };
  }

  private primary(depth: number): FormulaNode {
    const { kind, text, at } = this.token;
    if (kind === 'number') {
      this.advance();
      const value = Number(text);
      if (!(Math.abs(value) <= LARGEST_AMOUNT)) throw new FormulaError(`Numbers go up to ${LARGEST_AMOUNT}.`, at);
      return { kind: 'number', value, at };
    }
    if (kind === 'sign' && text === '(') {
      this.advance();
      const inner = this.choice(depth + 1);
      this.expect(')');
      return inner;
    }
    if (kind !== 'name' || Object.hasOwn(BINARY, text)) throw this.unexpected();
    this.advance();
    if (text === 'true' || text === 'false') return { kind: 'flag', value: text === 'true', at };
    return this.named(text, at, depth);
  }

  /** A name, with its party before it and its arguments behind it where it has them. */
  private named(first: string, at: number, depth: number): FormulaNode {
    const party = this.is('.') ? first : null;
    let name = first;
    if (party !== null) {
      this.advance();
      if (this.token.kind === 'name') name = this.advance().text;
      else throw new FormulaError(`Write a party and a name, as in ${first}.suit.`, at);
    }
    if (this.is('.')) throw new FormulaError(`Write a party and a name, as in source.${first}.`, at);
    if (!this.is('(')) return { kind: 'name', party, name, at };
    this.advance();
    const args: FormulaNode[] = [];
    while (!this.is(')')) {
      if (args.length > 0) this.expect(',');
      args.push(this.choice(depth + 1));
    }
    this.advance();
    return { kind: 'call', party, name, args, at };
  }
}

const tooDeep = (at: number) => new FormulaError(`A formula may be nested ${DEEPEST} deep at most.`, at);

/** @throws FormulaError where a formula is nested too deep; parentheses that change nothing do not count */
function checkDepth(node: FormulaNode, depth = 0): void {
  if (depth > DEEPEST) throw tooDeep(node.at);
  for (const inner of partsOf(node)) checkDepth(inner, depth + 1);
}

function partsOf(node: FormulaNode): readonly FormulaNode[] {
  switch (node.kind) {
    case 'unary':
      return [node.of];
    case 'binary':
      return [node.left, node.right];
    case 'choice':
      return [node.test, node.then, node.else];
    case 'call':
      return node.args;
    default:
      return [];
  }
}

/**
 * Reads a formula.
 * @throws FormulaError with the offset where reading stopped
 */
export function parseFormula(text: string): FormulaNode {
  if (text.trim() === '') throw new FormulaError('A formula is expected here.', 0);
  if (text.length > LONGEST_FORMULA)
    throw new FormulaError(`A formula has at most ${LONGEST_FORMULA} characters; this one has ${text.length}.`, LONGEST_FORMULA);
  const comma = /^\s*(-?\d+),(\d+)\s*$/.exec(text);
  if (comma) throw new FormulaError(`Write decimals with a point: ${comma[1]}.${comma[2]}.`, text.indexOf(','));
  if (/^\s*-?\d+(\.\d+)?\s*(ms|s|secs?|seconds?|m|mins?|minutes?|h|hours?)\s*$/i.test(text))
    throw new FormulaError('A time is written as "2s" or "250ms", without a blank, and is not below 0.', 0);
  const foreign = /&&|\|\||\*\*|(?<![=!<>])=(?!=)|!(?!=)/.exec(text);
  if (foreign) throw new FormulaError(`Write ${FOREIGN[foreign[0]]} instead of ${foreign[0]}.`, foreign.index);
  const node = new Parser(text).whole();
  checkDepth(node);
  return node;
}
