import { z } from 'zod';
import { isTime, marks, times } from './fields.js';

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
}

export const descriptions = z.registry<Description>();

/** The same field, with more said of it. */
export function described<S extends z.ZodType>(schema: S, description: Description): S {
  const own = schema.clone();
  const mark = marks.get(schema);
  if (mark) marks.add(own, mark);
  if (isTime(schema)) times.add(own);
  descriptions.add(own, description);
  return own;
}
