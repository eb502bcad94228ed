import type { z } from 'zod';
import { marks, type Mark } from './fields.js';
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
  readonly discriminator?: string;
}

const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);

export const definitionOf = (schema: z.ZodType): Definition => schema._zod.def as Definition;

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
  const def = definitionOf(schema);
  switch (def.type) {
    case 'optional':
    case 'default':
    case 'prefault':
    case 'nullable':
    case 'readonly':
      return walk(def.innerType!, value, path, visit);
    case 'lazy':
      return walk(def.getter!(), value, path, visit);
    case 'pipe':
      return walk(def.in!, value, path, visit);
    case 'object':
      if (!isObject(value)) return;
      for (const [key, sub] of Object.entries(def.shape!)) walk(sub, value[key], [...path, key], visit);
      return;
    case 'array':
      if (Array.isArray(value)) value.forEach((item, i) => walk(def.element!, item, [...path, i], visit));
      return;
    case 'tuple':
      if (Array.isArray(value)) value.slice(0, def.items!.length).forEach((item, i) => walk(def.items![i], item, [...path, i], visit));
      return;
    case 'record':
      if (!isObject(value)) return;
      for (const [key, item] of Object.entries(value)) {
        const keyMark = marks.get(def.keyType!);
        if (keyMark) visit(keyMark, key, [...path, key], true);
        walk(def.valueType!, item, [...path, key], visit);
      }
      return;
    case 'union': {
      const option = optionFor(def, value);
      if (option) walk(option, value, path, visit);
      return;
    }
  }
}
