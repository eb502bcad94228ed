import { z } from 'zod';
import { duration, entryFields, finite, word } from '../../ruleset/fields.js';
import { actionList, pattern } from '../../ruleset/registry.js';
import { defineChapter } from '../../ruleset/chapter.js';
import { described } from '../../ruleset/described.js';

/** How often at most a reaction runs: a number, in a time or ever, for everybody together or for each that the event is about. */
const atMost = () =>
  z.strictObject({
    times: finite().int('Times are a whole number.').min(1, 'At least once.').max(1000).default(1),
    every: described(duration(), { absent: 'the whole game' }).optional(),
    per: word(['all', 'actor'], { all: 'for everybody together', actor: 'for each that it is about' }).default('all'),
  });

const reactionFields = () => ({
  on: pattern(),
  then: actionList().default([]),
  atMost: atMost().optional(),
});

/** A reaction of the whole ruleset. */
export const schema = z.strictObject({ ...entryFields(), ...reactionFields() });
export type ReactionEntry = z.infer<typeof schema>;

/** Reactions inside another entry, whose bearer they belong to: an actor's own, or of who has an effect on. */
export const ownReactions = () => z.array(z.strictObject(reactionFields())).max(20, 'At most 20 reactions.').optional();
export type OwnReaction = Omit<ReactionEntry, 'id' | 'label'>;
export const reactionChapter = defineChapter('reactions', schema);
