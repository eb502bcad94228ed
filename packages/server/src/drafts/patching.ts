import { DEEPEST, MOST_VALUES } from '@eager-ember/core';
import jsonPatch, { type Operation } from 'fast-json-patch';
import { create } from 'mutative';
import { Impossible } from '../errors.js';

/** How large a document may become, in characters of its JSON, give or take. As large as a request may be. */
export const LARGEST_DOCUMENT = 2 * 1024 * 1024;
/** How much a patch may copy, move, put in and take out in all, in the same measure. */
const MOST_WORK = 8 * LARGEST_DOCUMENT;

const TITLE = 'The patch does not fit the ruleset';

type Json = Readonly<Record<string, unknown>>;

/** How large a value is: characters of its JSON, give or take, and levels of lists and objects. */
interface Measure {
  readonly size: number;
  readonly depth: number;
}

/** Measures a value, as far as it is not beyond all limits: that is then beyond them too. */
function measured(value: unknown): Measure {
  if (value === undefined) return { size: 0, depth: 0 };
  let size = 0;
  let count = 0;
  let level: unknown[] = [value];
  let depth = -1;
  for (; level.length > 0; depth++) {
    const next: unknown[] = [];
    for (const item of level) {
      if (typeof item !== 'object' || item === null) {
        size += typeof item === 'string' ? item.length + 2 : String(item).length;
        continue;
      }
      const inside: unknown[] = Object.values(item);
      // What it stands in, and what is between its parts.
      size += 1 + Math.max(1, inside.length);
      if (!Array.isArray(item)) for (const name of Object.keys(item)) size += name.length + 3;
      count += inside.length;
      for (const one of inside) next.push(one);
    }
    if (depth > DEEPEST || size > LARGEST_DOCUMENT || count > MOST_VALUES) return { size: Math.max(size, LARGEST_DOCUMENT + 1), depth };
    level = next;
  }
  return { size, depth };
}

/** What stands at a place; undefined where there is nothing. */
function at(document: unknown, path: string): unknown {
  try {
    return jsonPatch.getValueByPointer(document, path);
  } catch {
    return undefined;
  }
}

const levels = (path: string) => path.split('/').length - 1;

/** What an operation takes away from where it works: in a list it makes room instead, unless it replaces. */
function replaced(document: unknown, { op, path }: Operation): unknown {
  if (op === 'remove' || op === 'replace') return at(document, path);
  if (op === 'test' || Array.isArray(at(document, path.slice(0, path.lastIndexOf('/'))))) return undefined;
  return at(document, path);
}

/** What an operation puts where it works. */
function put(document: unknown, operation: Operation): unknown {
  if (operation.op === 'add' || operation.op === 'replace') return operation.value;
  return operation.op === 'copy' || operation.op === 'move' ? at(document, operation.from) : undefined;
}

/** What an operation makes of a document, which stays as it is; whatever the operation leaves alone, both have. */
function applied(document: unknown, operation: Operation, index = 0): unknown {
  // What is put in is worked on by what follows; the patch is kept as it was sent.
  const own = structuredClone(operation);
  const from = 'from' in own ? own.from : '/';
  if (own.path === '' || from === '' || typeof document !== 'object' || document === null)
    return jsonPatch.applyOperation(document, own, true, false, true, index).newDocument;
  return create(document, (draft) => void jsonPatch.applyOperation(draft, own, true, true, true, index));
}

/** What a patch that fits makes of a document, which stays as it is; whatever the patch leaves alone, both have. */
export const patchedAsSent = (document: Json, patch: readonly Operation[]): Json =>
  patch.reduce<unknown>((now, operation) => applied(now, operation), document) as Json;

/**
 * A document with a JSON Patch (RFC 6902) applied; whatever it leaves alone, both have. It is bounded after every operation: a few
 * of them could otherwise double it again and again.
 * @throws Impossible where an operation does not fit, or makes the document too large or too deep
 */
export function patched(document: Json, patch: readonly Operation[]): Json {
  let now: unknown = document;
  let { size } = measured(now);
  let work = 0;
  patch.forEach((operation, index) => {
    const refuse = (why: string) => new Impossible(TITLE, `Operation ${index}: ${why}.`);
    const [gone, come] = [measured(replaced(now, operation)), measured(put(now, operation))];
    work += gone.size + come.size;
    const after = size + (operation.op === 'move' ? 0 : come.size) - gone.size;
    if (after > LARGEST_DOCUMENT) throw refuse('the ruleset would be larger than 2 MB');
    if (work > MOST_WORK) throw refuse('the patch copies and replaces more than eight times what a ruleset may have');
    if (levels(operation.path) + come.depth > DEEPEST) throw refuse(`the ruleset would be nested deeper than ${DEEPEST} levels`);
    try {
      now = applied(now, operation, index);
    } catch (error) {
      throw refuse((error as { name?: string }).name ?? 'it cannot be applied');
    }
    size = after;
  });
  if (typeof now !== 'object' || now === null || Array.isArray(now)) throw new Impossible(TITLE, 'A ruleset is an object, and stays one.');
  return now as Json;
}
