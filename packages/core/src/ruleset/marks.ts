import { z } from 'zod';
import type { FormulaPlace } from '../formula/index.js';

/** Entries that make sense somewhere: of which each of these fields is one of some words. */
export type Fits = Readonly<Record<string, readonly string[]>>;

/** What a value in a ruleset means beyond its shape. Found by {@link walk}, wherever the value stands. */
export type Mark =
  | {
      readonly kind: 'reference';
      readonly chapter: string;
      /** What fields of the entry say, one of some words each, where not every entry makes sense. */
      readonly fits?: Fits;
      /** It only speaks of the entry, as what ends it does, and brings nothing of it about. */
      readonly mentions?: true;
      /** The item of a list that it stands in is about the entry, and goes with it. */
      readonly belongs?: true;
    }
  | { readonly kind: 'formula'; readonly place: FormulaPlace };

export const marks = z.registry<Mark>();

/** How a value is written, where the schema alone does not tell: a share from 0 to 1 is a number, and said in percents. */
export type Form =
  | 'amount'
  | 'steadyAmount'
  | 'amountOver'
  | 'start'
  | 'duration'
  | 'timeAmount'
  /** A time, or a stretch of a clip. */
  | 'length'
  | 'share'
  /** Several amounts of attributes, as `40 scrip and 2 brass fittings`. */
  | 'parts'
  | 'then'
  | 'party'
  | 'pattern';
const forms = z.registry<{ readonly form: Form }>();
export const formOf = (schema: z.ZodType): Form | undefined => forms.get(schema)?.form;

/** The same schema, whose values are written in a way that is their own. */
export function inForm<S extends z.ZodType>(form: Form, schema: S): S {
  forms.add(schema, { form });
  return schema;
}

/** What is known of a schema holds of a copy of it as well. */
export function sameAs<S extends z.ZodType>(schema: S, copy: S): S {
  const [mark, form] = [marks.get(schema), formOf(schema)];
  if (mark) marks.add(copy, mark);
  return form === undefined ? copy : inForm(form, copy);
}
