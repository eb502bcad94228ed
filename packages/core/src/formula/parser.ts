import jsep from 'jsep';
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

/** What our operators are mistaken for, and how to write them. */
const FOREIGN: Record<string, string> = { '&&': 'and', '||': 'or', '!': 'not', '=': '==', '**': '^' };

// The library exports its class beside the function, but declares no type for it.
const { Jsep } = jsep as unknown as { Jsep: JsepClass };

// The parser's tables are shared by all its users; nothing else in the core uses it.
Jsep.removeAllBinaryOps();
Jsep.removeAllUnaryOps();
Jsep.removeAllLiterals();
for (const [op, strength] of Object.entries(BINARY)) Jsep.addBinaryOp(op, strength);
// 2 ^ 3 ^ 2 is 2 ^ (3 ^ 2).
Jsep.addBinaryOp('^', 20, true);
Jsep.addUnaryOp('-').addUnaryOp('+').addUnaryOp('not');
Jsep.addLiteral('true', true).addLiteral('false', false);

interface JsepClass {
  new (text: string): { index: number; parse(): RawNode; gobbleIdentifier(): RawNode; gobbleNumericLiteral(): RawNode };
  removeAllBinaryOps(): void;
  removeAllUnaryOps(): void;
  removeAllLiterals(): void;
  addBinaryOp(op: string, strength: number, rightToLeft?: boolean): void;
  addUnaryOp(op: string): JsepClass;
  addLiteral(name: string, value: unknown): JsepClass;
}

interface RawNode {
  readonly type: string;
  readonly at?: number;
  readonly [key: string]: unknown;
}

/** The library's parser, telling where each name and number began: it keeps no positions of its own. */
class PositionedParser extends Jsep {
  override gobbleIdentifier(): RawNode {
    const at = this.index;
    return Object.assign(super.gobbleIdentifier(), { at });
  }
  override gobbleNumericLiteral(): RawNode {
    const at = this.index;
    return Object.assign(super.gobbleNumericLiteral(), { at });
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
  let raw: RawNode;
  try {
    raw = new PositionedParser(text).parse();
  } catch (error) {
    const { index, description } = error as { index?: number; description?: string };
    throw new FormulaError(
      `This can't be read: ${lowerFirst(description ?? 'unexpected end')}.`,
      Math.min(index ?? text.length, text.length),
    );
  }
  return convert(raw, text, 0);
}

function lowerFirst(text: string): string {
  return (
    text.charAt(0).toLowerCase() +
    text
      .slice(1)
      .replace(/ at character \d+$/, '')
      .replace(/\.$/, '')
  );
}

function convert(raw: RawNode, text: string, depth: number): FormulaNode {
  if (depth > DEEPEST) throw new FormulaError(`A formula may be nested ${DEEPEST} deep at most.`, raw.at ?? 0);
  const sub = (key: string) => convert(raw[key] as RawNode, text, depth + 1);
  switch (raw.type) {
    case 'Literal':
      return literal(raw);
    case 'Identifier':
      return { kind: 'name', party: null, name: raw['name'] as string, at: raw.at ?? 0 };
    case 'MemberExpression': {
      const { party, name, at } = member(raw, text);
      return { kind: 'name', party, name, at };
    }
    case 'UnaryExpression': {
      const of = sub('argument');
      return { kind: 'unary', op: raw['operator'] as '-', of, at: of.at };
    }
    case 'BinaryExpression': {
      const left = sub('left');
      if (raw['operator'] === '^') {
        // -x ^ 2 is read in two ways; a signed base is written out.
        if (left.kind === 'unary') throw new FormulaError('Write pow(-x, y), or -(x ^ y), for a power with a sign before it.', left.at);
        return { kind: 'call', party: null, name: 'pow', args: [left, sub('right')], at: left.at };
      }
      return { kind: 'binary', op: raw['operator'] as string, left, right: sub('right'), at: left.at };
    }
    case 'ConditionalExpression': {
      const test = sub('test');
      return { kind: 'choice', test, then: sub('consequent'), else: sub('alternate'), at: test.at };
    }
    case 'CallExpression': {
      const callee = raw['callee'] as RawNode;
      const { party, name, at } =
        callee.type === 'MemberExpression' ? member(callee, text) : { party: null, name: callee['name'] as string, at: callee.at ?? 0 };
      if (typeof name !== 'string') throw new FormulaError('Only a named function can be called.', at);
      return { kind: 'call', party, name, args: (raw['arguments'] as RawNode[]).map((a) => convert(a, text, depth + 1)), at };
    }
    case 'Compound':
      throw new FormulaError('One formula is expected; an operator is missing between two of its parts.', secondPart(raw));
    default:
      throw new FormulaError('Formulas know numbers, names, arithmetic, comparisons and functions only.', raw.at ?? 0);
  }
}

function literal(raw: RawNode): FormulaNode {
  const value = raw['value'];
  const at = raw.at ?? 0;
  if (typeof value === 'boolean') return { kind: 'flag', value, at };
  if (typeof value !== 'number') throw new FormulaError('Text is no part of a formula: refer to entries by their id, without quotes.', at);
  if (!(Math.abs(value) <= LARGEST_AMOUNT)) throw new FormulaError(`Numbers go up to ${LARGEST_AMOUNT}.`, at);
  return { kind: 'number', value, at };
}

function member(raw: RawNode, text: string): { party: string; name: string; at: number } {
  const object = raw['object'] as RawNode;
  const property = raw['property'] as RawNode;
  const at = object.at ?? 0;
  if (raw['computed'] || object.type !== 'Identifier' || property.type !== 'Identifier')
    throw new FormulaError(`Write a party and a name, as in source.${nameIn(text, at)}.`, at);
  return { party: object['name'] as string, name: property['name'] as string, at };
}

function nameIn(text: string, at: number): string {
  return /[A-Za-z]\w*/.exec(text.slice(at))?.[0] ?? 'suit';
}

function secondPart(raw: RawNode): number {
  const body = raw['body'] as RawNode[];
  return body[1]?.at ?? 0;
}
