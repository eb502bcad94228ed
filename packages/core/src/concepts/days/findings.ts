import { type Possible, possibleUnder } from '../attributes/possible.js';
import { ANY, NOBODY } from '../../formula/index.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { meanGains } from '../loot/mean.js';
import { boundsOf, markets } from '../markets/index.js';
import { type Offer, shops } from '../shops/index.js';
import type { EconomyRules } from '../ledger/index.js';
import { bareWorld } from '../../world/bare-world.js';
import { attributeChapter } from '../attributes/schema.js';

/** What a day's work is worth on average, at the middle of each price; undefined where that can't be told from what is written. */
export function dailyWorth(rules: Rules): number | undefined {
  const economy = rules.document['economy'] as EconomyRules | undefined;
  const gains = economy?.haul === undefined ? undefined : meanGains(rules, economy.haul);
  if (!economy || !gains) return undefined;
  const { list } = markets.of(rules);
  return [...gains].reduce((sum, [attribute, amount]) => {
    if (attribute === economy.currency) return sum + amount;
    const good = list.flatMap(({ goods }) => goods).find(({ id }) => id === attribute);
    const [least, most] = good ? boundsOf(good) : [0, 0];
    return sum + (amount * (least + most)) / 2;
  }, 0);
}

/** What a tier costs or takes to keep, where that speaks of nobody. */
function ofTier(amount: Offer['upkeep'], tier: number): number | undefined {
  if (!amount) return 0;
  return amount.references.length > 0 ? undefined : amount.run(bareWorld(), { ...NOBODY, event: { tier } });
}

/** Prices that nobody can have, needs that nobody meets, upkeep that no day's work bears, goods that nobody ever has. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  const economy = rules.document['economy'] as EconomyRules | undefined;
  const { list } = shops.of(rules);
  if (!economy && list.length === 0) return [];
  const possible = possibleUnder(rules);
  const worth = dailyWorth(rules);
  return [
    ...list.flatMap((offer) => ofOffer(rules, possible, offer)),
    ...(economy && worth !== undefined ? ofUpkeep(rules, economy, worth) : []),
    ...ofGoods(rules, possible),
    ...(economy ? [...ofGoal(rules, possible, economy), ...ofProfit(rules, economy)] : []),
    ...(economy && !economy.ruin && list.some(({ upkeep }) => upkeep)
      ? [
          {
            kind: 'noRuin',
            path: '/economy',
            message: 'Nobody is ever ruined: what a day costs and the purse does not give is let go. Say what ruin is.',
            fix: { label: 'Ruin who can’t pay', patch: [{ op: 'add' as const, path: '/economy/ruin', value: { lastChance: '30s' } }] },
          },
        ]
      : []),
  ];
}

/** A goal that nobody gets to. */
function ofGoal(rules: Rules, possible: Possible, { goal }: EconomyRules): readonly Finding[] {
  if (!goal || possible.whoCan(goal.if, ['player']).length > 0) return [];
  const sold = new Set((rules.document['shops'] as readonly { readonly sells: readonly string[] }[]).flatMap(({ sells }) => sells));
  const unsold = shops.of(rules).list.filter(({ id }) => !sold.has(id) && new RegExp(`\\btier\\(\\s*${id}\\b`).test(goal.if));
  const why = unsold.length > 0 ? `: no shop sells ${unsold.map(({ label }) => label).join(' and ')}` : '';
  return [
    {
      kind: 'neverReached',
      path: '/economy/goal/if',
      message: `Nobody ever reaches the goal “${goal.if}”${why}. Say another, or sell what it asks for.`,
    },
  ];
}

/** Goods that are bought for less than a market always pays for them. */
function ofProfit(rules: Rules, { currency }: EconomyRules): readonly Finding[] {
  const ids = rules.chapters.get('attributes')!.ids;
  const goods = markets.of(rules).list.flatMap((market) => market.goods.map((good) => ({ good, market })));
  return shops.of(rules).list.flatMap((offer): readonly Finding[] => {
    const [cost, ...others] = offer.costs;
    const [gain, ...more] = offer.gets;
    if (!cost || !gain || others.length > 0 || more.length > 0 || ids[cost.attribute] !== currency) return [];
    const [paid, got] = [ofTier(cost.amount, 1), ofTier(gain.amount, 1)];
    const at = goods.find(({ good }) => good.id === ids[gain.attribute]);
    if (!at || paid === undefined || got === undefined || got <= 0) return [];
    const [least] = boundsOf(at.good);
    if (paid >= least * got) return [];
    return [
      {
        kind: 'moneyForNothing',
        path: pointer(['offers', offer.index, 'costs', 0, 'amount']),
        message: `${offer.label} costs ${paid} ${currency}, and what it gives sells for at least ${least * got} on ${at.market.label}: money from nothing, as often as one likes. Ask more, or pay less.`,
      },
    ];
  });
}

function ofOffer(rules: Rules, possible: Possible, offer: Offer): readonly Finding[] {
  const path = ['offers', offer.index];
  const attributes = rules.chapters.get('attributes')!.ids;
  const needs = (rules.document['offers'] as readonly { needs: readonly { if: string }[] }[])[offer.index].needs;
  const found: Finding[] = needs.flatMap(({ if: test }, k) =>
    possible.whoCan(test, ['player'], () => ANY).length > 0
      ? []
      : [
          {
            kind: 'soldToNobody',
            path: pointer([...path, 'needs', k, 'if']),
            message: `Nobody can ever buy ${offer.label}: “${test}” holds for no player.`,
          },
        ],
  );
  const { stock, restock } = (rules.document['offers'] as readonly { stock?: number; restock: string }[])[offer.index];
  if (stock === 0)
    found.push({
      kind: 'soldToNobody',
      path: pointer([...path, 'stock']),
      message: `There is none of ${offer.label}: nobody can ever buy it${restock === 'daily' ? ', however often the shop is filled' : ''}. Say how many there are.`,
    });
  const top = Math.max(1, offer.tiers);
  offer.costs.forEach(({ attribute, amount }, k) => {
    const id = attributes[attribute];
    const first = ofTier(amount, 1);
    const most = Math.max(first ?? 0, ofTier(amount, top) ?? 0);
    if (most > 0 && !possible.canHave(id, most))
      found.push({
        kind: 'cannotBePaid',
        path: pointer([...path, 'costs', k]),
        message: `Nobody can have ${most} ${id}: ${offer.label}${offer.tiers > 1 ? ' at its last tier' : ''} can never be bought.`,
      });
  });
  return found;
}

function ofUpkeep(rules: Rules, economy: EconomyRules, worth: number): readonly Finding[] {
  const { list, shops: all } = shops.of(rules);
  const sold = list.filter((offer) => all.some(({ sells }) => sells.includes(offer.index)));
  const found: Finding[] = [];
  const rounded = Math.round(worth);
  const attributes = rules.chapters.get('attributes')!.ids;
  const start = Number(attributeChapter.find(rules, economy.currency)!.start ?? 0);
  for (const offer of sold) {
    const first = ofTier(offer.upkeep, 1);
    if (economy.ruin && first !== undefined && first > worth) {
      found.push({
        kind: 'upkeepRuins',
        path: pointer(['offers', offer.index, 'upkeep']),
        message: `${offer.label} costs ${first} a day and a day’s work is worth about ${rounded}: it ruins whoever buys it.`,
      });
      continue;
    }
    for (let tier = 2; tier <= offer.tiers; tier++) {
      const [kept, prices] = [
        ofTier(offer.upkeep, tier - 1),
        offer.costs.filter(({ attribute }) => attributes[attribute] === economy.currency),
      ];
      const price = prices.reduce((sum, { amount }) => sum + (ofTier(amount, tier) ?? 0), 0);
      if (!economy.ruin || kept === undefined || kept < worth || price <= start) continue;
      found.push({
        kind: 'outOfReach',
        path: pointer(['offers', offer.index, 'costs']),
        message: `Tier ${tier} of ${offer.label} can hardly be earned: tier ${tier - 1} costs ${kept} a day, and a day’s work is worth about ${rounded}.`,
      });
      break;
    }
  }
  const whole = sold.reduce((sum, offer) => sum + (ofTier(offer.upkeep, Math.max(1, offer.tiers)) ?? 0), 0);
  if (economy.ruin && found.length === 0 && whole > worth)
    found.push({
      kind: 'upkeepRuins',
      path: '/offers',
      message: `All upgrades together cost ${whole} a day, and a day’s work is worth about ${rounded}: who has them all is ruined sooner or later.`,
    });
  return found;
}

function ofGoods(rules: Rules, possible: Possible): readonly Finding[] {
  return markets.of(rules).list.flatMap(({ index, label, goods }) => [
    ...(goods.length === 0
      ? [{ kind: 'buysNothing', path: pointer(['markets', index]), message: `${label} buys nothing: say which goods it buys.` }]
      : []),
    ...goods.flatMap(({ id, label: good }, k) =>
      possible.canHave(id, 1)
        ? []
        : [
            {
              kind: 'neverHad',
              path: pointer(['markets', index, 'goods', k, 'good']),
              message: `Nobody ever has ${good.toLowerCase()} to sell: nothing gives it, or no player carries it.`,
            },
          ],
    ),
  ]);
}
