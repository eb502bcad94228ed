import type { FormulaNode } from './parser.js';

/** Everything between two numbers, ends included. A condition is a range of 0 (no) to 1 (yes). */
export interface Range {
  readonly low: number;
  readonly high: number;
}

export const ANY: Range = { low: -Infinity, high: Infinity };
export const exactly = (value: number): Range => ({ low: value, high: value });
const MAYBE: Range = { low: 0, high: 1 };
const NO = exactly(0);
const YES = exactly(1);

/** What is known of the names and the calls with an entry that a formula has. */
export interface Known {
  readonly name: (party: string | null, name: string) => Range;
  readonly call: (party: string | null, name: string, entry: string) => Range;
}

/**
 * Between what a formula can be, from what the names in it can be: interval arithmetic, so every value that it takes is in
 * the range, though not every value in the range need be taken. Sound for saying "never", not for saying "sometimes".
 */
export function rangeOf(node: FormulaNode, known: Known): Range {
  switch (node.kind) {
    case 'number':
      return exactly(node.value);
    case 'flag':
      return node.value ? YES : NO;
    case 'name':
      return known.name(node.party, node.name);
    case 'unary':
      return unary(node.op, rangeOf(node.of, known));
    case 'binary': {
      if (node.op === 'and' && excludesItself(node)) return NO;
      return binary(node.op, rangeOf(node.left, known), rangeOf(node.right, known));
    }
    case 'choice': {
      const test = rangeOf(node.test, known);
      if (test.low === 1) return rangeOf(node.then, known);
      if (test.high === 0) return rangeOf(node.else, known);
      return joined(rangeOf(node.then, known), rangeOf(node.else, known));
    }
    case 'call':
      return call(node, known);
  }
}

/** What is asked for at once, `a and b and c`, one by one. */
const allOf = (node: FormulaNode): readonly FormulaNode[] =>
  node.kind === 'binary' && node.op === 'and' ? [...allOf(node.left), ...allOf(node.right)] : [node];

const MIRRORED: Readonly<Record<string, string>> = { '<': '>', '<=': '>=', '>': '<', '>=': '<=', '==': '==' };

/** Whether several things are asked of one and the same that are never so together, as in `scrip > 5 and scrip < 2`. */
function excludesItself(node: FormulaNode): boolean {
  const asked = new Map<string, { low: number; high: number; without: boolean }>();
  for (const one of allOf(node)) {
    if (one.kind !== 'binary' || MIRRORED[one.op] === undefined) continue;
    const [what, number, op] = one.right.kind === 'number' ? [one.left, one.right, one.op] : [one.right, one.left, MIRRORED[one.op]];
    if (number.kind !== 'number' || (what.kind !== 'name' && what.kind !== 'call')) continue;
    const key = keyOf(what);
    const range = asked.get(key) ?? { low: -Infinity, high: Infinity, without: false };
    if (op !== '<' && op !== '<=' && number.value >= range.low) {
      range.without = op === '>' || (range.without && number.value === range.low);
      range.low = number.value;
    }
    if (op !== '>' && op !== '>=') range.high = Math.min(range.high, op === '<' ? below(number.value) : number.value);
    if (range.high < range.low || (range.high === range.low && range.without)) return true;
    asked.set(key, range);
  }
  return false;
}

/** As near below a number as makes no difference to what rules count in. */
const below = (value: number) => value - 1e-6;

const keyOf = (node: FormulaNode): string => JSON.stringify(node, (key, value: unknown) => (key === 'at' ? undefined : value));

const joined = (a: Range, b: Range): Range => ({ low: Math.min(a.low, b.low), high: Math.max(a.high, b.high) });
/** Nothing comes of a sum or product that has no value, such as one of opposite infinities. */
const span = (values: readonly number[]): Range =>
  values.some((value) => Number.isNaN(value)) ? ANY : { low: Math.min(...values), high: Math.max(...values) };

function unary(op: '-' | '+' | 'not', { low, high }: Range): Range {
  if (op === 'not') return { low: high === 0 ? 1 : 0, high: low === 1 ? 0 : 1 };
  return op === '-' ? { low: -high, high: -low } : { low, high };
}

const decided = (yes: boolean, no: boolean): Range => (yes ? YES : no ? NO : MAYBE);

function binary(op: string, a: Range, b: Range): Range {
  switch (op) {
    case 'and':
      return { low: Math.min(a.low, b.low), high: Math.min(a.high, b.high) };
    case 'or':
      return { low: Math.max(a.low, b.low), high: Math.max(a.high, b.high) };
    case '<':
      return decided(a.high < b.low, a.low >= b.high);
    case '<=':
      return decided(a.high <= b.low, a.low > b.high);
    case '>':
      return decided(a.low > b.high, a.high <= b.low);
    case '>=':
      return decided(a.low >= b.high, a.high < b.low);
    case '==':
      return decided(a.low === a.high && b.low === b.high && a.low === b.low, a.high < b.low || a.low > b.high);
    case '!=':
      return unary('not', binary('==', a, b));
    case '+':
      return span([a.low + b.low, a.high + b.high]);
    case '-':
      return span([a.low - b.high, a.high - b.low]);
    case '*':
      return span([a.low * b.low, a.low * b.high, a.high * b.low, a.high * b.high]);
    case '/':
      return b.low <= 0 && b.high >= 0 ? ANY : span([a.low / b.low, a.low / b.high, a.high / b.low, a.high / b.high]);
    default:
      return ANY;
  }
}

function call(node: Extract<FormulaNode, { kind: 'call' }>, known: Known): Range {
  const [first] = node.args;
  const of = () => node.args.map((arg) => rangeOf(arg, known));
  switch (node.name) {
    case 'min':
      return of().reduce((a, b) => ({ low: Math.min(a.low, b.low), high: Math.min(a.high, b.high) }));
    case 'max':
      return of().reduce((a, b) => ({ low: Math.max(a.low, b.low), high: Math.max(a.high, b.high) }));
    case 'clamp': {
      const [value, low, high] = of();
      return { low: Math.max(low.low, Math.min(value.low, high.low)), high: Math.min(high.high, Math.max(value.high, low.high)) };
    }
    case 'floor':
    case 'ceil':
    case 'round': {
      const [{ low, high }] = of();
      return { low: Math.floor(low), high: Math.ceil(high) };
    }
    case 'abs': {
      const [{ low, high }] = of();
      return { low: low <= 0 && high >= 0 ? 0 : Math.min(Math.abs(low), Math.abs(high)), high: Math.max(Math.abs(low), Math.abs(high)) };
    }
    default:
      return first?.kind === 'name' ? known.call(node.party, node.name, first.name) : ANY;
  }
}
