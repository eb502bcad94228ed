import type { z } from 'zod';
import { type Description, descriptions } from './described.js';
import { marks, type Mark } from './marks.js';
import type { Path } from './problem.js';

/** The parts of the validator's own description of a schema that a walk needs. */
interface Definition {
  readonly type: string;
  readonly innerType?: z.ZodType;
  readonly shape?: Record<string, z.ZodType>;
  readonly element?: z.ZodType;
  readonly options?: readonly z.ZodType[];
  readonly items?: readonly z.ZodType[];
  readonly keyType?: z.ZodType;
  readonly valueType?: z.ZodType;
  readonly in?: z.ZodType;
  readonly getter?: () => z.ZodType;
  readonly entries?: Readonly<Record<string, string>>;
  readonly values?: readonly unknown[];
  readonly defaultValue?: unknown;
  readonly discriminator?: string;
}

const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);

export const definitionOf = (schema: z.ZodType): Definition => schema._zod.def as Definition;

const stoodFor = new WeakMap<z.ZodType, z.ZodType>();

/** What a schema stands for that is made when it is first asked for. It is made once: that takes longer than reading by it. */
export function lazilyMade(schema: z.ZodType): z.ZodType {
  let inner = stoodFor.get(schema);
  if (!inner) stoodFor.set(schema, (inner = definitionOf(schema).getter!()));
  return inner;
}

/** Whether an option of a discriminated union is the one that a value names. Nested lists would be parsed again and again otherwise. */
function names(option: z.ZodType, key: string, value: unknown): boolean {
  const { values } = definitionOf(option).shape![key]._zod as { values?: ReadonlySet<unknown> };
  return isObject(value) && values?.has(value[key]) === true;
}

/** The option of a union that a value is meant to be; undefined where it names none of them, or is of none of their shapes. */
export function optionFor({ discriminator, options }: Definition, value: unknown): z.ZodType | undefined {
  if (discriminator !== undefined) return options!.find((one) => names(one, discriminator, value));
  const possible = options!.filter((one) => mayBe(one, value));
  // Where only one can be, what is wrong within it is for whoever reads the shape to say.
  return possible.length === 1 ? possible[0] : possible.find((one) => one.safeParse(value).success);
}

/** Whether a value is of the kind that a schema is about, whatever else is asked of it; yes where that takes looking closer. */
function mayBe(schema: z.ZodType, value: unknown): boolean {
  switch (definitionOf(schema).type) {
    case 'string':
    case 'enum':
      return typeof value === 'string';
    case 'number':
    case 'boolean':
      return typeof value === definitionOf(schema).type;
    case 'object':
    case 'record':
      return isObject(value);
    case 'array':
    case 'tuple':
      return Array.isArray(value);
    default:
      return true;
  }
}

/** The chapter whose entries a field asks for; undefined where it asks for something else. */
export function entriesAskedFor(schema: z.ZodType): string | undefined {
  const mark = marks.get(schema);
  if (mark) return mark.kind === 'reference' ? mark.chapter : undefined;
  const { innerType } = definitionOf(schema);
  return innerType && entriesAskedFor(innerType);
}

/**
 * Visits every marked value of a document, in the order of the schema. What has another
 * shape than its schema says is passed over. `inKey` is set where the value is a property's name.
 */
export function walk(
  schema: z.ZodType,
  value: unknown,
  path: Path,
  visit: (mark: Mark, value: string, path: Path, inKey: boolean) => void,
): void {
  // Only texts mean more than their shape, and what texts stand in.
  if (value === undefined || value === null || typeof value === 'number' || typeof value === 'boolean') return;
  const mark = marks.get(schema);
  if (mark && typeof value === 'string') visit(mark, value, path, false);
  eachPart(schema, value, path, (part, inside, at, inKey) => {
    if (!inKey) return walk(part, inside, at, visit);
    const keyMark = marks.get(part);
    if (keyMark) visit(keyMark, String(inside), at, true);
  });
}

/** Visits every value that is described, in the order of the schema, numbers and texts alike; then what is within it. */
export function walkDescribed(
  schema: z.ZodType,
  value: unknown,
  path: Path,
  visit: (described: Description, value: unknown, path: Path) => void,
): void {
  if (value === undefined || value === null) return;
  const described = descriptions.get(schema);
  if (described) visit(described, value, path);
  if (typeof value === 'object' || definitionOf(schema).innerType)
    eachPart(schema, value, path, (part, inside, at, inKey) => void (inKey || walkDescribed(part, inside, at, visit)));
}

/** The parts of a value, each with its schema: what is within it, or the same value as the schema within this one has it. */
function eachPart(
  schema: z.ZodType,
  value: unknown,
  path: Path,
  visit: (schema: z.ZodType, value: unknown, path: Path, inKey: boolean) => void,
): void {
  const def = definitionOf(schema);
  switch (def.type) {
    case 'optional':
    case 'default':
    case 'prefault':
    case 'nullable':
    case 'readonly':
      return visit(def.innerType!, value, path, false);
    case 'lazy':
      return visit(lazilyMade(schema), value, path, false);
    case 'pipe':
      return visit(def.in!, value, path, false);
    case 'object':
      if (!isObject(value)) return;
      for (const [key, sub] of Object.entries(def.shape!)) visit(sub, value[key], [...path, key], false);
      return;
    case 'array':
      if (Array.isArray(value)) value.forEach((item, i) => visit(def.element!, item, [...path, i], false));
      return;
    case 'tuple':
      if (Array.isArray(value)) value.slice(0, def.items!.length).forEach((item, i) => visit(def.items![i], item, [...path, i], false));
      return;
    case 'record':
      if (!isObject(value)) return;
      for (const [key, item] of Object.entries(value)) {
        visit(def.keyType!, key, [...path, key], true);
        visit(def.valueType!, item, [...path, key], false);
      }
      return;
    case 'union': {
      const option = optionFor(def, value);
      if (option) visit(option, value, path, false);
      return;
    }
  }
}
