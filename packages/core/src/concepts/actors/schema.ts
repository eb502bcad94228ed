import { z } from 'zod';
import { entryFields, finite, reference, start } from '../../ruleset/fields.js';
import { behaviour } from '../behaviours/schema.js';
import { ownReactions } from '../reactions/schema.js';
import { lifeFields } from '../lives/schema.js';
import { defineChapter } from '../../ruleset/chapter.js';

export const KINDS = ['player', 'foe', 'character', 'prop'] as const;

export const schema = z.strictObject({
  ...entryFields(),
  kind: z.enum(KINDS, `One of ${KINDS.join(', ')} is expected.`),
  /** Body radius in arena units, or the attribute that says it. */
  radius: z.union([finite().min(1).max(200), reference('attributes')], 'A body has a radius of 1 to 200, or of an attribute.').default(12),
  /** The attribute that says how far it moves a second. */
  speed: reference('attributes').optional(),
  attributes: z
    .array(z.strictObject({ attribute: reference('attributes'), start: start().optional() }))
    .max(200)
    .default([]),
  abilities: z.array(reference('abilities')).max(20, 'An actor has at most 20 abilities.').default([]),
  /** What it offers to those within reach, in order. */
  interactions: z.array(reference('interactions')).max(20, 'An actor has at most 20 interactions.').default([]),
  /** The container that it is. */
  container: reference('containers').optional(),
  ...lifeFields(),
  behaviour: behaviour().optional(),
  /** What it does when something happens. */
  reactions: ownReactions(),
});
export type ActorEntry = z.infer<typeof schema>;
export const actorChapter = defineChapter('actors', schema);
