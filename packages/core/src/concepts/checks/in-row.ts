import { z } from 'zod';
import { descriptions } from '../../ruleset/described.js';
import { formOf } from '../../ruleset/marks.js';
import { definitionOf } from '../../ruleset/walk.js';

const WHOLE = /^row\.([A-Za-z][A-Za-z0-9]*)$/;
const ANYWHERE = /\brow\.([A-Za-z][A-Za-z0-9]*)/g;

/** The column that a text asks a row for, where it says nothing else. */
export const wholeColumn = (text: unknown): string | undefined => (typeof text === 'string' ? WHOLE.exec(text)?.[1] : undefined);

/** A formula with a number of the same length wherever it says what a row has, so that the rest of it can be read. */
export const asFormula = (text: string) => text.replace(ANYWHERE, (said) => '0'.padEnd(said.length));

/** The columns that a text asks a row for. */
export const columnsIn = (text: string): readonly string[] => [...text.matchAll(ANYWHERE)].map(([, name]) => name);

/** A text with what a row has in its place: where it says nothing else, the very value. */
export function withRow(text: string, row: Readonly<Record<string, number | string>>): number | string {
  const whole = wholeColumn(text);
  if (whole !== undefined && Object.hasOwn(row, whole)) return row[whole];
  return text.replace(ANYWHERE, (said, name: string) => (Object.hasOwn(row, name) ? `(${row[name]})` : said));
}

// What is no such text is not meant to be one: then only the value is spoken of.
const inRow = z.string().regex(WHOLE, { abort: true });
descriptions.add(inRow, { standsIn: true });

/**
 * A value, or what a row of a table has in its place, as `row.name`. The type is that of the value: nobody runs a check before
 * what its row has stands in it, and it was read once more.
 */
export function orRow<S extends z.ZodType>(schema: S): z.ZodType<z.output<S>> {
  const either: z.ZodType<unknown> = z.union([schema, inRow], {
    // What is wrong with it as a value: that is what mostly was meant.
    error: ({ errors }) => (errors as readonly (readonly z.core.$ZodIssue[])[] | undefined)?.[0]?.[0]?.message,
  });
  const said = descriptions.get(schema);
  if (said) descriptions.add(either, said);
  return either as z.ZodType<z.output<S>>;
}

/** Numbers, times, words, and yes or no: of these a row can have one. */
const isPlain = (schema: z.ZodType) => {
  const { type } = definitionOf(schema);
  return type === 'number' || type === 'enum' || type === 'boolean' || formOf(schema) === 'duration';
};

function argument(schema: z.ZodType): z.ZodType {
  const { type, innerType, defaultValue } = definitionOf(schema);
  if (type === 'optional') return argument(innerType!).optional();
  if (type === 'default') return argument(innerType!).default(defaultValue);
  return isPlain(schema) ? orRow(schema) : schema;
}

/** Objects that say by `do` what they are, with what a row has wherever one of their own values is plain. */
export function rowsIn<T>(requests: z.ZodType<T>): z.ZodType<T> {
  const { options = [] } = definitionOf(requests);
  const shapes: z.ZodType[] = options.map((option) => {
    const { do: name, ...args } = definitionOf(option).shape!;
    return z.strictObject({ do: name, ...Object.fromEntries(Object.entries(args).map(([key, arg]) => [key, argument(arg)])) });
  });
  const { error } = requests._zod.def as { readonly error?: z.core.$ZodErrorMap };
  const own: z.ZodType<unknown> = z.discriminatedUnion('do', shapes as [z.ZodObject, ...z.ZodObject[]], { error });
  return own as z.ZodType<T>;
}
