import { z } from 'zod';
import { sameAs } from './marks.js';

/**
 * What is said of a field beyond its shape, where it is one of an entry or an action. In what is said, `{entry}` is the label of
 * the entry that it stands in, `{value}` what is written, and any other name in braces the field of that name beside it.
 */
export interface Description {
  /** How much something is, in words, as `{entry} costs {value}`; below 0 it makes no sense. An action's begins with its verb. */
  readonly amount?: string;
  /** The field beside it that says of which attribute it is an amount. */
  readonly of?: string;
  /** Whether an amount of 0 means something. */
  readonly zero?: true;
  /** The action that does the opposite, for an amount below 0. */
  readonly opposite?: string;
  /** What is wrong with a time of 0 here, in words, as `{entry} is over as it begins`. */
  readonly atOnce?: string;
  /** Players read the text as it stands: nothing is put in the place of names in braces. */
  readonly shown?: true;
  /** The concept's own findings say whether the condition can ever hold. */
  readonly ownFindings?: true;
  /** What a number counts, as `degrees`. */
  readonly unit?: string;
  /** The words around a number, with `{value}` where it stands. */
  readonly says?: string;
  /** What a sentence says for each word that can stand there; for a yes or no, of `true` and `false`; for some of a few numbers. */
  readonly words?: Readonly<Record<string, string>>;
  /** What a list of those words says of each besides. */
  readonly hints?: Readonly<Record<string, string>>;
  /** What a sentence says where nothing is written, if that is not what stands there then. */
  readonly absent?: string;
  /** What a new one begins as. */
  readonly begins?: number | string;
  /** It is no value of its own, but stands for one that is found elsewhere: nothing is said of it where values are. */
  readonly standsIn?: true;
  /** What can be written, for who edits it. */
  readonly hint?: string;
}

export const descriptions = z.registry<Description>();

/** The same field, with more said of it. */
export function described<S extends z.ZodType>(schema: S, description: Description): S {
  const own = sameAs(schema, schema.clone());
  descriptions.add(own, { ...descriptions.get(schema), ...description });
  return own;
}
