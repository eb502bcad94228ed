import { attributes } from '../attributes/index.js';
import { dailyWorth } from './findings.js';
import { ledger } from '../ledger/index.js';
import { meanGains } from '../loot/mean.js';
import { boundsOf, markets } from '../markets/index.js';
import { shops } from '../shops/index.js';
import { NOBODY } from '../../formula/index.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import { inWords } from '../../workbench/evidence.js';
import { bareWorld } from '../../world/bare-world.js';
import { type Amount } from '../../ruleset/context.js';

/** What an economy comes to on paper, before any game is played. */
export interface EconomyFacts {
  readonly currency: string;
  /** Whether a day's work is said, so that games can be played. */
  readonly playable: boolean;
  readonly goal: boolean;
  readonly facts: readonly { readonly label: string; readonly value: string }[];
}

/** Reads what can be said of an economy from what is written; undefined where there is none. */
export function economyFacts(rules: Rules): EconomyFacts | undefined {
  const { economy, currency } = ledger.of(rules);
  if (!economy) return undefined;
  const facts: { label: string; value: string }[] = [];
  const money = attributes.of(rules).list[currency].id;
  const label = labelOf(rules, 'attributes', money).toLowerCase();
  const gains = economy.haul === undefined ? undefined : meanGains(rules, economy.haul);
  const worth = dailyWorth(rules);
  if (gains && worth !== undefined) {
    const traded = [...gains].filter(
      ([id]) => id === money || markets.of(rules).list.some(({ goods }) => goods.some((good) => good.id === id)),
    );
    const parts = traded.map(([id, amount]) => `${inWords(amount)} ${labelOf(rules, 'attributes', id).toLowerCase()}`);
    facts.push({
      label: 'A day’s work brings',
      value: `${parts.join(', ') || 'nothing that is traded'}: about ${Math.round(worth)} ${label} at middling prices`,
    });
  }
  for (const { goods } of markets.of(rules).list)
    for (const good of goods) {
      const [least, most] = boundsOf(good);
      facts.push({
        label: good.label,
        value: `${least} to ${most}${'walk' in good.price ? `, ${good.price.walk.step} a day at most` : ''}; two thirds up: ${inWords(least + (2 * (most - least)) / 3)}`,
      });
    }
  const ofTier = (amount: Amount | undefined, tier: number) =>
    !amount || amount.references.length > 0 ? 0 : amount.run(bareWorld(), { ...NOBODY, event: { tier } });
  let [price, upkeep] = [0, 0];
  for (const offer of shops.of(rules).list) {
    if (offer.tiers === 0) continue;
    for (let tier = 1; tier <= offer.tiers; tier++)
      for (const cost of offer.costs) if (cost.attribute === currency) price += ofTier(cost.amount, tier);
    upkeep += ofTier(offer.upkeep, offer.tiers);
  }
  if (price > 0)
    facts.push({ label: 'All upgrades together', value: `${inWords(price)} ${label}, and then ${inWords(upkeep)} a day to keep` });
  return { currency: label, playable: gains !== undefined || economy.haul !== undefined, goal: economy.goal !== undefined, facts };
}
