import { z } from 'zod';
import { amountOver, condition, entryFields, finite, reference, word } from '../../ruleset/fields.js';
import { described, type Description } from '../../ruleset/described.js';
import { actionList } from '../../ruleset/registry.js';
import { defineChapter } from '../../ruleset/chapter.js';
import { inForm } from '../../ruleset/marks.js';

/** What a price or an upkeep is counted over: the tier that is bought, or held. */
export const LOCALS = ['tier'] as const;
export const RESTOCKS = ['never', 'daily'] as const;
export const MOST_TIERS = 50;

const words = () => z.string('Words are expected.').min(1, 'Words are expected.').max(160, 'At most 160 characters.');
const parts = (says: Description) =>
  inForm(
    'parts',
    z
      .array(
        z.strictObject({
          attribute: reference('attributes', ['pool', 'counter']),
          amount: described(amountOver(LOCALS), { ...says, of: 'attribute' }),
        }),
      )
      .max(12, 'At most 12 different things.'),
  );

export const shopSchema = z.strictObject({
  ...entryFields(),
  /** The kind of actor that it is found at; open everywhere where nothing is said. */
  at: described(reference('actors', ['foe', 'character', 'prop']), { absent: 'no place: it is open everywhere' }).optional(),
  reach: finite().min(1, 'A reach is 1 to 1000.').max(1000, 'A reach is 1 to 1000.').default(60),
  sells: z.array(reference('offers')).max(60, 'A shop has at most 60 offers.').default([]),
});
export type ShopEntry = z.infer<typeof shopSchema>;

export const offerSchema = z.strictObject({
  ...entryFields(),
  /** What is paid, all of it or nothing. */
  costs: described(parts({ amount: '{entry} costs {value}', zero: true }), { absent: 'nothing' }).default([]),
  /** What is received for it in the same step. */
  gets: described(parts({ amount: '{entry} gives {value}' }), { absent: 'nothing that is counted' }).default([]),
  /** What else happens to who bought it. */
  then: actionList().default([]),
  /** It is bought tier by tier, up to so many; again and again where nothing is said. */
  tiers: finite().int('Tiers are whole.').min(1, 'At least one tier.').max(MOST_TIERS, `At most ${MOST_TIERS} tiers.`).optional(),
  /** Most that one player may buy, for what has no tiers. */
  atMost: finite().int('A count is whole.').min(1, 'At least one.').max(1_000_000, 'At most a million.').optional(),
  /** How many there are for everybody together; as many as like where nothing is said. */
  stock: finite().int('A stock is whole.').min(0, 'A stock is not below nothing.').max(1_000_000, 'At most a million.').optional(),
  restock: word(RESTOCKS, { never: 'and never more', daily: 'filled up each day' }).default('never'),
  /** What a buyer has to meet, each with the words for whom it does not hold. */
  needs: z
    .array(z.strictObject({ if: condition(), say: words() }))
    .max(10, 'At most 10 needs.')
    .default([]),
  /** What each end of a day costs whoever has it, in the economy's currency. */
  upkeep: described(amountOver(LOCALS), { amount: 'The upkeep of {entry} is {value}', zero: true }).optional(),
});
export type OfferEntry = z.infer<typeof offerSchema>;
export const shopChapter = defineChapter('shops', shopSchema);
export const offerChapter = defineChapter('offers', offerSchema);

/** How often an offer can be held at most: by its tiers, or as often as one may buy it; never where no shop sells it. */
export function mostHeld(rules: Parameters<typeof offerChapter.of>[0], id: string): number {
  const offer = offerChapter.find(rules, id);
  if (!offer) return Infinity;
  return shopChapter.of(rules).some(({ sells }) => sells.includes(id)) ? (offer.tiers ?? offer.atMost ?? Infinity) : 0;
}
