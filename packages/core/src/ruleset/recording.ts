import type { Amount, CompileContext, CompiledThen } from './context.js';

/** Whether something that was read has in another compilation what it had. */
type StillHolds = (context: CompileContext) => boolean;

/** What was read, and what was kept under a number, while one entry was compiled. */
export class Recording {
  private readonly reads = new Map<string, StillHolds>();
  readonly pieces: (readonly [number, CompiledThen])[] = [];
  readonly amounts: (readonly [number, Amount])[] = [];
  readonly aliases: (readonly [string, string])[] = [];
  /** Something was read of which nothing tells when it changes, or something is wrong: it is compiled again next time. */
  spoiled = false;

  /** Notes that something was read: what it is, and how to tell whether it is still the same. */
  read(what: string, stillHolds: StillHolds): void {
    if (!this.reads.has(what)) this.reads.set(what, stillHolds);
  }

  holdsIn(context: CompileContext): boolean {
    for (const stillHolds of this.reads.values()) if (!stillHolds(context)) return false;
    return true;
  }
}

/** What an entry came to in a piece of work, and what that follows from. */
export interface Made {
  readonly value: unknown;
  readonly position: number;
  /** What it was made with beside the entry and what was read. */
  readonly beside: readonly unknown[];
  readonly recording: Recording;
}

/** What entries came to, by the entry and the piece of work. An entry is the same as long as its object is. */
export class MadeBefore {
  private readonly all = new WeakMap<object, Map<string, Made>>();

  get(entry: object, work: string): Made | undefined {
    return this.all.get(entry)?.get(work);
  }

  set(entry: object, work: string, made: Made): void {
    const of = this.all.get(entry);
    if (of) of.set(work, made);
    else this.all.set(entry, new Map([[work, made]]));
  }
}

/** The list before where it has the same items as this one, so that what was worked out from it still holds. */
export function sameList<T>(before: readonly T[] | undefined, now: readonly T[]): readonly T[] {
  return before?.length === now.length && before.every((item, i) => item === now[i]) ? before : now;
}

/** Whether two lists have the same items. */
export const sameItems = <T>(before: readonly T[], now: readonly T[]): boolean => sameList(before, now) === before;

/** Whether two sets have the same members. */
export const sameMembers = <T>(before: ReadonlySet<T>, now: ReadonlySet<T>): boolean =>
  before.size === now.size && [...before].every((one) => now.has(one));

/** So deep is looked whether parts are the same that are other objects. */
const DEEPEST = 6;

/** What something came to before where it is the same part by part: lists, maps and values by name, in the end the same objects. */
export function sameParts<T>(before: unknown, now: T): T {
  return isSame(before, now, DEEPEST) ? (before as T) : now;
}

function isSame(before: unknown, now: unknown, depth: number): boolean {
  if (Object.is(before, now)) return true;
  if (depth === 0 || typeof before !== 'object' || typeof now !== 'object' || before === null || now === null) return false;
  if (Object.getPrototypeOf(before) !== Object.getPrototypeOf(now)) return false;
  if (before instanceof Map || before instanceof Set)
    return isSame([...before], [...(now as ReadonlyMap<unknown, unknown> | ReadonlySet<unknown>)], depth);
  if (ArrayBuffer.isView(before)) return false;
  const others = now as Readonly<Record<string, unknown>>;
  const keys = Object.keys(before);
  return (
    keys.length === Object.keys(now).length &&
    keys.every((key) => key in now && isSame((before as Readonly<Record<string, unknown>>)[key], others[key], depth - 1))
  );
}
