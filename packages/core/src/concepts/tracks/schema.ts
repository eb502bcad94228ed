import { z } from 'zod';
import { amount, amountOver, entryFields, finite, reference, share, visibility, word, yesOrNo } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import { actionList, pattern } from '../../ruleset/registry.js';
import { defineChapter } from '../../ruleset/chapter.js';

/** How what several earn is divided: in equal parts, to each the whole, or by the harm that each did to who fell. */
export const HOW_SHARED = ['equal', 'full', 'help'] as const;
export const AMONG = ['crew', 'everyone'] as const;
/** What the formulas of a track read of their own: the level that they are asked for. */
export const LOCALS = ['level'] as const;
/** Parties that the amount of a source can speak of. */
export const PARTIES = ['source', 'target', 'subject'] as const;
export const MOST_LEVELS = 500;

export const howShared = () => word(HOW_SHARED, { equal: 'in equal parts', full: 'to each in full', help: 'by the harm that each did' });

/** Who shares in what one earns. */
export const sharing = () =>
  z.strictObject({
    among: word(AMONG, { crew: 'the crew', everyone: 'everyone' }).default('crew'),
    how: howShared().default('equal'),
    /** How far around who earns it; wherever they are where nothing is said. */
    within: described(finite().min(1, 'A distance is at least 1.').max(5000, 'A distance is at most 5000.'), {
      absent: 'any distance',
    }).optional(),
  });
export type Share = z.infer<ReturnType<typeof sharing>>;

const level = () => finite().int('A level is a whole number.').min(1, 'Levels begin at 1.').max(MOST_LEVELS);
const need = () => finite().min(0.001, 'A level needs more than nothing.');

export const schema = z.strictObject({
  ...entryFields(),
  /** The highest level; everybody begins at 1. */
  levels: described(
    finite()
      .int('Levels are a whole number.')
      .min(2, 'A track has at least two levels.')
      .max(MOST_LEVELS, `A track has at most ${MOST_LEVELS} levels.`),
    { unit: 'levels' },
  ).default(20),
  /** What it takes to get from a level to the next: a formula over level, or a table with one amount for each level but the last. */
  needs: z
    .union(
      [z.array(need(), 'A table of amounts is expected.').min(1).max(MOST_LEVELS), ...amountOver(LOCALS).def.options],
      'A number, a formula over level, or a table of amounts is expected.',
    )
    .default('100 * level'),
  /** Whether what is left over counts for the next level; otherwise every level begins at nothing. */
  carry: yesOrNo('counts for the next', 'is lost').default(true),
  see: visibility().default('owner'),
  /** What is earned when something happens, by the part of the event that `who` says. */
  sources: z
    .array(
      z.strictObject({
        on: pattern(),
        amount: described(amount(PARTIES), { amount: '{entry} earns {value}' }),
        share: sharing().optional(),
      }),
    )
    .max(40, 'At most 40 sources.')
    .default([]),
  /** What follows from reaching levels: all of them, or those from, to, and every so many. */
  onLevel: z
    .array(
      z.strictObject({
        from: described(level(), { absent: '2' }).optional(),
        to: described(level(), { absent: 'the top' }).optional(),
        every: described(level(), { absent: 'level' }).optional(),
        then: actionList().default([]),
      }),
    )
    .max(100, 'At most 100 rewards.')
    .default([]),
  /** Points of skill trees that every level gives. */
  points: z
    .array(
      z.strictObject({ tree: reference('trees'), each: finite().int('Points are a whole number.').min(1, 'At least one point.').max(100) }),
    )
    .max(10)
    .default([]),
  /** Stats that grow with the level: so much more on each. */
  growth: z
    .array(z.strictObject({ attribute: reference('attributes', ['stat']), amount: amountOver(LOCALS) }))
    .max(40)
    .default([]),
  /** What a fall costs: a share of what was earned in the level, and whether that can cost levels. */
  loss: z
    .strictObject({
      share: share(),
      levels: yesOrNo('and can cost levels', 'and costs no level').default(false),
    })
    .optional(),
});
export type TrackEntry = z.infer<typeof schema>;
export const trackChapter = defineChapter('tracks', schema);
