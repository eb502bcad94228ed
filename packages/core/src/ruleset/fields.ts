import { z } from 'zod';
import type { PartyName } from '../formula/index.js';
import { LARGEST_AMOUNT } from '../math/grid.js';
import { described } from './described.js';
import { type Fits, inForm, marks } from './marks.js';

// A strict content security policy forbids the code generation that the validator would otherwise try first.
z.config({ jitless: true });

export const ID_PATTERN = /^[a-z][A-Za-z0-9]{0,47}$/;

/** Makes a schema once for each way to ask for it: they never change, and making thousands of them takes longer than reading a ruleset. */
function once<A extends readonly unknown[], S>(make: (...args: A) => S): (...args: A) => S {
  const made = new Map<string, S>();
  return (...args) => {
    const key = JSON.stringify(args);
    if (!made.has(key)) made.set(key, make(...args));
    return made.get(key)!;
  };
}

/** Words that formulas keep for themselves: an entry called so could not be spoken of. */
const RESERVED = ['and', 'or', 'not', 'true', 'false', 'self', 'owner', 'source', 'target'];

/** The id of an entry: camelCase, at most 48 characters. */
export const id = once(() =>
  z
    .string('An id is expected.')
    .regex(ID_PATTERN, 'An id is camelCase: a small letter, then letters and digits, at most 48 in all.')
    .refine((text) => !RESERVED.includes(text), 'Formulas keep this word for themselves: choose another id.'),
);

export const label = once(() =>
  z
    .string('A label is expected.')
    .min(1, 'A label is expected.')
    .max(80, 'A label has at most 80 characters.')
    .regex(/^[^\p{Cc}\p{Cs}]*$/u, 'A label has no control characters.'),
);

/** What every entry of every chapter has. */
export const entryFields = () => ({
  id: id(),
  label: label(),
  note: z.string().max(2000).optional(),
  /** Ids that it had before, newest last: what was saved under them follows. */
  formerly: z.array(id()).max(50).optional(),
});

/**
 * The id of an entry of `chapter`. That it exists is checked after the shape.
 * @param kinds the kinds of entry that make sense there, where not all do, or what other fields of it have to be: what is offered, while whoever reads it says why
 */
export const reference = once((chapter: string, kinds?: readonly string[] | Fits) =>
  z
    .string('An id is expected.')
    .max(48)
    .register(marks, {
      kind: 'reference',
      chapter,
      ...(kinds && { fits: 'length' in kinds ? { kind: kinds as readonly string[] } : (kinds as Fits) }),
    }),
);

/** As {@link reference}, in an item of a list that is nothing without the entry: it goes where the entry is deleted. */
export const belonging = once((chapter: string) =>
  z.string('An id is expected.').max(48).register(marks, { kind: 'reference', chapter, belongs: true }),
);

/** As {@link reference}, where the entry is only spoken of: what ends it, or stands against it, brings nothing of it about. */
export const mention = once((chapter: string) =>
  z.string('An id is expected.').max(48).register(marks, { kind: 'reference', chapter, mentions: true }),
);

const DURATION = /^(\d{1,7}(?:\.\d{1,3})?)(ms|s)$/;
export const LONGEST_MS = 24 * 3600 * 1000;

/** A time span such as `250ms` or `1.5s`, at most a day. */
export const duration = once(() =>
  inForm(
    'duration',
    z
      .string('A time is expected, such as "1.5s" or "250ms".')
      .regex(DURATION, 'A time is expected, such as "1.5s" or "250ms".')
      .refine((text) => !DURATION.test(text) || toMilliseconds(text) <= LONGEST_MS, 'A time is at most a day: "86400s".'),
  ),
);

/** Milliseconds of an authored time span. */
export function toMilliseconds(text: string): number {
  const match = DURATION.exec(text);
  if (!match) throw new RangeError(`"${text}" is not a time`);
  return match[2] === 's' ? Number(match[1]) * 1000 : Number(match[1]);
}

export const finite = once(() =>
  z
    .number('A number is expected.')
    .min(-LARGEST_AMOUNT, `Numbers go from -${LARGEST_AMOUNT} to ${LARGEST_AMOUNT}.`)
    .max(LARGEST_AMOUNT, `Numbers go from -${LARGEST_AMOUNT} to ${LARGEST_AMOUNT}.`),
);

const formulaText = once((yields: 'amount' | 'condition', parties: readonly PartyName[], event: readonly string[] = []) =>
  z.string().min(1).max(500).register(marks, { kind: 'formula', place: { yields, parties, event } }),
);

/** An amount that is drawn anew each time it is asked for. */
export interface RandomAmount {
  readonly random: readonly [number, number];
  readonly whole?: boolean;
}
export type AmountSource = number | string | RandomAmount;

const AMOUNT_EXPECTED = 'A number, a formula or { "random": [least, most] } is expected.';

/** A number, a formula, or a random number between two. */
export const amount = once((parties: readonly PartyName[] = [], event: readonly string[] = []) =>
  inForm(
    'amount',
    z.union(
      [
        finite(),
        formulaText('amount', parties, event),
        z
          .strictObject({ random: z.tuple([finite(), finite()]), whole: z.boolean().optional() })
          .refine((r) => r.random[0] <= r.random[1], 'The least comes first: it is above the most.'),
      ],
      AMOUNT_EXPECTED,
    ),
  ),
);

/** A number or a formula: a quantity that luck has no part in, such as a bound. */
export const steadyAmount = once((parties: readonly PartyName[] = []) =>
  inForm('steadyAmount', z.union([finite(), formulaText('amount', parties)], 'A number or a formula is expected.')),
);

/** What a value begins with: an amount, `full` for its maximum, or a share of that. */
export const start = once(() =>
  inForm(
    'start',
    z.union(
      [
        z.literal('full'),
        z.strictObject({ share: z.number().min(0, 'A share is 0 to 1.').max(1, 'A share is 0 to 1.') }),
        ...amount().def.options,
      ],
      'A number, a formula, "full", { "share": 0 to 1 } or { "random": [least, most] } is expected.',
    ),
  ),
);
export type StartSource = AmountSource | { readonly share: number };

/** A formula over amounts that stand here alone, such as the level of a curve; luck has no part in it. */
export const amountOver = once((locals: readonly string[]) =>
  inForm(
    'amountOver',
    z.union(
      [
        finite(),
        z
          .string()
          .min(1)
          .max(500)
          .register(marks, { kind: 'formula', place: { yields: 'amount', parties: [], locals } }),
      ],
      `A number or a formula over ${locals.join(', ')} is expected.`,
    ),
  ),
);

/** A formula that yields yes or no. */
export const condition = (parties: readonly PartyName[] = [], event: readonly string[] = []) => formulaText('condition', parties, event);

/** A time such as "8s", or a number or formula that yields seconds. */
export const timeAmount = once((parties: readonly PartyName[] = []) =>
  inForm(
    'timeAmount',
    z.union([duration(), finite(), formulaText('amount', parties)], 'A time such as "8s", or a formula that yields seconds, is expected.'),
  ),
);
export const isDuration = (text: unknown): text is string => typeof text === 'string' && DURATION.test(text);

/** A share of a whole, from 0 to 1; said in percents. */
export const share = once(() => inForm('share', z.number('A share is 0 to 1.').min(0, 'A share is 0 to 1.').max(1, 'A share is 0 to 1.')));

/** One of a few words, each with what a sentence says for it, and what a list of them says besides. */
export const word = <const T extends readonly [string, ...string[]]>(
  list: T,
  words: Readonly<Record<T[number], string>>,
  hints?: Readonly<Record<T[number], string>>,
) => described(z.enum(list, `One of ${list.join(', ')} is expected.`), { words, ...(hints && { hints }) });

/** Yes or no, each as a sentence says it. */
export const yesOrNo = (yes: string, no: string) => described(z.boolean('true or false is expected.'), { words: { true: yes, false: no } });

const SEEN_BY = { owner: 'its owner', team: 'the crew', everyone: 'everyone' };
/** Who is told of something. */
export const visibility = once(() => word(['owner', 'team', 'everyone', 'server'], { ...SEEN_BY, server: 'the server alone' }));
/** Who is told of something that some player is told of. */
export const seenBySome = once(() => word(['owner', 'team', 'everyone'], SEEN_BY));

/** A CSS colour as `#rrggbb`. */
export const colour = () => z.string().regex(/^#[0-9a-f]{6}$/i, 'A colour is expected, as #rrggbb.');

/** A text with formulas in braces. `fields` are amounts that can be read under the name of `carrier`, as in `{ability.cast}`. */
export const textWithFormulas = (carrier: string, fields: readonly string[]) =>
  z
    .string('A text is expected.')
    .min(1, 'A text is expected.')
    .max(600, 'A text has at most 600 characters.')
    .register(marks, { kind: 'formula', place: { yields: 'text', parties: [], event: fields, carrier } });
