import { dropFrom } from '../../loot/index.js';
import { ledger, linesOf, purseOf } from '../../ledger/index.js';
import { boundsOf, markets, priceAt, sell } from '../../markets/index.js';
import { buy, buyingRefusal, dealOf, type Offer, shops, upkeepOf } from '../../shops/index.js';
import { endNow } from '../system.js';
import { actorOfSeat } from '../../seats/index.js';
import { readAttribute } from '../../attributes/index.js';
import type { Rules } from '../../../ruleset/rules.js';
import { readRuleset } from '../../../ruleset/compile.js';
import { World } from '../../../world/world.js';
import type { Plan } from './plans.js';
import { daysTable } from '../tables.js';
import { type Good } from '../../markets/state.js';

/** A game that neither ends well nor badly is given up after so many days. */
export const MOST_DAYS = 60;
const SEAT = 'trial';

/** How a game went. */
export interface Game {
  readonly end: 'goal' | 'ruined' | 'going';
  /** The day on which it ended. */
  readonly days: number;
  /** What came in and went out in all, by where it came from. */
  readonly income: ReadonlyMap<string, number>;
  readonly costs: ReadonlyMap<string, number>;
}

/** A place that no actor is of: where one trades is left out of a simulated game. */
const NOWHERE = { id: 'nowhere', label: 'Nowhere', kind: 'prop' };

/**
 * The rules for games without an arena: nothing stands in it, nobody thinks, days end when the plan says, and a last chance
 * is the same tick's.
 */
export function rulesForGames(rules: Rules): Rules {
  const { economy, ...document } = rules.document as { economy?: Record<string, unknown> & { ruin?: object } };
  if (!economy) return rules;
  // Windows are for seats: a game that nobody looks at has none. Its plan trades with shop and market themselves.
  const away = (chapter: string) => ((rules.document[chapter] ?? []) as readonly object[]).map((one) => ({ ...one, at: NOWHERE.id }));
  const quiet = {
    ...document,
    actors: [...(rules.document['actors'] as readonly object[]), NOWHERE],
    markets: away('markets'),
    shops: away('shops'),
    arena: { width: 400, height: 400, walls: [], starts: [], placed: [] },
    situations: [],
    economy: { ...economy, day: { key: true }, ...(economy.ruin && { ruin: { ...economy.ruin, lastChance: '1s' } }) },
  };
  return readRuleset(JSON.parse(JSON.stringify(quiet))).rules ?? rules;
}

/** Plays games of one plan, each with a seed of its own: the same seed is the same luck, also under edited rules. */
export class EconomyGames {
  private readonly rules: Rules;
  /** The offers that a shop sells tier by tier. */
  private upgrades: readonly Offer[] = [];

  constructor(
    rules: Rules,
    private readonly plan: Plan,
    private readonly mostDays = MOST_DAYS,
  ) {
    this.rules = rulesForGames(rules);
  }

  play(seed: number): Game {
    const world = World.start(this.rules, seed);
    world.step([{ kind: 'join', args: { seat: SEAT } }]);
    const player = actorOfSeat(world, SEAT);
    const { list, shops: all } = shops.in(world);
    const sold = new Set(all.flatMap(({ sells }) => sells));
    this.upgrades = list.filter(({ tiers, index }) => tiers > 0 && sold.has(index));
    const totals = { income: new Map<string, number>(), costs: new Map<string, number>() };
    for (let day = 1; day <= this.mostDays; day++) {
      this.work(world, player);
      this.trade(world, player);
      // Goals are looked at in a tick: what was earned today counts for today.
      world.step();
      const today = stateOf(world, player);
      if (today.goal > 0) {
        this.note(world, player, today.goal, totals);
        return { end: 'goal', days: today.goal, ...totals };
      }
      endNow(world);
      // In the last chance everything goes.
      if (stateOf(world, player).short) this.sellAll(world, player, 0, false);
      for (let n = 0; n < 25 && daysTable.in(world).cells.settling[0] === 1; n++) world.step();
      world.step();
      const { ruined, goal } = stateOf(world, player);
      this.note(world, player, ledger.in(world).account.lastDay[world.actors.rowOf(player)], totals);
      if (goal > 0) return { end: 'goal', days: goal, ...totals };
      if (ruined) return { end: 'ruined', days: day, ...totals };
    }
    return { end: 'going', days: this.mostDays, ...totals };
  }

  /** A day's work: what its loot table gives, taken up at once. */
  private work(world: World, player: number): void {
    const { economy } = ledger.of(this.rules);
    const haul = economy?.haul === undefined ? -1 : this.rules.chapters.get('loot')!.ids.indexOf(economy.haul);
    if (haul >= 0) dropFrom(world, haul, player, player);
    // Whatever lies under the diver is taken.
    world.step();
  }

  private trade(world: World, player: number): void {
    this.sellAll(world, player, this.plan.holds);
    for (let n = 0; n < 100; n++) {
      const next = this.cheapest(world, player);
      if (!next || !buy(world, player, next, '')) return;
    }
  }

  private sellAll(world: World, player: number, holds: number, keeps = true): void {
    for (const market of markets.in(world).list)
      for (const good of market.goods) {
        const spare = Math.floor(readAttribute(world, player, good.attribute)) - (keeps ? this.needed(world, player, good.attribute) : 0);
        if (spare < 1) continue;
        if (priceAt(world, market.index, good.attribute) >= wantedFor(good, holds)) sell(world, player, market, good.id, spare);
      }
  }

  /** What the next upgrades take of a good: that much of it is not sold. */
  private needed(world: World, player: number, attribute: number): number {
    const { list, held } = shops.in(world);
    const row = world.actors.rowOf(player);
    let most = 0;
    for (const offer of list)
      if (offer.tiers > held[offer.index].data[row] && offer.costs.some((part) => part.attribute === attribute))
        for (const part of dealOf(world, player, offer).costs) if (part.attribute === attribute && part.amount > most) most = part.amount;
    return most;
  }

  /** The next upgrade: the cheapest of those that a shop sells tier by tier, where the purse bears it. */
  private cheapest(world: World, player: number): Offer | undefined {
    const { list } = shops.in(world);
    const { currency } = ledger.in(world);
    const purse = purseOf(world, player);
    const price = (offer: Offer) =>
      dealOf(world, player, offer).costs.reduce((sum, part) => (part.attribute === currency ? sum + part.amount : sum), 0);
    const open = this.upgrades.filter((offer) => !buyingRefusal(world, player, offer));
    if (open.length === 0) return undefined;
    const tomorrow = this.plan.careful ? list.reduce((sum, offer) => sum + upkeepOf(world, player, offer), 0) : 0;
    return open
      .filter((offer) => {
        if (!this.plan.careful) return true;
        const held = shops.in(world).held[offer.index].data[world.actors.rowOf(player)];
        const rises = upkeepOf(world, player, offer, held + 1) - upkeepOf(world, player, offer, held);
        return purse - price(offer) >= tomorrow + rises;
      })
      .sort((a, b) => price(a) - price(b))[0];
  }

  private note(world: World, player: number, day: number, totals: { income: Map<string, number>; costs: Map<string, number> }): void {
    for (const { label, amount } of linesOf(world, player, day)) {
      const into = amount > 0 ? totals.income : totals.costs;
      into.set(label, (into.get(label) ?? 0) + Math.abs(amount));
    }
  }
}

/** The price from which a plan sells: so far up its range. */
function wantedFor(good: Good, holds: number): number {
  const [least, most] = boundsOf(good);
  return holds === 0 ? -Infinity : least + holds * (most - least);
}

function stateOf(world: World, player: number): { readonly short: boolean; readonly ruined: boolean; readonly goal: number } {
  const { account } = ledger.in(world);
  const row = world.actors.rowOf(player);
  return { short: account.until[row] > 0, ruined: account.ruined[row] === 1, goal: account.goal[row] };
}
