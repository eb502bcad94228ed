import { z } from 'zod';
import { described } from '../../ruleset/described.js';
import { duration, entryFields, label, word } from '../../ruleset/fields.js';
import { registry } from '../../ruleset/registry.js';
import { defineChapter } from '../../ruleset/chapter.js';
import { given, invariantName, lasting, who } from '../checks/schema.js';

/** What stands for all that a seat can ask for. */
export const ANYTHING = 'anything';
export const MOST_STEPS = 200;

/** How often something is drawn, beside the others. */
const weight = () =>
  described(z.int('A weight is a whole number.').min(1, 'A weight is 1 or more.').max(1000), { absent: 'as often as others' }).optional();
const by = () => described(who(), { absent: 'everyone' }).optional();

/** The name of something that a seat can ask for, or all of it. */
const input = () =>
  z.lazy(() => {
    const all = [...registry().inputs];
    const names = [ANYTHING, ...all.map(([name]) => name)];
    return word(names as [string, ...string[]], {
      [ANYTHING]: 'anything a seat can do',
      ...Object.fromEntries(all.map(([name, spec]) => [name, spec.label])),
    });
  });

/** The name of an action whose arguments are drawn. */
const poke = () =>
  z.lazy(() => {
    const all = [...registry().actions].filter(([, { steer }]) => !steer);
    return word(all.map(([name]) => name) as [string, ...string[]], Object.fromEntries(all.map(([name, spec]) => [name, spec.label])));
  });

const may = z.union(
  [
    /** Somebody asks for something, with arguments that are drawn. */
    z.strictObject({ input: input(), by: by(), weight: weight() }),
    /** Something is done to somebody from outside: any of its kind, */
    z.strictObject({ poke: poke(), on: by(), weight: weight() }),
    /** or the very one. */
    z.strictObject({ action: z.lazy(() => registry().action), on: by(), weight: weight() }),
    /** Somebody leaves, or comes in again with what was kept of them. */
    z.strictObject({ leaves: who(), weight: weight() }),
    z.strictObject({ restarts: described(z.literal(true), { words: { true: 'the game is restarted' } }), weight: weight() }),
    /** More time passes than between two things otherwise. */
    z.strictObject({ pass: duration(), weight: weight() }),
  ],
  'What may happen is { "input", "by" }, { "poke", "on" }, { "action", "on" }, { "leaves" }, { "restarts": true } or { "pass" }.',
);
export type May = z.infer<typeof may>;

export const schema = z.strictObject({
  ...entryFields(),
  /** The heading that it is listed under. */
  group: label().optional(),
  ground: word(['bare', 'arena'], { bare: 'on bare ground', arena: 'in the arena' }).default('arena'),
  /** What luck there is, and where the search begins. */
  seed: z.int('A seed is a whole number.').min(-0x7fffffff).max(0x7fffffff).default(1),
  given: z.array(given).max(64, 'A hunt has at most 64 actors.').default([]),
  may: z.array(may).max(100, 'A hunt lists at most 100 things that may happen.').default([]),
  /** Most that happens in one story. */
  steps: z.int('A number of steps is a whole number.').min(1).max(MOST_STEPS, `A story has at most ${MOST_STEPS} steps.`).default(30),
  /** The longest time between two things that happen. */
  apart: duration().default('2s'),
  always: z.array(lasting).max(50).default([]),
  /** What holds of any ruleset and is not looked at here. */
  without: z.array(invariantName()).max(50).optional(),
  /** The numbers of stories that are tried first. */
  seeds: z.array(z.int('The number of a story is a whole number.').min(0)).max(200).optional(),
});
export type HuntEntry = z.infer<typeof schema>;
export const huntChapter = defineChapter('hunts', schema);
