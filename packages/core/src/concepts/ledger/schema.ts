import { z } from 'zod';
import { condition, duration, reference, yesOrNo } from '../../ruleset/fields.js';
import { actionList } from '../../ruleset/registry.js';
import { described } from '../../ruleset/described.js';

const words = () =>
  described(z.string('Words are expected.').min(1, 'Words are expected.').max(160, 'At most 160 characters.'), {
    absent: 'nothing is said',
  });

/** The economy as a whole: what is counted, how days go, when it is over. A ruleset without one has no days. */
export const economySchema = z
  .strictObject({
    /** The counter that statements are about. */
    currency: reference('attributes', ['counter']),
    day: z
      .strictObject({
        /** How long a day is; as long as players like where nothing is said. */
        length: duration().optional(),
        /** Whether the day ends when all players have asked for it. */
        key: yesOrNo('when all players have asked for it', 'after a time').default(true),
      })
      .prefault({}),
    /** Who can't pay at the end of a day what it costs is ruined, and whoever else this says. */
    ruin: z
      .strictObject({
        if: condition().optional(),
        /** How long one may still sell before it is final. */
        lastChance: described(duration(), { absent: 'no time' }).optional(),
        say: words().optional(),
        then: actionList().default([]),
      })
      .optional(),
    /** What ends the game well, in as few days as one can. */
    goal: z
      .strictObject({ if: described(condition(), { ownFindings: true }), say: words().optional(), then: actionList().default([]) })
      .optional(),
    /** The loot table that a day's work comes to in games that are simulated. */
    haul: reference('loot').optional(),
  })
  .optional();
export type EconomyRules = NonNullable<z.infer<typeof economySchema>>;

/** The economy of a ruleset; undefined where it has none. */
export const economyOf = (rules: { readonly document: Readonly<Record<string, unknown>> }) =>
  rules.document['economy'] as EconomyRules | undefined;
