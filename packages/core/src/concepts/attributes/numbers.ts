import type { Amount, CompileContext } from '../../ruleset/context.js';
import type { Attribute, Holding } from './compile.js';
import type { AttributeEntry } from './schema.js';

/** The value that an amount has when an actor of a type appears, where numbers alone tell: bare names are followed. */
export function atStart(
  all: readonly Attribute[],
  index: (id: string) => number,
  amount: Amount | undefined,
  type: number,
  depth = 0,
): number | undefined {
  if (!amount?.bare || depth > 8) return amount?.constant;
  const target = all[index(amount.bare.id)];
  const start = target.starts[type];
  if (start?.amount) return atStart(all, index, start.amount, type, depth + 1);
  const most = atStart(all, index, target.max, type, depth + 1);
  return most === undefined ? undefined : most * (start?.share ?? 1);
}

/** Stands for all kinds of actor where none has an attribute. */
const NOBODYS = { type: -1, place: -1, start: undefined };

/**
 * What numbers alone can tell: a minimum above the maximum, a start beyond a bound. A bare name is followed to the number
 * it starts with; a formula that computes is left to the running world, which keeps every value between its bounds.
 */
export function checkNumbers(
  context: CompileContext,
  entry: AttributeEntry,
  i: number,
  all: readonly Attribute[],
  holders: readonly Holding[],
): void {
  const attribute = all[i];
  const index = (id: string) => context.index('attributes', id);
  const value = (amount: Amount | undefined, type: number) => atStart(all, index, amount, type);
  for (const { type: t, place, start: own } of holders.length > 0 ? holders : [NOBODYS]) {
    const low = value(attribute.min, t);
    const high = value(attribute.max, t);
    if (low !== undefined && high !== undefined && low > high)
      return context.problem(['attributes', i, 'min'], `The minimum ${low} is above the maximum ${high}.`);
    const path = own === undefined ? ['attributes', i, 'start'] : ['actors', t, 'attributes', place, 'start'];
    const amounts = attribute.starts[t]?.amount ?? (entry.start === undefined ? undefined : ownStart(context, entry, path));
    for (const start of startsOf(entry, own ?? entry.start, value(amounts, t))) {
      if (high !== undefined && start > high) return context.problem(path, `The start ${start} is above the maximum ${high}.`);
      if (low !== undefined && start < low) return context.problem(path, `The start ${start} is below the minimum ${low}.`);
      if (attribute.whole && start !== Math.floor(start))
        return context.problem(path, `${entry.label} is a whole number, and ${start} is not.`);
    }
  }
}

function ownStart(context: CompileContext, { start }: AttributeEntry, path: readonly (string | number)[]): Amount | undefined {
  return start === undefined || start === 'full' || (typeof start === 'object' && 'share' in start)
    ? undefined
    : context.amount(start, path);
}

/** The numbers that a start can come to, as far as they are known: both ends of a range of luck. */
function startsOf({ whole, kind }: AttributeEntry, source: AttributeEntry['start'], known: number | undefined): readonly number[] {
  if (typeof source === 'object' && 'random' in source)
    return source.whole || whole || kind === 'counter' ? [Math.ceil(source.random[0]), Math.floor(source.random[1])] : source.random;
  return known === undefined ? [] : [known];
}
