import { z } from 'zod';
import { belonging, entryFields, finite, reference, start, word } from '../../ruleset/fields.js';
import { behaviour } from '../behaviours/schema.js';
import { ownReactions } from '../reactions/schema.js';
import { lifeFields } from '../lives/schema.js';
import { defineChapter } from '../../ruleset/chapter.js';
import { described } from '../../ruleset/described.js';

export const KINDS = ['player', 'foe', 'character', 'prop'] as const;

export const schema = z.strictObject({
  ...entryFields(),
  kind: word(KINDS, { player: 'player', foe: 'foe', character: 'character', prop: 'prop' }),
  /** Body radius in arena units, or the attribute that says it. */
  radius: described(
    z.union([finite().min(1).max(200), reference('attributes', ['stat'])], 'A body has a radius of 1 to 200, or of an attribute.'),
    { hint: 'A number from 1 to 200, or the stat that says it.' },
  ).default(12),
  /** The attribute that says how far it moves a second. */
  speed: described(reference('attributes', ['stat']), { absent: 'nothing: it can’t' }).optional(),
  attributes: z
    .array(z.strictObject({ attribute: belonging('attributes'), start: described(start(), { absent: 'its start' }).optional() }))
    .max(200)
    .default([]),
  abilities: z.array(belonging('abilities')).max(20, 'An actor has at most 20 abilities.').default([]),
  /** What it offers to those within reach, in order. */
  interactions: z.array(reference('interactions')).max(20, 'An actor has at most 20 interactions.').default([]),
  /** The container that it is. */
  container: described(reference('containers'), { absent: 'of nothing' }).optional(),
  ...lifeFields(),
  behaviour: behaviour().optional(),
  /** What it does when something happens. */
  reactions: ownReactions(),
});
export type ActorEntry = z.infer<typeof schema>;
export const actorChapter = defineChapter('actors', schema);
