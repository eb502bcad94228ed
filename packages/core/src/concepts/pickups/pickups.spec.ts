import { compileRuleset } from '../../index.js';
import { counter, input, join, pool, rulesetWith, stat, Trial } from '../../testing/rulesets.js';
import { pickupsTable, pickupsTakenTable } from './tables.js';

const parts = {
  attributes: [stat('finSpeed', 120), counter('scrip'), pool('oxygen', { max: 90 })],
  effects: [
    { id: 'slipstream', label: 'Slipstream', lasts: '6s', modifiers: [{ attribute: 'finSpeed', operation: 'percent', amount: 40 }] },
  ],
  pickups: [
    { id: 'pod', label: 'Pod', radius: 10, returns: '2s', then: [{ do: 'apply', effect: 'slipstream' }] },
    { id: 'token', label: 'Token', radius: 10, then: [{ do: 'give', attribute: 'scrip', amount: { random: [1, 5], whole: true } }] },
    { id: 'canister', label: 'Canister', radius: 10, who: 'oxygen < 90', then: [{ do: 'heal', attribute: 'oxygen', amount: 30 }] },
  ],
};
const place = (x: number) => ({ do: 'place', x, y: 100 });
const withPlaced = (pickup: string) => ({ ...parts, arena: { starts: [{ x: 50, y: 100 }], placed: [{ pickup, x: 200, y: 100 }] } });

describe('A pickup', () => {
  it('is taken by touch and gone at once, while its effect runs on', () => {
    const trial = Trial.of(withPlaced('pod'));
    trial.poke(place(200));
    expect(trial.named('pickupTaken').length).toBe(1);
    expect(pickupsTable.in(trial.world).count).toBe(0);
    expect(trial.value('finSpeed')).toBe(168);
  });

  it('is taken by one, though two touch it in the same tick', () => {
    const trial = Trial.of(withPlaced('token'), [join('north'), join('south')]);
    trial.step(
      { kind: 'poke', args: { seat: 'north', action: place(195) } },
      { kind: 'poke', args: { seat: 'south', action: place(205) } },
    );
    expect(trial.named('pickupTaken').map((e) => e.who)).toEqual(['north']);
    expect(trial.value('scrip', 'south')).toBe(0);
    expect(trial.value('scrip', 'north')).toBeGreaterThanOrEqual(1);
  });

  it('is worth what luck made of it as it appeared, whoever takes it, and tells that', () => {
    const worthOf = (drawn: string | undefined, takers: readonly string[], gone = 'forAll') => {
      const token = { ...parts.pickups[1], gone, ...(drawn && { drawn }) };
      const trial = new Trial(compileRuleset(rulesetWith({ ...withPlaced('token'), pickups: [token] })), [join('north'), join('south')], 5);
      const shown = pickupsTable.in(trial.world).cells.worth[0];
      for (const seat of takers) trial.poke(place(200), seat);
      return [shown, ...takers.map((seat) => trial.value('scrip', seat))];
    };
    const [shown, north] = worthOf(undefined, ['north']);
    expect(north).toBe(shown);
    expect(worthOf(undefined, ['south'])).toEqual([shown, shown]);
    expect(worthOf('appearing', ['south', 'north'], 'perPlayer')).toEqual([shown, shown, shown]);
    expect(worthOf('taking', ['north'])[0]).toBe(0);
    // Each that appears is drawn anew, also in the same place.
    const trial = Trial.of({ ...withPlaced('token'), pickups: [{ ...parts.pickups[1], returns: '100ms' }] });
    const seen = new Set<number>();
    for (let n = 0; n < 40; n++) {
      trial.poke(place(200));
      trial.poke(place(50));
      trial.run(0.2);
      const { live } = pickupsTable.in(trial.world);
      if (live[0] === 1) seen.add(pickupsTable.in(trial.world).cells.worth[0]);
    }
    expect([...seen].sort()).toEqual([1, 2, 3, 4, 5]);
  });

  it('keeps that luck for all of its list, over a wait', () => {
    const random = { random: [1, 1000], whole: true };
    const token = {
      ...parts.pickups[1],
      then: [
        { do: 'give', attribute: 'scrip', amount: random },
        { do: 'wait', for: '100ms' },
        { do: 'pick', among: [1, 2, 3, 4, 5].map((n) => ({ weight: 1, then: [{ do: 'give', attribute: 'scrip', amount: n * 1000 }] })) },
        { do: 'give', attribute: 'scrip', amount: random },
      ],
    };
    const rules = compileRuleset(rulesetWith({ ...withPlaced('token'), pickups: [token] }));
    const taken = ['north', 'south'].map((seat) => {
      const trial = new Trial(rules, [join('north'), join('south')], 9);
      trial.poke(place(200), seat);
      trial.run(0.2);
      return trial.value('scrip', seat);
    });
    expect(taken[0]).toBe(taken[1]);
    expect(taken[0]).toBeGreaterThan(1000);
  });

  it('returns after its time, in its place', () => {
    const trial = Trial.of(withPlaced('pod'));
    trial.poke(place(200));
    trial.poke(place(50));
    trial.run(1.9);
    expect(pickupsTable.in(trial.world).count).toBe(0);
    trial.run(0.1);
    expect(pickupsTable.in(trial.world).count).toBe(1);
  });

  it('is only for whom its author says', () => {
    const trial = Trial.of(withPlaced('canister'));
    trial.poke(place(200));
    expect(trial.named('pickupTaken').length).toBe(0);
    trial.poke({ do: 'hurt', attribute: 'oxygen', amount: 40 });
    expect(trial.value('oxygen')).toBe(80);
    expect(trial.named('pickupTaken').length).toBe(1);
  });

  it('is worth the same under the same seed, and within its range', () => {
    const worths = () => {
      const trial = Trial.of(withPlaced('pod'));
      return Array.from({ length: 40 }, () => {
        const before = trial.value('scrip');
        trial.poke({ do: 'spawn', pickup: 'token' });
        return trial.value('scrip') - before;
      });
    };
    const one = worths();
    expect(one).toEqual(worths());
    expect(new Set(one)).toEqual(new Set([1, 2, 3, 4, 5]));
  });

  it('can be walked into', () => {
    const trial = Trial.of(withPlaced('pod'));
    trial.step(input('north', { do: 'moveTo', x: 300, y: 100 }));
    trial.run(2);
    expect(trial.named('pickupTaken').length).toBe(1);
  });

  it('tells once for each touch whom its rule keeps off, and why', () => {
    const trial = Trial.of(withPlaced('canister'));
    trial.poke(place(200));
    trial.run(1);
    expect(trial.named('pickupRefused').map(({ who, data }) => [who, data['rule']])).toEqual([['north', 'oxygen < 90']]);
    trial.poke(place(50));
    trial.poke(place(200));
    expect(trial.named('pickupRefused').length).toBe(2);
  });

  it('is gone unclaimed after its time', () => {
    const pickups = [{ id: 'kelp', label: 'Kelp', lasts: '12s', returns: '3s' }];
    const trial = Trial.of({ pickups, arena: { starts: [{ x: 50, y: 100 }], placed: [{ pickup: 'kelp', x: 200, y: 100 }] } });
    trial.run(11.9);
    expect(pickupsTable.in(trial.world).count).toBe(1);
    trial.run(0.1);
    expect([pickupsTable.in(trial.world).count, trial.named('pickupFaded').length]).toEqual([0, 1]);
    trial.run(3.1);
    expect(pickupsTable.in(trial.world).count).toBe(1);
  });

  it('per player is each player’s once, also after they come back, and stays for the others', () => {
    const pickups = [{ ...parts.pickups[1], gone: 'perPlayer' }];
    const trial = Trial.of({ ...withPlaced('token'), pickups }, [join('north'), join('south')]);
    trial.poke(place(200));
    trial.run(1);
    expect(trial.named('pickupTaken').length).toBe(1);
    expect([pickupsTable.in(trial.world).count, pickupsTakenTable.in(trial.world).count]).toEqual([1, 1]);
    trial.step({ kind: 'leave', args: { seat: 'north' } });
    trial.restore();
    trial.step(join('north'));
    expect(pickupsTakenTable.in(trial.world).count).toBe(1);
    trial.poke(place(200));
    trial.poke(place(200), 'south');
    expect(trial.named('pickupTaken').map(({ who }) => who)).toEqual(['north', 'south']);
  });

  it('can be other where it is placed', () => {
    const arena = {
      starts: [{ x: 50, y: 100 }],
      placed: [{ pickup: 'canister', x: 200, y: 100, with: { radius: 60, who: 'oxygen > 0' } }],
    };
    const trial = Trial.of({ ...parts, arena });
    trial.poke(place(150));
    expect(trial.named('pickupTaken').length).toBe(1);
  });

  it('stays taken, or comes back in its time, over an edit of the arena', () => {
    const trial = Trial.of(withPlaced('pod'));
    trial.poke(place(200));
    trial.poke(place(50));
    const arena = {
      starts: [{ x: 50, y: 100 }],
      placed: [
        { pickup: 'token', x: 400, y: 100 },
        { pickup: 'pod', x: 300, y: 100 },
      ],
    };
    trial.world = trial.world.adopt(compileRuleset(rulesetWith({ ...parts, arena })));
    trial.run(1.9);
    expect(pickupsTable.in(trial.world).count).toBe(1);
    trial.run(0.2);
    const { count, columns } = pickupsTable.in(trial.world);
    expect([count, ...columns[1].data.slice(0, 2)].sort()).toEqual([2, 300, 400].sort());
  });
});
