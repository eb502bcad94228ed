import { compileRuleset, placeOf, valuesOf } from '../../index.js';
import { counter, input, join, poke, pool, rulesetWith, Trial } from '../../testing/rulesets.js';
import { seatsTable } from './tables.js';

const teams = [
  { id: 'petrel', label: 'Petrel' },
  { id: 'gannet', label: 'Gannet' },
];
const teamOf = (trial: Trial, seat: string) => trial.world.actors.cells.team[trial.world.actors.rowOf(trial.actor(seat))];

describe('A seat', () => {
  it('goes to the smallest team where none is named', () => {
    const trial = Trial.of({ teams }, [join('a', { team: 'petrel' }), join('b'), join('c'), join('d', { team: 'gannet' }), join('e')]);
    expect(['a', 'b', 'c', 'd', 'e'].map((seat) => teamOf(trial, seat))).toEqual([0, 1, 0, 1, 0]);
  });

  it('has no team where there is none', () => {
    const trial = Trial.of({}, [join('a')]);
    expect(teamOf(trial, 'a')).toBe(-1);
  });

  it('is taken once', () => {
    const trial = Trial.of({}, [join('a'), join('a')]);
    expect(trial.world.actors.count).toBe(1);
    expect(trial.named('seatTaken').length).toBe(1);
  });

  it('drives the actor that was asked for, or none that is not there', () => {
    const actors = [
      { id: 'lamprey', label: 'Lamprey', kind: 'foe' },
      { id: 'diver', label: 'Diver', kind: 'player' },
    ];
    const trial = Trial.of({ actors }, [join('a'), join('b', { actor: 'lamprey' }), join('c', { actor: 'gone' })]);
    const type = (seat: string) => trial.world.actors.cells.type[trial.world.actors.rowOf(trial.actor(seat))];
    expect([type('a'), type('b'), trial.actor('c')]).toEqual([1, 0, 0]);
  });

  it('can be left and taken again: a new actor, nothing of the old one', () => {
    const trial = Trial.of({ attributes: [counter('scrip')] }, [join('a')]);
    trial.poke({ do: 'give', attribute: 'scrip', amount: 5 }, 'a');
    trial.step({ kind: 'leave', args: { seat: 'a' } });
    expect(trial.actor('a')).toBe(0);
    expect(valuesOf(trial.world, trial.actor('a'))).toEqual({});
    trial.step(join('a'));
    expect(trial.value('scrip', 'a')).toBe(0);
    expect(trial.named('seatLeft').length).toBe(1);
  });

  it('starts at its team’s points in turn, or in the middle where there are none', () => {
    const arena = {
      width: 400,
      height: 300,
      starts: [
        { x: 50, y: 50, team: 'petrel' },
        { x: 90, y: 50, team: 'petrel' },
      ],
    };
    const trial = Trial.of({ teams, arena }, [
      join('a', { team: 'petrel' }),
      join('b', { team: 'petrel' }),
      join('c', { team: 'petrel' }),
      join('d', { team: 'gannet' }),
    ]);
    const place = (seat: string) => Object.values(placeOf(trial.world, trial.world.actors.rowOf(trial.actor(seat))));
    expect(['a', 'b', 'c', 'd'].map(place)).toEqual([
      [50, 50],
      [90, 50],
      [50, 50],
      [200, 150],
    ]);
  });
});

describe('A poke', () => {
  const parts = { teams, attributes: [pool('suit'), counter('scrip')] };
  it('can be for one, a crew, all, or those near', () => {
    const arena = {
      width: 900,
      height: 300,
      starts: [
        { x: 100, y: 100 },
        { x: 150, y: 100 },
        { x: 700, y: 100 },
      ],
    };
    const seats = [join('a', { team: 'petrel' }), join('b', { team: 'petrel' }), join('c', { team: 'gannet' })];
    const give = (to: unknown) => {
      const trial = Trial.of({ ...parts, arena }, seats);
      trial.poke({ do: 'place', x: 700, y: 100 }, 'c');
      trial.poke({ do: 'place', x: 150, y: 100 }, 'b');
      trial.poke({ do: 'give', attribute: 'scrip', amount: 1, to }, 'a');
      return ['a', 'b', 'c'].map((seat) => trial.value('scrip', seat)).join('');
    };
    expect(give('self')).toBe('100');
    expect(give('team')).toBe('110');
    expect(give('everyone')).toBe('111');
    expect(give({ nearby: 100 })).toBe('010');
    expect(give({ nearby: 100, who: 'others' })).toBe('000');
    expect(give({ nearby: 900, who: 'others' })).toBe('001');
    expect(give({ nearby: 900, who: 'crew' })).toBe('010');
  });

  it('is the cause of what follows from it', () => {
    const trial = Trial.of(parts);
    const [poked, changed] = trial.poke({ do: 'hurt', attribute: 'suit', amount: 5 });
    expect([poked.name, changed.name, changed.cause]).toEqual(['poked', 'attributeChanged', poked.serial]);
  });

  it('on nobody does nothing', () => {
    const trial = Trial.of(parts);
    expect(trial.step(poke('nobody', { do: 'hurt', attribute: 'suit', amount: 5 })).map((e) => e.name)).toEqual(['poked']);
    expect(trial.step({ kind: 'poke', args: { action: { do: 'hurt', attribute: 'suit', amount: 5, to: 'everyone' } } }).length).toBe(2);
  });
});

describe('Inputs', () => {
  it('for those whose kind was deleted do nothing', () => {
    const trial = Trial.of({ attributes: [pool('suit')] });
    const actors = [{ id: 'other', label: 'Other', kind: 'player' }];
    trial.world = trial.world.adopt(compileRuleset(rulesetWith({ attributes: [pool('suit')], actors })));
    expect(trial.world.actors.count).toBe(0);
    expect(seatsTable.in(trial.world).count).toBe(0);
    expect(trial.step(input('north', { do: 'move', x: 1, y: 0 }))).toEqual([]);
  });
});
