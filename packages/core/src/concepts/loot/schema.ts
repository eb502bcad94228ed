import { z } from 'zod';
import { amount, condition, entryFields, finite, id, label, reference, steadyAmount, word, yesOrNo } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import { actionList } from '../../ruleset/registry.js';
import { defineChapter } from '../../ruleset/chapter.js';

/** For whom a table is rolled: for each player their own, for the one who brought it about, once for all. */
export const ROLLED = ['each', 'doer', 'once'] as const;
/** What formulas speak of beside the one who rolls: who brought it about, and the thing or the fallen. */
export const PARTIES = ['source', 'target'] as const;
export const MOST_LOOT = 50;

/** What one line of a table gives: one of these, or nothing. */
const what = {
  pickup: reference('pickups').optional(),
  /** A pool or counter. */
  gives: reference('attributes', ['pool', 'counter']).optional(),
  effect: reference('effects').optional(),
  /** An ability that the one who rolls uses at once. */
  ability: reference('abilities').optional(),
  /** Another table, rolled as often as the quantity says. */
  table: reference('loot').optional(),
  /** What happens besides, to whoever gets it. */
  then: actionList().optional(),
  /** How much or how many; 1 where nothing is said. */
  quantity: described(amount(PARTIES), { amount: '{entry} drops {value}', of: 'gives', absent: '1' }).optional(),
  /** Whether it is there at all; always where nothing is said. */
  if: condition(PARTIES).optional(),
};

const called = () => described(label(), { absent: 'something' }).optional();
const always = z.strictObject({ id: id(), label: called(), ...what });
const entry = z.strictObject({
  id: id(),
  label: called(),
  /** A share, not a percentage. */
  weight: described(steadyAmount(PARTIES), { amount: 'The weight of {id} in {entry} is {value}', zero: true }),
  ...what,
});
export type AlwaysJson = z.infer<typeof always>;
export type LootEntryJson = z.infer<typeof entry>;

export const schema = z.strictObject({
  ...entryFields(),
  rolled: word(ROLLED, { each: 'for each player', doer: 'for the one who brought it about', once: 'once for all' }).default('doer'),
  /** How often an entry is drawn at an opening. */
  rolls: amount(PARTIES).default(1),
  /** What was drawn at an opening is not drawn again at it. */
  withoutReplacement: yesOrNo('and nothing twice', 'each from all of it').default(false),
  /** What every opening gives beside what is drawn. */
  always: z.array(always).max(MOST_LOOT, `At most ${MOST_LOOT} that are always there.`).default([]),
  entries: z.array(entry).max(MOST_LOOT, `A table has at most ${MOST_LOOT} entries.`).default([]),
  /** After so many openings in a row without an entry, its weight grows at each until it falls. */
  streak: z
    .strictObject({
      entry: id(),
      after: finite().int('Openings are whole.').min(1, 'At least 1 opening.').max(10_000, 'At most 10000 openings.'),
      adds: described(finite().min(0, 'What is added is not negative.'), { absent: 'nothing' }).default(0),
      /** The opening, counted from the last that gave it, at which it is certain. */
      certain: described(finite().int('Openings are whole.').min(2, 'At least 2 openings.').max(10_000, 'At most 10000 openings.'), {
        absent: 'never',
      }).optional(),
    })
    .optional(),
});
export type LootTableJson = z.infer<typeof schema>;
export const lootChapter = defineChapter('loot', schema);
