import { z } from 'zod';
import { condition, duration, entryFields, finite, id, label, reference, seenBySome, word, yesOrNo } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import { actionList, pattern } from '../../ruleset/registry.js';
import { defineChapter } from '../../ruleset/chapter.js';

/** For whom what somebody does counts towards a goal: for themselves, for their crew, for everybody. */
export const COUNTS = ['player', 'crew', 'everyone'] as const;
/** Whether those who share a quest have one record of it, or each their own. */
export const RECORDS = ['shared', 'own'] as const;
/** Where a quest comes from. */
export const OFFERED_BY = ['start', 'character', 'zone', 'pickup', 'event'] as const;
/** How often it can be done: once ever, once each day of the server, again some time after, or whenever one likes. */
export const REPEATS = ['once', 'daily', 'after', 'always'] as const;
/** Whether a player is asked first, or has it at once. */
export const BEGINS = ['accepted', 'atOnce'] as const;
export const MOST_STEPS = 20;
export const MOST_GOALS = 8;
export const MOST_COUNT = 100_000;

/** Numbers in the line of a goal. */
export const HAVE = '{have}';
export const NEED = '{need}';

const goal = z.strictObject({
  id: id(),
  /** What the display says of it, with {have} and {need}. */
  line: z.string('Words are expected.').min(1, 'Words are expected.').max(160, 'At most 160 characters.'),
  /** What is counted, for the part of the event that `who` says; */
  on: pattern().optional(),
  count: finite().int('A count is a whole number.').min(1, 'A count is at least 1.').max(MOST_COUNT).default(1),
  /** or what has to be so once. */
  if: condition().optional(),
  /** Whose deeds count: those of who is on it, of their crew, or of everybody. */
  counts: word(COUNTS, { player: 'the player', crew: 'the crew', everyone: 'everyone' }).default('player'),
  /** Whether the step is done without it. */
  optional: yesOrNo('it may be left out', 'it has to be met').default(false),
  /** When it is met. */
  then: actionList().default([]),
});
export type GoalEntry = z.infer<typeof goal>;

const step = z.strictObject({
  id: id(),
  label: label(),
  /** All at the same time, in any order. */
  goals: z.array(goal, 'The goals are a list.').min(1, 'A step has a goal at least.').max(MOST_GOALS, `At most ${MOST_GOALS} goals.`),
  /** When it is done. */
  then: actionList().default([]),
});

const offer = described(
  z.discriminatedUnion(
    'by',
    [
      z.strictObject({ by: z.literal('start') }),
      /** Asked by an interaction that offers quests. */
      z.strictObject({ by: z.literal('character'), actor: reference('actors', ['foe', 'character', 'prop']) }),
      z.strictObject({ by: z.literal('zone'), zone: reference('zones') }),
      z.strictObject({ by: z.literal('pickup'), pickup: reference('pickups') }),
      z.strictObject({ by: z.literal('event'), event: pattern() }),
    ],
    `Who offers it? { "by": one of ${OFFERED_BY.join(', ')} }.`,
  ),
  {
    words: {
      start: 'from the start',
      character: 'by a character',
      zone: 'on entering a zone',
      pickup: 'on taking a pickup',
      event: 'when something happens',
    },
    hints: { start: 'as soon as one may have it', character: 'who is asked for quests', event: 'any event' },
  },
);

export const schema = z.strictObject({
  ...entryFields(),
  /** What a player reads who is offered it. */
  text: z.string().max(400, 'At most 400 characters.').default(''),
  offered: z.array(offer).max(8, 'At most 8 ways to come by it.').default([]),
  begins: word(BEGINS, { accepted: 'is accepted or declined', atOnce: 'begins at once, unasked' }).default('accepted'),
  /** Who may have it. */
  if: condition().optional(),
  /** Who has it when one accepts it: the player alone, or whoever of the crew or of all in the arena may have it. */
  takenBy: word(COUNTS, {
    player: 'the player alone',
    crew: 'the crew: who accepts it accepts it for all',
    everyone: 'everyone: who accepts it accepts it for all',
  }).default('player'),
  /** Whether all who share it have one record of it, which is what is meant where nothing is said, or each their own. */
  record: described(word(RECORDS, { shared: 'one record for all who share it', own: 'a record of their own for each' }), {
    absent: 'one record for all who share it',
  }).optional(),
  repeats: word(REPEATS, {
    once: 'once',
    daily: 'once each day of the server',
    after: 'again some time after, namely',
    always: 'again and again',
  }).default('once'),
  /** How long after it was done it can be had again, in the server’s time. */
  after: duration().optional(),
  /** Whether it can be had again after it failed. */
  retry: yesOrNo('may have it again', 'does not get it again').default(true),
  steps: z.array(step, 'The steps are a list.').min(1, 'A quest has a step at least.').max(MOST_STEPS, `At most ${MOST_STEPS} steps.`),
  /** The kind of character who takes it back; done with its last step where nothing is said. */
  handIn: reference('actors', ['foe', 'character', 'prop']).optional(),
  /** How long it may take, from when it is accepted. */
  limit: described(duration(), { atOnce: '{entry} has failed as it begins' }).optional(),
  /** What it fails by. */
  fails: z.array(pattern()).max(8, 'At most 8 ways to fail.').default([]),
  /** Whether it can be given up. */
  abandon: yesOrNo('can be given up', 'cannot be given up').default(true),
  onStart: actionList().default([]),
  /** What one has of it. What it gives is shown before it is accepted. */
  then: actionList().default([]),
  onFail: actionList().default([]),
  /** What is offered next, to whoever has done it. */
  next: reference('quests').optional(),
  /** Characters that a line of the display has room for. */
  lineRoom: described(
    finite().int('Characters are whole.').min(12, 'A line has 12 to 120 characters.').max(120, 'A line has 12 to 120 characters.'),
    { unit: 'characters' },
  ).default(40),
  /** Who is told of it beside its player. */
  see: described(seenBySome(), { words: { owner: 'its player alone', team: 'the crew', everyone: 'everyone' } }).default('owner'),
});
export type QuestEntry = z.infer<typeof schema>;
export const questChapter = defineChapter('quests', schema);
