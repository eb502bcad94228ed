import brinewick from '../../../testing/recorded/brinewick.json' with { type: 'json' };
import { compileRuleset, differenceOf, EconomyGames, findingsOf, outcomeOf, PLANS, type Rules } from '../../../index.js';
import { endNow } from '../index.js';
import { counter, join, rulesetWith, Trial } from '../../../testing/rulesets.js';
import { pricesTable } from '../../markets/tables.js';
import { accountsTable } from '../../ledger/tables.js';

const YARD = {
  attributes: [counter('scrip', { start: 20 }), counter('brass')],
  loot: [{ id: 'day', label: 'A day', always: [{ id: 'brass', gives: 'brass', quantity: { random: [2, 6], whole: true } }] }],
  economy: { currency: 'scrip', haul: 'day', ruin: { lastChance: '5s' }, goal: { if: 'tier(slip) >= 3' } },
  markets: [{ id: 'quay', label: 'Quay', goods: [{ good: 'brass', price: { range: [4, 16] } }] }],
  shops: [{ id: 'yard', label: 'Yard', sells: ['slip'] }],
  offers: [{ id: 'slip', label: 'Slip', tiers: 3, costs: [{ attribute: 'scrip', amount: '60 * tier' }], upkeep: '9 * tier' }],
};
const yard = (more: Record<string, unknown> = {}): Rules => compileRuleset(rulesetWith({ ...YARD, ...more }));
const play = (rules: Rules, plan: number, games = 40) => {
  const player = new EconomyGames(rules, PLANS[plan]);
  return outcomeOf(
    PLANS[plan].id,
    Array.from({ length: games }, (_, i) => player.play(i + 1)),
  );
};

describe('Simulated games', () => {
  for (const [i, plan] of PLANS.entries())
    it(`by the plan ${plan.id} end with the goal, with ruin, or not within the days they have, and add up`, () => {
      const outcome = play(yard(), i);
      expect([outcome.plan, outcome.games]).toEqual([plan.id, 40]);
      const ended = outcome.byDay.reduce((sum, { goal, ruined }) => sum + goal + ruined, 0);
      expect(ended).toBe(outcome.ends.filter((end) => end >= 0).length);
      expect(outcome.reached.mean + outcome.ruined.mean).toBeLessThanOrEqual(1);
      expect(outcome.income.find(({ label }) => label === 'brass')!.mean).toBeGreaterThan(0);
    });

  it('have paid for all that the goal asks where they reach it: three tiers at 60, 120 and 180', () => {
    const outcome = play(
      yard(),
      PLANS.findIndex(({ id }) => id === 'hold'),
    );
    expect(outcome.reached.mean).toBe(1);
    expect(outcome.spent.find(({ label }) => label === 'Slip')!.mean).toBe(360);
  });

  it('are the same for the same seed, and different plans play differently', () => {
    const games = new EconomyGames(yard(), PLANS[0]);
    expect(games.play(7)).toEqual(games.play(7));
    expect(play(yard(), 0).ends).not.toEqual(play(yard(), 1).ends);
  });

  it('come to the same in every engine', () => {
    const rules = compileRuleset(brinewick);
    const ends = PLANS.map((plan) => {
      const games = new EconomyGames(rules, plan);
      return [1, 2, 3, 4].map((seed) => games.play(seed)).map(({ end, days }) => `${end} ${days}`);
    });
    expect(ends).toEqual([
      ['goal 27', 'goal 28', 'goal 26', 'goal 30'],
      ['goal 18', 'goal 16', 'goal 26', 'goal 28'],
      ['ruined 9', 'goal 25', 'ruined 5', 'ruined 4'],
    ]);
  });

  it('reach the goal on the day on which it is paid for, as a reckoning by hand of the same prices does', () => {
    const haul = { ...YARD.loot[0], always: [{ id: 'brass', gives: 'brass', quantity: 5 }] };
    const rules = yard({ loot: [haul] });
    const games = new EconomyGames(rules, PLANS[2]);
    const days: number[] = [];
    for (let seed = 1; seed <= 60; seed++) {
      // The prices of each day, of a room in which nobody trades.
      const room = new Trial(rules, [join('north')], seed);
      const prices: number[] = [];
      for (let day = 1; day <= 60; day++) {
        prices.push(pricesTable.in(room.world).cells.price[0]);
        endNow(room.world);
        accountsTable.in(room.world).cells.ruined.fill(0);
      }
      // A purse, three tiers at 60 each times its number, an upkeep of 9 for each tier.
      let [purse, tier, day] = [20, 0, 0];
      let end = '';
      while (end === '') {
        purse += 5 * prices[day++];
        while (tier < 3 && purse >= 60 * (tier + 1)) purse -= 60 * ++tier;
        if (tier === 3) end = `goal ${day}`;
        else if ((purse -= 9 * tier) < 0) end = `ruined ${day}`;
      }
      const game = games.play(seed);
      expect(`${game.end} ${game.days}`).withContext(`seed ${seed}`).toBe(end);
      if (game.end === 'goal') days.push(game.days);
    }
    expect(new Set(days).size).toBeGreaterThan(3);
  });

  it('reach on the first day what is paid for from the start', () => {
    const rich = yard({ attributes: [counter('scrip', { start: 5000 }), counter('brass')] });
    for (const [i] of PLANS.entries()) expect(play(rich, i, 3).ends).toEqual([1, 1, 1]);
    const spent = play(rich, 0, 3).spent.find(({ label }) => label === 'Slip');
    expect(spent?.mean).toBe(360);
  });

  it('ruin whoever takes on more than a day’s work bears', () => {
    const outcome = play(yard({ offers: [{ ...YARD.offers[0], upkeep: '200 * tier' }] }), 2);
    expect(outcome.ruined.mean).toBe(1);
    expect(outcome.reached.mean).toBe(0);
  });

  it('are compared on the same luck: the difference is surer than either', () => {
    const [before, after] = [play(yard(), 0), play(yard({ offers: [{ ...YARD.offers[0], upkeep: '8 * tier' }] }), 0)];
    const { days, both } = differenceOf(before, after);
    expect(both).toBeGreaterThan(20);
    expect(days.mean).toBeLessThanOrEqual(0);
    expect(days.error).toBeLessThan(before.days.error);
    expect(differenceOf(before, before).days).toEqual({ mean: 0, error: 0 });
  });
});

describe('An economy', () => {
  const kinds = (more: Record<string, unknown>) =>
    findingsOf(yard(more))
      .filter(({ path }) => /^\/(offers|markets|shops|economy)/.test(path))
      .map(({ kind }) => kind);
  const slip = (more: Record<string, unknown>) => ({ offers: [{ ...YARD.offers[0], ...more }] });

  it('is told of upkeep that always ruins, and of tiers that can hardly be earned', () => {
    expect(kinds({})).toEqual([]);
    // A day is worth 4 × 10.
    expect(kinds(slip({ upkeep: '50 * tier' }))).toEqual(['upkeepRuins']);
    expect(kinds(slip({ upkeep: '41 * (tier - 1)' }))).toEqual(['outOfReach']);
    expect(kinds(slip({ upkeep: '15 * tier' }))).toEqual(['upkeepRuins']);
    expect(kinds({ economy: { currency: 'scrip', haul: 'day' } })).toEqual(['noRuin']);
  });

  it('is told of prices and needs that nobody meets, and of goods that nobody ever has', () => {
    expect(kinds({ attributes: [counter('scrip', { start: 20, max: 100 }), counter('brass')] })).toContain('cannotBePaid');
    expect(kinds(slip({ needs: [{ if: 'brass < 0', say: 'Never.' }] }))).toContain('soldToNobody');
    expect(kinds({ loot: [{ id: 'day', label: 'A day', always: [{ id: 'pay', gives: 'scrip', quantity: 60 }] }] })).toContain('neverHad');
    expect(kinds({ markets: [{ id: 'quay', label: 'Quay' }] })).toContain('buysNothing');
  });
});
