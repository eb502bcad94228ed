import { compileRuleset, readRuleset } from '../../index.js';
import { counter, join, pool, rulesetWith, Trial } from '../../testing/rulesets.js';
import { insideTable } from './tables.js';

const place = (x: number, y = 100) => ({ do: 'place', x, y });
const give = (attribute: string) => [{ do: 'give', attribute, amount: 1 }];
const BELL = {
  id: 'bell',
  label: 'Bell',
  onEnter: [{ do: 'grant', status: 'inBell' }, ...give('entered')],
  onLeave: [{ do: 'withdraw', status: 'inBell' }, ...give('left')],
  every: { time: '1s', then: give('stayed') },
};
const parts = (zone: Record<string, unknown> = {}, placed: Record<string, unknown> = { radius: 50 }) => ({
  statuses: [{ id: 'inBell', label: 'In bell' }],
  attributes: [pool('suit'), counter('entered'), counter('left'), counter('stayed')],
  zones: [{ ...BELL, ...zone }],
  arena: { starts: [{ x: 100, y: 100 }], placed: [{ zone: 'bell', x: 300, y: 100, ...placed }] },
});
const counts = (trial: Trial, seat = 'north') => ['entered', 'left', 'stayed'].map((id) => trial.value(id, seat));

describe('A zone', () => {
  it('does what it says on entering, inside every so often, and on leaving, each once', () => {
    const trial = Trial.of(parts());
    trial.poke(place(300));
    expect(counts(trial)).toEqual([1, 0, 0]);
    trial.run(1);
    expect(counts(trial)).toEqual([1, 0, 1]);
    trial.poke(place(330));
    trial.run(2);
    expect(counts(trial)).toEqual([1, 0, 3]);
    trial.poke(place(351));
    trial.run(3);
    expect(counts(trial)).toEqual([1, 1, 3]);
    expect(trial.named('zoneEntered').length + trial.named('zoneLeft').length).toBe(2);
  });

  it('is a circle or a rectangle around its middle, its edge included', () => {
    for (const [shape, inside, outside] of [
      [{ radius: 50 }, [350, 100], [337, 140]],
      [{ width: 100, height: 60 }, [350, 130], [350.1, 130]],
    ] as const) {
      const trial = Trial.of(parts({}, shape));
      trial.poke(place(outside[0], outside[1]));
      expect(counts(trial)[0]).toBe(0);
      trial.poke(place(inside[0], inside[1]));
      expect(counts(trial)[0]).toBe(1);
    }
  });

  it('is only for whom its author says, and no longer when that ends', () => {
    const trial = Trial.of(parts({ who: 'suit > 50' }));
    trial.poke(place(300));
    expect(counts(trial)).toEqual([1, 0, 0]);
    trial.poke({ do: 'set', attribute: 'suit', value: 10 });
    trial.run(0.1);
    expect(counts(trial)).toEqual([1, 1, 0]);
  });

  it('lets go of who leaves the room, and of who falls', () => {
    const trial = Trial.of(parts(), [join('north'), join('south')]);
    trial.poke(place(300));
    trial.poke(place(300), 'south');
    trial.step({ kind: 'leave', args: { seat: 'south' } });
    expect(insideTable.in(trial.world).count).toBe(1);
    trial.poke({ do: 'fell' });
    trial.step();
    expect(counts(trial)).toEqual([1, 1, 0]);
  });

  it('can do otherwise where it is placed', () => {
    const trial = Trial.of(parts({}, { radius: 50, with: { every: { time: '500ms', then: give('stayed') } } }));
    trial.poke(place(300));
    trial.run(1);
    expect(counts(trial)).toEqual([1, 0, 2]);
  });

  it('keeps who is inside over an edit and a restart', () => {
    const trial = Trial.of(parts());
    trial.poke(place(300));
    trial.restore();
    const { arena, ...others } = parts();
    const moved = [{ zone: 'bell', x: 310, y: 100, radius: 50 }];
    trial.world = trial.world.adopt(compileRuleset(rulesetWith({ ...others, arena: { ...arena, placed: moved } })));
    trial.run(1);
    expect(counts(trial)).toEqual([1, 0, 1]);
    trial.world = trial.world.adopt(compileRuleset(rulesetWith({ ...others, arena: { ...arena, placed: [] } })));
    trial.run(1);
    expect(insideTable.in(trial.world).count).toBe(0);
    expect(counts(trial)).toEqual([1, 0, 1]);
  });

  it('has to be a circle or a rectangle', () => {
    for (const shape of [{}, { radius: 10, width: 5, height: 5 }, { width: 5 }])
      expect(readRuleset(rulesetWith(parts({}, shape))).problems[0].path).toBe('/arena/placed/0');
  });
});
