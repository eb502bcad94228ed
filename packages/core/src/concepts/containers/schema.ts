import { z } from 'zod';
import { amount, duration, entryFields, id, label, reference, steadyAmount, word } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import { inForm } from '../../ruleset/marks.js';
import { actionList } from '../../ruleset/registry.js';
import { asWritten, needs, offeredTo, reach, sight } from '../interactions/schema.js';
import { defineChapter } from '../../ruleset/chapter.js';

/** Whether one visitor at a time has it open, or all who come. */
export const VISITORS = ['one', 'many'] as const;
/** Whether what is in it is for everybody, or each player finds their own. */
export const CONTENTS = ['forAll', 'perPlayer'] as const;
/** Whether things are taken one by one, all at once, or either way. */
export const TAKES = ['one', 'all', 'either'] as const;

const content = z.strictObject({
  id: id(),
  label: label(),
  /** The pool or counter that is given, and how much of it is there. */
  gives: reference('attributes', ['pool', 'counter']).optional(),
  amount: described(amount(), { amount: '{label} gives {value}', of: 'gives', absent: '1' }).optional(),
  /** How likely it is there at all, from 0 to 1; certain where nothing is said. */
  chance: inForm('share', described(steadyAmount(), { absent: 'always' })).optional(),
  /** What happens to the one who takes it. */
  then: actionList().optional(),
});
export type ContentEntry = z.infer<typeof content>;

/** What a placed container may say otherwise than its entry. */
export const containerFields = () => ({
  prompt: asWritten(),
  reach: reach(),
  sight: sight(),
  who: offeredTo(),
  needs: needs(),
  opening: duration(),
  closing: duration(),
  visitors: word(VISITORS, { one: 'one visitor at a time has it open', many: 'all who come may have it open' }),
  holds: z.array(content).max(50, 'A container holds at most 50 things.'),
  /** A loot table that is opened with it: what it gives is in it beside the rest. */
  loot: reference('loot'),
  contents: word(CONTENTS, { forAll: 'is there for everybody', perPlayer: 'is each player’s own' }),
  takes: word(TAKES, { one: 'one by one', all: 'all at once', either: 'one by one or all at once' }),
  /** How long after it was first opened it is filled anew, once it is closed. */
  refills: described(duration(), { atOnce: '{entry} is full again as soon as it is closed' }),
});

const fields = containerFields();
export const schema = z.strictObject({
  ...entryFields(),
  prompt: fields.prompt.default('Open'),
  reach: fields.reach.default(40),
  sight: fields.sight.default(true),
  who: fields.who.optional(),
  needs: fields.needs.default([]),
  opening: fields.opening.default('0ms'),
  closing: fields.closing.default('0ms'),
  visitors: fields.visitors.default('many'),
  holds: fields.holds.default([]),
  loot: fields.loot.optional(),
  contents: fields.contents.default('forAll'),
  takes: fields.takes.default('either'),
  refills: fields.refills.optional(),
});
export type ContainerEntry = z.infer<typeof schema>;
export const containerChapter = defineChapter('containers', schema);
