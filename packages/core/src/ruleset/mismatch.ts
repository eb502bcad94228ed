import type { z } from 'zod';
import { pointer, type Path, type Problem } from './problem.js';
import { partsMeantBy } from './also-called.js';
import { definitionOf, lazilyMade, optionFor } from './walk.js';
import { didYouMean, nearest } from './suggest.js';

/** Most names that are listed where none is near to what was written. */
const MOST_LISTED = 24;

/** Of several shapes the one that knows most of the names that a value has. */
function nearestOption(options: readonly z.ZodType[], value: unknown): z.ZodType | undefined {
  const shaped = options.filter((one) => ['object', 'array'].includes(definitionOf(one).type));
  const known = (one: z.ZodType) =>
    Object.keys((value ?? {}) as object).filter((key) => Object.hasOwn(definitionOf(one).shape ?? {}, key)).length;
  return shaped.reduce<z.ZodType | undefined>((best, one) => (best === undefined || known(one) > known(best) ? one : best), undefined);
}

/** The schema of the part at a path, as far as the document tells which of several it is. */
function schemaAt(schema: z.ZodType, value: unknown, path: Path): z.ZodType | undefined {
  const def = definitionOf(schema);
  if (def.innerType) return schemaAt(def.innerType, value, path);
  if (def.getter) return schemaAt(lazilyMade(schema), value, path);
  if (def.in) return schemaAt(def.in, value, path);
  if (def.type === 'union') {
    const option = optionFor(def, value) ?? nearestOption(def.options!, value);
    return option && schemaAt(option, value, path);
  }
  const [key, ...rest] = path;
  if (key === undefined) return schema;
  const inner = (value as Record<string | number, unknown> | undefined)?.[key];
  const part = def.shape?.[key] ?? def.element ?? def.items?.[Number(key)] ?? def.valueType;
  return part && schemaAt(part, inner, rest);
}

/** `{ "rate": … }`: an object as it would be written, with what it needs to have. */
function exampleOf(schema: z.ZodType | undefined): string {
  const shape = schema && definitionOf(schema).shape;
  if (!shape) return '{ … }';
  const needed = Object.keys(shape).filter((key) => !shape[key]._zod.optin);
  const keys = needed.length > 0 ? needed : Object.keys(shape).slice(0, 2);
  return `{ ${keys.map((key) => `"${key}": …`).join(', ')} }`;
}

const kindOf = (value: unknown) =>
  value === null
    ? 'null'
    : Array.isArray(value)
      ? 'a list'
      : typeof value === 'object'
        ? 'an object'
        : typeof value === 'string'
          ? 'a text'
          : `a ${typeof value}`;

/** What the validator says of itself, where a schema has no words of its own. */
const OWN_WORDS = /^Invalid input/;

/** Problems of a shape: what stands there, what was expected, and what may have been meant. */
export function problemsOf(issue: z.core.$ZodIssue, root: unknown, schema: z.ZodType): Problem[] {
  const path = issue.path as Path;
  const found = path.reduce<unknown>((value, key) => (value as Record<string | number, unknown> | undefined)?.[key], root);
  if (issue.code === 'unrecognized_keys') {
    const known = Object.keys(definitionOf(schemaAt(schema, root, path) ?? schema).shape ?? {});
    const there = new Set(Object.keys((found ?? {}) as object));
    return issue.keys.map((key) => ({ path: pointer([...path, key]), message: `"${key}" is not known here.${meant(key, known, there)}` }));
  }
  if (found === undefined && path.length > 0 && isMissing(issue)) return [{ path: pointer(path), message: missing(issue) }];
  const meantOption = issue.code === 'invalid_union' ? meantIn(issue.errors, found) : undefined;
  if (meantOption)
    return meantOption.flatMap((inner) => problemsOf({ ...inner, path: [...path, ...inner.path] } as z.core.$ZodIssue, root, schema));
  const own = OWN_WORDS.test(issue.message);
  if (issue.code !== 'invalid_type' || !own) return [{ path: pointer(path), message: issue.message }];
  return [{ path: pointer(path), message: expected(issue.expected, schemaAt(schema, root, path), found) }];
}

/** Of the options of a union the one that an object is meant to be: it has all parts that the option needs, and no other. */
function meantIn(options: readonly (readonly z.core.$ZodIssue[])[], found: unknown): readonly z.core.$ZodIssue[] | undefined {
  if (typeof found !== 'object' || found === null || Array.isArray(found)) return undefined;
  const fits = (issue: z.core.$ZodIssue) =>
    issue.path.length > 1 || (issue.path.length === 1 && issue.code !== 'invalid_value' && Object.hasOwn(found, issue.path[0]));
  const fitting = options.filter((issues) => issues.length > 0 && issues.every(fits));
  return fitting.length === 1 ? fitting[0] : undefined;
}

const isMissing = (issue: z.core.$ZodIssue) => issue.code === 'invalid_type' || issue.code === 'invalid_union';

function missing({ message }: z.core.$ZodIssue): string {
  return OWN_WORDS.test(message) ? 'This is missing.' : `This is missing. ${message}`;
}

function expected(what: string, schema: z.ZodType | undefined, found: unknown): string {
  const is = ` This is ${kindOf(found)}.`;
  if (what === 'array') {
    const element = schema && definitionOf(schema).element;
    return `A list is expected: [${element && definitionOf(element).shape ? exampleOf(element) : ' … '}].${is}`;
  }
  if (what === 'tuple') {
    const items = definitionOf(schema!).items?.length ?? 2;
    return `A list of ${items} is expected: ${items === 2 ? '[x, y]' : `[${Array.from({ length: items }, (_, i) => i + 1).join(', ')}]`}.${is}`;
  }
  if (what === 'object') return `An object is expected: ${exampleOf(schema)}.${is}`;
  if (what === 'boolean') return `true or false is expected.${is}`;
  if (what === 'string') return `A text is expected, in quotes.${is}`;
  return `A ${what} is expected.${is}`;
}

/** What was meant by a name that is not known: one that is near, one that means the same, or all that there are. */
function meant(key: string, known: readonly string[], there: ReadonlySet<string>): string {
  const same = partsMeantBy(key).find((name) => known.includes(name) && !there.has(name));
  if (same !== undefined && nearest(key, known) === undefined) return ` Did you mean "${same}"?`;
  const near = didYouMean(key, known);
  if (near !== '' || known.length === 0) return near;
  if (same !== undefined) return ` Did you mean "${same}"?`;
  const free = known.filter((name) => !there.has(name));
  const listed = free.slice(0, MOST_LISTED).join(', ');
  return free.length === 0 ? '' : ` There ${free.length === 1 ? 'is' : 'are'} ${listed}${free.length > MOST_LISTED ? ' and others' : ''}.`;
}
