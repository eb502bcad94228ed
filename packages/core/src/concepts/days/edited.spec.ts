import { compileRuleset, readRuleset, World } from '../../index.js';
import { at, buy, HARBOUR } from '../../testing/harbour.js';
import { rulesetWith } from '../../testing/rulesets.js';
import { purchasesTable } from '../shops/tables.js';
import { pricesTable } from '../markets/tables.js';

describe('A ruleset with an economy', () => {
  const problems = (more: Record<string, unknown>) =>
    readRuleset(rulesetWith({ ...HARBOUR, ...more })).problems.map(({ path, message }) => `${path}: ${message}`);

  it('refuses money that is none, goods that are none, days without end', () => {
    expect(problems({})).toEqual([]);
    expect(problems({ economy: { currency: 'suit' } })[0]).toContain('/economy/currency: suit is a pool');
    expect(problems({ economy: { currency: 'scrip', day: { key: false } } })[0]).toContain('never ends');
    expect(problems({ economy: undefined }).some((one) => one.includes('pays in no money'))).toBeTrue();
    const goods = (good: string) => problems({ markets: [{ id: 'quay', label: 'Quay', goods: [{ good, price: { range: [1, 2] } }] }] })[0];
    expect(goods('suit')).toContain('goods are counters');
    expect(goods('scrip')).toContain('the money itself');
    expect(problems({ markets: [{ id: 'quay', label: 'Quay', goods: [{ good: 'brass', price: { range: [5, 2] } }] }] })[0]).toContain(
      'lowest price comes first',
    );
    expect(problems({ shops: [{ id: 'yard', label: 'Yard', sells: ['slip', 'slip'] }] })[0]).toContain('sells slip already');
    expect(problems({ offers: [{ ...HARBOUR.offers[0], atMost: 2 }, ...HARBOUR.offers.slice(1)] })[0]).toContain('tier by tier');
  });

  it('goes on under edited rules: prices within their bounds, tiers within theirs, offers under new names', () => {
    const trial = at();
    buy(trial, 'slip');
    const edited = rulesetWith({
      ...HARBOUR,
      economy: { ...HARBOUR.economy, goal: { if: 'tier(berth) >= 2' } },
      markets: [{ ...HARBOUR.markets[0], goods: [{ good: 'brass', price: { range: [50, 60] } }] }],
      shops: [{ ...HARBOUR.shops[0], sells: ['berth', 'bottle', 'lamp'] }],
      offers: [{ ...HARBOUR.offers[0], id: 'berth', formerly: ['slip'] }, ...HARBOUR.offers.slice(1)],
    });
    const world = trial.world.adopt(compileRuleset(edited));
    expect(purchasesTable.in(world).cells.berth[world.actors.rowOf(trial.actor())]).toBe(1);
    expect(pricesTable.in(world).count).toBe(1);
    expect(pricesTable.in(world).cells.price[0]).toBe(50);
    expect(() => world.step()).not.toThrow();
    expect(World.restore(compileRuleset(edited), world.snapshot()).hash()).toBe(world.hash());
  });
});
