import { z } from 'zod';
import { colour, condition, duration, entryFields } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import { actionList } from '../../ruleset/registry.js';
import { defineChapter } from '../../ruleset/chapter.js';

/** What a placed zone may say otherwise than its entry. */
export const zoneFields = () => ({
  /** For whom it is one; for anyone where nothing is said. Bare names belong to the one inside. */
  who: described(condition(), { absent: 'nothing is asked' }),
  onEnter: actionList(),
  onLeave: actionList(),
  /** What happens to those inside, again and again from when they entered. */
  every: z.strictObject({ time: described(duration(), { atOnce: '{entry} acts in each tick' }), then: actionList().default([]) }),
});

const fields = zoneFields();
export const schema = z.strictObject({
  ...entryFields(),
  colour: colour().optional(),
  who: fields.who.optional(),
  onEnter: fields.onEnter.default([]),
  onLeave: fields.onLeave.default([]),
  every: fields.every.optional(),
});
export type ZoneEntry = z.infer<typeof schema>;
export const zoneChapter = defineChapter('zones', schema);
