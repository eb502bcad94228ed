import { pointer, type Problem } from './problem.js';
import { mostEntries, registry } from './registry.js';
import { isObject } from './raw.js';

/** How many values a document may have, each text, number, list and object being one. */
export const MOST_VALUES = 400_000;
/** How deep a document may be nested. */
export const DEEPEST = 60;

/** How much there is of a value, itself included, and how many levels of lists and objects it has, as far as one more than {@link DEEPEST}. */
interface Size {
  readonly count: number;
  readonly depth: number;
}

/** What is known of values that do not change. */
export type Sizes = WeakMap<object, Size>;

/** The size of a value, level by level: nothing recursive touches it before it is known not to be too deep. */
function sizeOf(value: unknown): Size {
  let level: unknown[] = [value];
  let count = 1;
  for (let depth = 0; ; depth++) {
    const next: unknown[] = [];
    for (const item of level)
      if (typeof item === 'object' && item !== null) for (const one of Object.values(item) as unknown[]) next.push(one);
    count += next.length;
    if (next.length === 0 || depth > DEEPEST || count > MOST_VALUES) return { count, depth };
    level = next;
  }
}

/** The size of a document, entry by entry: of those that are known nothing is counted again. */
function sizeOfDocument(value: Readonly<Record<string, unknown>>, sizes: Sizes): Size {
  const known = (part: unknown): Size => {
    if (typeof part !== 'object' || part === null) return { count: 1, depth: 0 };
    const before = sizes.get(part);
    if (before) return before;
    const size = sizeOf(part);
    sizes.set(part, size);
    return size;
  };
  let count = 1;
  let depth = 0;
  for (const section of Object.values(value)) {
    const parts: readonly unknown[] = Array.isArray(section) ? section : [section];
    const levels = Array.isArray(section) ? 2 : 1;
    if (Array.isArray(section)) [count, depth] = [count + 1, Math.max(depth, 1)];
    for (const part of parts) {
      const size = known(part);
      count += size.count;
      depth = Math.max(depth, levels + size.depth);
      if (count > MOST_VALUES) return { count, depth };
    }
  }
  return { count, depth };
}

/** What no ruleset is, however it goes on: told before anything is worked on that grows with it. */
export function beyondLimits(value: unknown, sizes: Sizes): readonly Problem[] {
  const { count, depth } = isObject(value) ? sizeOfDocument(value, sizes) : sizeOf(value);
  if (count > MOST_VALUES)
    return [{ path: '', message: `This has more than ${MOST_VALUES} values, which is more than a ruleset may have.` }];
  if (depth > DEEPEST) return [{ path: '', message: `This is nested deeper than ${DEEPEST} levels, which no ruleset is.` }];
  if (!isObject(value)) return [];
  return [...registry().sections].flatMap(([key, section]) => {
    const list = section.kind === 'chapter' ? value[key] : undefined;
    const most = mostEntries(section);
    return Array.isArray(list) && list.length > most
      ? [{ path: pointer([key]), message: `A chapter has at most ${most} entries; this one has ${list.length}.` }]
      : [];
  });
}

/** Whether a value is nested deeper than any document of ours: asked before anything recursive touches it. */
export function isTooDeep(value: unknown): boolean {
  let level: unknown[] = [value];
  for (let depth = 0; depth <= DEEPEST; depth++) {
    level = level.flatMap((item): unknown[] => (typeof item === 'object' && item !== null ? Object.values(item) : []));
    if (level.length === 0) return false;
  }
  return true;
}
