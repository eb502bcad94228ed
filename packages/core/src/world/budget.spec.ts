import { compileRuleset, MOST_STEPS, World } from '../index.js';
import { counter, rulesetWith } from '../testing/rulesets.js';

describe('A tick', () => {
  const give = { do: 'give', attribute: 'coins', amount: 1 };
  /** A ruleset whose rules, once begun, would do more than any tick can. */
  const endless = (count: number, actions: number) =>
    compileRuleset(
      rulesetWith({
        attributes: [counter('coins', { max: 1e9 })],
        reactions: Array.from({ length: count }, (_, i) => ({
          id: `chain${i}`,
          label: `Chain ${i}`,
          on: { on: 'attributeChanged', attribute: 'coins' },
          then: Array.from({ length: i === 7 ? actions * 3 : actions }, () => give),
        })),
      }),
    );
  const begun = (rules = endless(15, 12), seed = 1) => {
    const world = World.start(rules, seed);
    world.step([{ kind: 'join', args: { seat: 'north' } }]);
    return world;
  };
  const poke = { kind: 'poke', args: { seat: 'north', action: give } };

  it('is cut where it has taken as many steps as it may, and says so once, with the rule that took most of them', () => {
    const world = begun();
    const cuts = world.step([poke]).filter(({ name }) => name === 'tickCut');
    expect(cuts.map(({ data }) => [data['rule'], Number(data['share']) > 1 / 15])).toEqual([['reactions/chain7', true]]);
    const label = (_chapter: string, id: string) => id;
    expect(world.rules.registry.events.get('tickCut')!.sentence(cuts[0], { label, time: String })).toMatch(
      /^the tick was cut after 20000 steps, most of them \(\d+ %\) for chain7$/,
    );
  });

  it('goes on at the next one, and is the same wherever it runs', () => {
    const [one, other] = [begun(), begun()];
    for (let n = 0; n < 3; n++) {
      one.step(n === 1 ? [] : [poke]);
      other.step(n === 1 ? [] : [poke]);
      expect(one.hash()).toBe(other.hash());
    }
    expect(one.step([]).length).toBe(0);
    expect(one.step([poke]).length).toBeGreaterThan(100);
  });

  it('counts no more than it may, and nothing between ticks', () => {
    const world = begun();
    world.step([poke]);
    expect(world.steps).toBe(0);
    expect(world.spend(MOST_STEPS * 10)).toBeTrue();
  });

  it('is as long as it always was where nothing is out of hand', () => {
    const world = begun(endless(1, 1));
    expect(world.step([poke]).some(({ name }) => name === 'tickCut')).toBeFalse();
  });
});
