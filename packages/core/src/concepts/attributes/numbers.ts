import type { Amount, CompileContext } from '../../ruleset/context.js';
import type { ActorEntry } from '../actors/index.js';
import type { Attribute, CompiledAttributes, Holding, Start } from './compile.js';
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
    const wrong = wrongStart(entry, attribute, startsOf(entry, own ?? entry.start, value(amounts, t)), low, high);
    if (wrong) return context.problem(path, wrong);
  }
}

/** What is wrong with the numbers that a start can come to; undefined where nothing is. */
function wrongStart(
  { label }: AttributeEntry,
  { whole }: Attribute,
  starts: readonly number[],
  low: number | undefined,
  high: number | undefined,
): string | undefined {
  for (const start of starts) {
    if (high !== undefined && start > high) return `The start ${start} is above the maximum ${high}.`;
    if (low !== undefined && start < low) return `The start ${start} is below the minimum ${low}.`;
    if (whole && start !== Math.floor(start)) return `${label} is a whole number, and ${start} is not.`;
  }
  return undefined;
}

/** What is wrong with what one actor of a kind begins with otherwise than its kind; undefined where nothing is. */
export function startProblem(
  context: CompileContext,
  { list, entries }: CompiledAttributes,
  index: number,
  type: number,
  source: AttributeEntry['start'],
  { amount }: Start,
): string | undefined {
  const value = (one: Amount | undefined) => atStart(list, (id) => context.index('attributes', id), one, type);
  const starts = startsOf(entries[index], source, value(amount));
  return wrongStart(entries[index], list[index], starts, value(list[index].min), value(list[index].max));
}

/** What an actor of a kind needs beside an attribute that it has: what its bounds and its start follow from. */
export function checkNeeds(context: CompileContext, entry: AttributeEntry, attribute: Attribute, all: readonly Attribute[]): void {
  const kinds = context.entries<ActorEntry>('actors');
  attribute.present.forEach((present, type) => {
    if (!present) return;
    const k = kinds[type].attributes.findIndex((one) => one.attribute === entry.id);
    const parts = [
      ['maximum', attribute.max],
      ['minimum', attribute.min],
      ['start', attribute.starts[type].amount],
    ] as const;
    for (const [what, amount] of parts)
      for (const { chapter, id, party } of amount?.references ?? []) {
        if (chapter !== 'attributes' || party !== null || all[context.index('attributes', id)].present[type]) continue;
        context.problem(
          ['actors', type, 'attributes', k, 'attribute'],
          `${kinds[type].label} has ${entry.label}, whose ${what} follows from ${id}, but not ${id}: it would be 0. Add ${id} to its attributes.`,
        );
        return;
      }
  });
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
