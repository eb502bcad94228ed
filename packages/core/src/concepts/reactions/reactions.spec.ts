import { readRuleset } from '../../index.js';
import { counter, join, pool, rulesetWith, Trial } from '../../testing/rulesets.js';

const give = (attribute: string, more: Record<string, unknown> = {}) => ({ do: 'give', attribute, amount: 1, ...more });
const parts = (...reactions: Record<string, unknown>[]) => ({
  attributes: [pool('suit'), counter('a'), counter('b')],
  pickups: [{ id: 'token', label: 'Token' }],
  reactions: reactions.map((reaction, i) => ({ id: `r${i}`, label: `R ${i}`, ...reaction })),
});
const TAKEN = { on: 'pickupTaken', pickup: 'token' };
const token = { do: 'spawn', pickup: 'token' };

describe('A reaction', () => {
  it('answers an event that matches, for the one that it is about', () => {
    const trial = Trial.of(parts({ on: TAKEN, then: [give('a'), give('b', { to: 'everyone' })] }), [join('north'), join('south')]);
    trial.poke(token);
    trial.step();
    expect([trial.value('a'), trial.value('a', 'south'), trial.value('b', 'south')]).toEqual([1, 0, 1]);
    const event = trial.named('pickupTaken')[0];
    expect(trial.named('attributeChanged').every(({ cause }) => cause === event.serial)).toBeTrue();
  });

  it('asks for what the event carries', () => {
    const on = { on: 'attributeChanged', attribute: 'suit', how: 'hurt', where: 'event.asked <= -20 and suit < 90' };
    const trial = Trial.of(parts({ on, then: [give('a')] }));
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 5 });
    trial.poke({ do: 'heal', attribute: 'suit', amount: 25 });
    expect(trial.value('a')).toBe(0);
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 25 });
    expect(trial.value('a')).toBe(1);
  });

  it('runs at most as often as it is written: in a time, once for all, once for each', () => {
    const trial = Trial.of(
      parts(
        { on: TAKEN, then: [give('a')], atMost: { times: 2, every: '3s' } },
        { on: TAKEN, then: [give('b')], atMost: { per: 'actor' } },
      ),
      [join('north'), join('south')],
    );
    trial.poke({ do: 'place', x: 500, y: 500 }, 'south');
    for (let n = 0; n < 4; n++) trial.poke(token);
    trial.step();
    expect([trial.value('a'), trial.value('b')]).toEqual([2, 1]);
    trial.step({ kind: 'leave', args: { seat: 'north' } });
    trial.step(join('north'));
    trial.run(3);
    trial.restore();
    trial.poke(token);
    trial.poke({ ...token, x: 900, y: 500 }, 'south');
    trial.poke({ do: 'place', x: 900, y: 500 }, 'south');
    trial.step();
    expect([trial.value('a'), trial.value('b')]).toEqual([1, 0]);
    expect([trial.value('a', 'south'), trial.value('b', 'south')]).toEqual([1, 1]);
  });

  it('are heard in the order of their chapter, each after the state that they speak of', () => {
    const trial = Trial.of(parts({ on: TAKEN, then: [give('a')] }, { on: TAKEN, then: [{ do: 'when', if: 'a == 1', then: [give('b')] }] }));
    trial.poke(token);
    trial.step();
    expect([trial.value('a'), trial.value('b')]).toEqual([1, 1]);
  });

  it('that cause each other are cut, and the world goes on', () => {
    const on = { on: 'attributeChanged', attribute: 'a' };
    const trial = Trial.of(parts({ on, then: [give('a')] }));
    trial.poke(give('a'));
    expect(trial.named('loopCut').length).toBe(1);
    trial.run(1);
    expect(trial.value('a')).toBeGreaterThan(5);
  });

  it('hears of everybody: a part that it would have to play is refused', () => {
    const problems = readRuleset(rulesetWith(parts({ on: { ...TAKEN, who: 'source' } }))).problems;
    expect(problems[0].path).toBe('/reactions/0/on/who');
    expect(readRuleset(rulesetWith(parts({ on: { on: 'pickupTakn' } }))).problems[0].message).toContain('Did you mean pickupTaken?');
  });

  it('of a kind of actor is its own: it plays the part that is said', () => {
    const reactions = [
      { on: { on: 'pickupTaken' }, then: [give('a')] },
      { on: { on: 'attributeChanged', attribute: 'suit', how: 'hurt', who: 'source' }, then: [give('b')], atMost: { times: 2 } },
    ];
    const urchin = {
      id: 'urchin',
      label: 'Urchin',
      kind: 'prop',
      reactions: [{ on: { on: 'pickupTaken', who: 'anyone' }, then: [{ do: 'spawn', pickup: 'crumb' }] }],
    };
    const attributes = ['suit', 'a', 'b'].map((attribute) => ({ attribute }));
    const trial = Trial.of(
      {
        ...parts(),
        pickups: [
          { id: 'token', label: 'Token' },
          { id: 'crumb', label: 'Crumb', who: 'suit > 1000' },
        ],
        actors: [{ id: 'diver', label: 'Diver', kind: 'player', attributes, reactions }, urchin],
        arena: { placed: [{ actor: 'urchin', x: 900, y: 500 }] },
      },
      [join('north'), join('south')],
    );
    trial.poke({ do: 'place', x: 500, y: 500 }, 'south');
    trial.poke(token);
    expect([trial.value('a'), trial.value('a', 'south')]).toEqual([1, 0]);
    expect(trial.named('pickupAppeared').map(({ data }) => data['pickup'])).toEqual(['token', 'crumb']);
    for (let n = 0; n < 3; n++)
      trial.step({ kind: 'poke', args: { seat: 'south', from: 'north', action: { do: 'hurt', attribute: 'suit', amount: 5 } } });
    expect([trial.value('b'), trial.value('b', 'south')]).toEqual([2, 0]);
  });

  it('of an effect is its bearer’s, for as long as it is on', () => {
    const thorns = {
      id: 'thorns',
      label: 'Thorns',
      lasts: '2s',
      reactions: [
        {
          on: { on: 'attributeChanged', attribute: 'suit', how: 'hurt' },
          then: [{ do: 'hurt', attribute: 'suit', amount: 3, to: 'source' }],
        },
      ],
    };
    const trial = Trial.of({ ...parts(), effects: [thorns] }, [join('north'), join('south')]);
    const bite = () =>
      trial.step({ kind: 'poke', args: { seat: 'north', from: 'south', action: { do: 'hurt', attribute: 'suit', amount: 5 } } });
    bite();
    trial.poke({ do: 'apply', effect: 'thorns' });
    bite();
    expect([trial.value('suit'), trial.value('suit', 'south')]).toEqual([90, 97]);
    trial.run(2);
    bite();
    expect(trial.value('suit', 'south')).toBe(97);
  });
});
