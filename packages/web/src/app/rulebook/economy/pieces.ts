import type { Type } from '@angular/core';
import type { PagePieces } from '../chapter-page';
import { EconomyOutcomes } from './economy-outcomes';
import { EconomyRulesPart } from './economy-rules';
import { MarketSentences } from './market-sentences';
import { OfferSentences } from './offer-sentences';
import { ShopSentences } from './shop-sentences';

/** The rules of money belong on each page of the economy: whole on the first, folded on the others. What comes of them stands beside. */
const withRules = (sentences: Type<unknown>, folded: boolean): PagePieces => ({
  spec: [{ type: sentences }, { type: EconomyRulesPart, inputs: { folded } }],
  beside: { type: EconomyOutcomes },
  empty: { type: EconomyRulesPart },
});

export const marketsPieces = withRules(MarketSentences, false);
export const shopsPieces = withRules(ShopSentences, true);
export const offersPieces = withRules(OfferSentences, true);
