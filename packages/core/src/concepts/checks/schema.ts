import { z } from 'zod';
import { described } from '../../ruleset/described.js';
import {
  duration,
  entryFields,
  finite,
  label,
  LONGEST_MS,
  reference,
  steadyAmount,
  word,
  yesOrNo,
  condition,
} from '../../ruleset/fields.js';
import { inForm } from '../../ruleset/marks.js';
import { pattern, registry } from '../../ruleset/registry.js';
import { defineChapter } from '../../ruleset/chapter.js';
import { seatName } from '../seats/index.js';
import { orRow, rowsIn, wholeColumn } from './in-row.js';

export const MOST_ROWS = 500;
/** More of them would be read, and held, and no more. */
export const MOST_CHECKS = 20_000;
/** So many of those that are asked for are run. */
export const MOST_RUN = 2000;
/** How an amount has to be. */
export const HOW = ['is', 'isNot', 'atLeast', 'atMost', 'between'] as const;
/** How often something has to happen. */
export const COUNTS = ['exactly', 'atLeast', 'atMost'] as const;
export const EVERYBODY = 'everyone';

/** Who is spoken of: one by name, all who were given, all of a kind, or all of a team. */
export const who = () =>
  described(
    z.union(
      [seatName(), z.strictObject({ every: reference('actors') }), z.strictObject({ crew: reference('teams') })],
      'Who is this about? A name, "everyone", { "every": kind of actor } or { "crew": team }.',
    ),
    { absent: EVERYBODY },
  );
export type Who = string | { readonly every: string } | { readonly crew: string };

const value = () => steadyAmount();
/** A stretch of time, or a number of seconds. */
const time = () =>
  inForm(
    'duration',
    z.union(
      [
        duration(),
        finite()
          .min(0, 'A time is 0 or more.')
          .max(LONGEST_MS / 1000, 'A time is at most a day: 86400.'),
      ],
      'A time is expected, such as "1.5s", or a number of seconds.',
    ),
  );
export type Time = string | number;

export const given = z.strictObject({
  /** What it is called in this check. */
  name: seatName(),
  /** The kind of actor; the first kind of player where nothing is said. A player takes a seat, any other is brought in. */
  actor: described(reference('actors'), { absent: 'player' }).optional(),
  team: described(reference('teams'), { absent: 'no team' }).optional(),
  x: orRow(finite()).optional(),
  y: orRow(finite()).optional(),
  /** What it has at the beginning. */
  with: z
    .array(
      z.strictObject({
        attribute: reference('attributes'),
        value: value(),
        /** The most that it can be: another attribute that says so is set, anything else has to say it. */
        atMost: value().optional(),
      }),
    )
    .max(50)
    .optional(),
  effects: z.array(reference('effects')).max(20).optional(),
  statuses: z.array(reference('statuses')).max(20).optional(),
  /** Its behaviour is left off; that of all others of its kind as well. */
  still: yesOrNo('stands still', 'does as it does').optional(),
  /** It is brought in by a step, and not there before. */
  later: yesOrNo('comes later', 'is there from the beginning').optional(),
});
export type Given = z.infer<typeof given>;

/** A rule that is other for this check alone. */
const change = () =>
  z.lazy(() => {
    const chapters = [...registry().sections].filter(([, section]) => section.kind === 'chapter' && !section.ahead && !section.tries);
    const options = chapters.map(([chapter]) =>
      z.strictObject({
        [chapter]: reference(chapter),
        /** The place below the entry, as `refill/rate`. */
        at: z.string().min(1).max(200),
        value: z.json(),
      }),
    );
    return z.union(
      options as never,
      'A change is { chapter: entry, "at": place below it, "value" }, as { "attributes": "suit", "at": "start", "value": 20 }.',
    );
  }) as z.ZodType<Change>;
export type Change = { readonly at: string; readonly value: unknown } & Readonly<Record<string, unknown>>;

const amountTest = {
  of: who().optional(),
  value: value(),
  how: word(HOW, { is: 'is', isNot: 'is not', atLeast: 'is at least', atMost: 'is at most', between: 'is between' }).default('is'),
  amount: value(),
  /** The upper end of what it is between. */
  and: value().optional(),
  /** So far off it may be. */
  tolerance: described(orRow(finite().min(0, 'A tolerance is 0 or more.')), { absent: '0' }).optional(),
};
const conditionTest = { of: who().optional(), that: condition() };
/** Time for it to come true in. */
const within = () => described(orRow(time()), { absent: 'then' }).optional();
/** Time before which it must not have come true, where it has time to. */
const notBefore = () => described(orRow(time()), { absent: 'as soon as it likes' }).optional();
const timed = { within: within(), notBefore: notBefore() };

const amountNow = z.strictObject({ ...amountTest, ...timed });
const conditionNow = z.strictObject({ ...conditionTest, ...timed });
const times = () =>
  described(orRow(z.int('A whole number is expected.').min(0, 'It is 0 or more.').max(100_000)), { absent: '1' }).default(1);
const eventTest = z.strictObject({
  /** Who plays the part in it that its pattern asks for; anybody where nothing is said. */
  of: described(who(), { absent: 'anyone' }).optional(),
  event: pattern(),
  count: word(COUNTS, { exactly: 'exactly', atLeast: 'at least', atMost: 'at most' }).default('exactly'),
  times: times(),
  /** What it has to come before. */
  before: pattern().optional(),
  /** The seat that has to be told of it to count. */
  toldTo: described(seatName(), { absent: 'nobody in particular' }).optional(),
  within: within(),
  /** How long after the beginning of the check it happens; what happens at another time does not count. */
  at: orRow(time()).optional(),
  /** So much earlier or later it may come; to the tick where nothing is said. */
  giveOrTake: described(orRow(time()), { absent: 'no time' }).optional(),
});
const refusedTest = z.strictObject({
  of: described(who(), { absent: 'anyone' }).optional(),
  /** Words that the refusal has in it; any will do where it is empty. */
  refused: z.string().max(300),
});
const readsTest = z.strictObject({
  /** A seat, and words that it is shown: of what happened, of a refusal, of a flourish. */
  seat: seatName(),
  reads: z.string().min(1, 'Say which words.').max(300),
  count: word(COUNTS, { exactly: 'exactly', atLeast: 'at least', atMost: 'at most' }).default('atLeast'),
  times: times(),
});
const knowsTest = z.strictObject({
  /** A seat, and a value that it is told of somebody, or is not. */
  seat: seatName(),
  knows: reference('attributes'),
  of: who().optional(),
  not: yesOrNo('is not told', 'is told').optional(),
});
const rulesetTest = z.strictObject({
  /** The ruleset, with what is changed for this check, is refused. */
  ruleset: z.literal('refused'),
  saying: described(z.string().max(300), { absent: 'whatever it says' }).optional(),
});
export const expectation = z.union(
  [amountNow, conditionNow, eventTest, refusedTest, readsTest, knowsTest, rulesetTest],
  'An expectation is { "value", "how", "amount" }, { "that" }, { "event", "times" }, { "refused" }, { "seat", "reads" }, { "seat", "knows" } or { "ruleset": "refused" }.',
);
export type Expectation = z.infer<typeof expectation>;
export type AmountTest = z.infer<typeof amountNow>;
export type ConditionTest = z.infer<typeof conditionNow>;
export type EventTest = z.infer<typeof eventTest>;
export type RefusedTest = z.infer<typeof refusedTest>;
export type ReadsTest = z.infer<typeof readsTest>;
export type KnowsTest = z.infer<typeof knowsTest>;
export type RulesetTest = z.infer<typeof rulesetTest>;

/** What holds at every tick, or at none. */
const never = () => yesOrNo('never', 'always').optional();
/** What may bring more of something into the game, or take some out: an entry of a chapter, or anything of a part of the ruleset. */
const origin = () =>
  z.lazy(() => {
    const inForce = [...registry().sections].filter(([, section]) => section.kind === 'value' || (!section.ahead && !section.tries));
    const chapters = inForce.flatMap(([key, { kind }]) => (kind === 'chapter' ? [z.strictObject({ [key]: reference(key) })] : []));
    const names = inForce.map(([key]) => key);
    const titles = Object.fromEntries(inForce.map(([key, { title }]) => [key, `anything of ${title.toLowerCase()}`]));
    return z.union(
      [z.strictObject({ anyOf: word(names as [string, ...string[]], titles) }), ...chapters] as never,
      'A source is { chapter: entry }, as { "quests": "firstDescent" }, or { "anyOf": part of the ruleset }.',
    );
  }) as z.ZodType<Origin>;
export type Origin = Readonly<Record<string, string>>;

/** That there is never more or less of something than what rules bring in and take out that are named for it. */
const conservedTest = z.strictObject({
  conserved: reference('attributes'),
  of: who().optional(),
  sources: z.array(origin()).max(100).optional(),
  sinks: z.array(origin()).max(100).optional(),
});
export type ConservedTest = z.infer<typeof conservedTest>;

/** That a seat is told a value of somebody all the while, or never. */
const knowsAlways = z.strictObject({
  seat: seatName(),
  knows: reference('attributes'),
  of: who().optional(),
  not: yesOrNo('is not told', 'is told').optional(),
});

/** What holds of any sound ruleset, by its name. */
export const invariantName = () =>
  z.lazy(() => {
    const all = [...registry().invariants];
    return word(all.map(([name]) => name) as [string, ...string[]], Object.fromEntries(all.map(([name, { label }]) => [name, label])));
  });
const invariantTest = z.strictObject({ invariant: invariantName() });
export type InvariantTest = z.infer<typeof invariantTest>;

export const lasting = z.union(
  [
    z.strictObject({ ...amountTest, never: never() }),
    z.strictObject({ ...conditionTest, never: never() }),
    conservedTest,
    knowsAlways,
    invariantTest,
  ],
  'What always holds is { "value", "how", "amount" }, { "that" }, { "conserved", "sources", "sinks" }, { "seat", "knows" } or { "invariant" }.',
);
export type Lasting = z.infer<typeof lasting>;

const step = z.union(
  [
    z.strictObject({ pass: orRow(time()) }),
    z.strictObject({ until: condition(), of: who().optional(), within: orRow(time()) }),
    z.strictObject({ untilEvent: pattern(), of: described(who(), { absent: 'anyone' }).optional(), within: orRow(time()) }),
    z.strictObject({ seat: seatName(), input: z.lazy(() => rowsIn(registry().input)) }),
    z.strictObject({
      on: described(seatName(), { absent: 'nobody' }).optional(),
      from: described(seatName(), { absent: 'from nobody' }).optional(),
      action: z.lazy(() => rowsIn(registry().action)),
    }),
    /** Somebody who comes later comes in, as they are given. */
    z.strictObject({ joins: seatName() }),
    z.strictObject({ leaves: seatName() }),
    /** Somebody who left comes in again, with what was kept of them. */
    z.strictObject({ returns: seatName() }),
    /** The game ends and begins anew: players come back with what is kept of them. */
    z.strictObject({ restarts: described(z.literal(true), { words: { true: 'the game is restarted' } }) }),
  ],
  'A step is { "pass" }, { "seat", "input" }, { "on", "action" }, { "until", "within" }, { "untilEvent", "within" }, { "joins" }, { "leaves" }, { "returns" } or { "restarts": true }.',
);
export type Step = z.infer<typeof step>;

const cell = z.union([finite(), z.string().max(200)], 'A cell is a number or a text.');

export const schema = z.strictObject({
  ...entryFields(),
  /** The heading that it is listed under. */
  group: label().optional(),
  ground: word(['bare', 'arena'], { bare: 'on bare ground', arena: 'in the arena' }).default('bare'),
  seed: z.int('A seed is a whole number.').min(-0x7fffffff).max(0x7fffffff).default(1),
  /** What is other than the ruleset says, for this check alone. */
  changes: z.array(change()).max(20).optional(),
  given: z.array(given).max(64, 'A check has at most 64 actors.').default([]),
  stages: z
    .array(z.strictObject({ when: z.array(step).max(200).default([]), then: z.array(expectation).max(100).default([]) }))
    .max(20, 'A check has at most 20 stages.')
    .default([]),
  always: z.array(lasting).max(50).optional(),
  /** It is run once for each row; `row.name` stands for what the row has in a column. */
  each: z
    .strictObject({
      columns: z
        .array(z.string().regex(/^[A-Za-z][A-Za-z0-9]{0,31}$/, 'A column is named in letters and digits.'))
        .min(1)
        .max(20),
      rows: z.array(z.array(cell).max(20)).max(MOST_ROWS, `A table has at most ${MOST_ROWS} rows.`),
    })
    .optional(),
});
export type CheckEntry = z.infer<typeof schema>;
export const checkChapter = defineChapter('checks', schema);

/** The cells that stand in the place of a text which asks a row for all that it says; nothing for any other text. */
export function cellsFor(
  entry: object,
  text: string,
): readonly { readonly value: string; readonly path: readonly (string | number)[] }[] | undefined {
  const name = wholeColumn(text);
  const { each } = entry as Pick<CheckEntry, 'each'>;
  const column = name === undefined ? -1 : (each?.columns.indexOf(name) ?? -1);
  if (column < 0) return undefined;
  return each!.rows.flatMap((row, i) => {
    const value = row[column];
    return typeof value === 'string' ? [{ value, path: ['each', 'rows', i, column] }] : [];
  });
}
