import * as fc from 'fast-check';
import { compileRuleset, findingsOf, levelOf, readRuleset, savePlayer, tableOf, tracks } from '../../index.js';
import { counter, join, pool, rulesetWith, stat, Trial } from '../../testing/rulesets.js';
import { tracksTable } from './tables.js';

const standing = (more: Record<string, unknown> = {}) => ({
  id: 'standing',
  label: 'Standing',
  levels: 20,
  needs: '60 * level ^ 1.5',
  ...more,
});
const award = (amount: number, more: Record<string, unknown> = {}) => ({ do: 'award', track: 'standing', amount, ...more });
const give = (attribute: string) => ({ do: 'give', attribute, amount: 1 });
const level = (trial: Trial, seat = 'north') => levelOf(trial.world, trial.actor(seat), 0);
const earned = (trial: Trial, seat = 'north') => tracksTable.in(trial.world).cells.standing[trial.world.actors.rowOf(trial.actor(seat))];
const problems = (parts: Record<string, unknown>) => readRuleset(rulesetWith(parts)).problems;

describe('A level track', () => {
  it('has a table that its curve gives: what each level takes, and all of it together', () => {
    const rules = compileRuleset(rulesetWith({ tracks: [standing()] }));
    const table = tableOf(rules, tracks.of(rules).list[0]);
    expect(table.slice(0, 3).map(({ need }) => need)).toEqual([60, 169.705627, 311.769145]);
    expect(table[2].total).toBe(229.705627);
    expect(table.at(-1)).toEqual(jasmine.objectContaining({ level: 20, need: 0 }));
  });

  it('is climbed several levels at once: one after the other, each with what follows from it', () => {
    const then = [{ do: 'give', attribute: 'scrip', amount: 'level(standing)' }];
    const trial = Trial.of({ attributes: [counter('scrip')], tracks: [standing({ onLevel: [{ then }] })] });
    trial.poke(award(5000));
    const reached = trial.named('levelReached').map(({ data }) => data['level']);
    expect(reached).toEqual([2, 3, 4, 5, 6, 7, 8]);
    expect(trial.value('scrip')).toBe(2 + 3 + 4 + 5 + 6 + 7 + 8);
    const [gained] = trial.named('experienceGained');
    expect(gained.data).toEqual(jasmine.objectContaining({ asked: 5000, given: 5000, lost: 0 }));
    expect(trial.named('levelReached').every(({ cause }) => cause === gained.serial)).toBeTrue();
    expect(earned(trial)).toBeCloseTo(5000 - [1, 2, 3, 4, 5, 6, 7].reduce((sum, n) => sum + 60 * n * Math.sqrt(n), 0), 3);
  });

  it('gives what follows from the levels it is written for', () => {
    const onLevel = [
      { from: 3, to: 3, then: [give('a')] },
      { from: 2, every: 2, then: [give('b')] },
    ];
    const trial = Trial.of({ attributes: [counter('a'), counter('b')], tracks: [standing({ levels: 7, needs: 10, onLevel })] });
    trial.poke(award(60));
    expect([level(trial), trial.value('a'), trial.value('b')]).toEqual([7, 1, 3]);
  });

  it('ends at its top: what is over is lost, and told', () => {
    const trial = Trial.of({ tracks: [standing({ levels: 3, needs: 10 })] });
    trial.poke(award(25));
    trial.poke(award(5));
    expect([level(trial), earned(trial)]).toEqual([3, 0]);
    expect(trial.named('experienceGained').map(({ data }) => [data['given'], data['lost']])).toEqual([
      [20, 5],
      [0, 5],
    ]);
  });

  it('carries nothing over where it says so: every grant ends at the next level', () => {
    const trial = Trial.of({ tracks: [standing({ levels: 5, needs: 10, carry: false })] });
    trial.poke(award(35));
    expect([level(trial), earned(trial)]).toEqual([2, 0]);
  });

  it('is a number in formulas, for who has none it is 0', () => {
    const trial = Trial.of({ attributes: [counter('scrip')], tracks: [standing({ needs: 10 })] });
    trial.poke(award(14));
    trial.poke({ do: 'give', attribute: 'scrip', amount: '10 * level(standing) + experience(standing)' });
    expect(trial.value('scrip')).toBe(24);
  });

  it('has stats grow, pools along with them, and says why', () => {
    const growth = [{ attribute: 'lung', amount: '5 * (level - 1)' }];
    const attributes = [stat('lung', 90), pool('air', { max: 'lung', start: 'full', follow: 'along' })];
    const trial = Trial.of({ attributes, tracks: [standing({ needs: 10, growth })] });
    expect(trial.value('lung')).toBe(90);
    trial.poke(award(20));
    expect([trial.value('lung'), trial.value('air')]).toEqual([100, 100]);
    trial.restore();
    trial.poke(award(10));
    expect(trial.value('lung')).toBe(105);
  });

  it('takes sources: the part of the event that they say earns', () => {
    const sources = [
      { on: { on: 'attributeChanged', attribute: 'suit', how: 'hurt', who: 'source' }, amount: 7 },
      { on: { on: 'attributeChanged', attribute: 'scrip', how: 'give' }, amount: 'scrip' },
    ];
    const trial = Trial.of({ attributes: [pool('suit'), counter('scrip')], tracks: [standing({ sources })] }, [
      join('north'),
      join('south'),
    ]);
    trial.step({ kind: 'poke', args: { seat: 'south', from: 'north', action: { do: 'hurt', attribute: 'suit', amount: 3 } } });
    expect([earned(trial), earned(trial, 'south')]).toEqual([7, 0]);
    trial.poke({ do: 'give', attribute: 'scrip', amount: 4 }, 'south');
    expect(earned(trial, 'south')).toBe(4);
  });
});

describe('Experience that is shared', () => {
  const foe = { id: 'eel', label: 'Eel', kind: 'foe', attributes: [{ attribute: 'suit' }], life: 'suit' };
  const diver = { id: 'diver', label: 'Diver', kind: 'player', attributes: [{ attribute: 'suit' }], life: 'suit' };
  const teams = [
    { id: 'petrel', label: 'Petrel' },
    { id: 'gannet', label: 'Gannet' },
  ];
  const seats = [
    join('a', { team: 'petrel' }),
    join('b', { team: 'petrel' }),
    join('c', { team: 'petrel' }),
    join('d', { team: 'gannet' }),
  ];
  const fallen = (share: Record<string, unknown>) => {
    const sources = [{ on: { on: 'actorDefeated', type: 'eel', who: 'source' }, amount: 90, share }];
    const arena = { placed: [{ actor: 'eel', x: 900, y: 500 }] };
    const trial = Trial.of(
      { attributes: [pool('suit')], actors: [diver, foe], teams, arena, tracks: [standing({ needs: 1000, sources })] },
      seats,
    );
    const hit = (from: string, amount: number) => {
      trial.step({ kind: 'poke', args: { from, action: { do: 'hurt', attribute: 'suit', amount, to: 'everyone' } } });
    };
    return { trial, hit };
  };
  const all = (trial: Trial) => ['a', 'b', 'c', 'd'].map((seat) => earned(trial, seat));

  it('goes in equal parts, in full, or by help', () => {
    const run = (share: Record<string, unknown>) => {
      const { trial, hit } = fallen(share);
      hit('b', 20);
      hit('a', 60);
      // The eel has 20 left, as have all divers: a felling blow of nobody's, then the last harm decides who did it.
      trial.step({ kind: 'poke', args: { seat: 'a', from: 'a', action: { do: 'heal', attribute: 'suit', amount: 80, to: 'team' } } });
      trial.step({ kind: 'poke', args: { seat: 'd', action: { do: 'heal', attribute: 'suit', amount: 80 } } });
      hit('a', 20);
      trial.step();
      return all(trial);
    };
    expect(run({ how: 'equal' })).toEqual([30, 30, 30, 0]);
    expect(run({ how: 'full' })).toEqual([90, 90, 90, 0]);
    expect(run({ how: 'equal', among: 'everyone' })).toEqual([22.5, 22.5, 22.5, 22.5]);
    const help = run({ how: 'help' });
    expect(help[0] + help[1]).toBe(90);
    expect(help.slice(2)).toEqual([0, 0]);
    expect(help[0]).toBeGreaterThan(help[1]);
  });

  it('reaches as far as it is written', () => {
    const trial = Trial.of({ attributes: [], teams, tracks: [standing()] }, seats);
    trial.poke({ do: 'place', x: 900, y: 500 }, 'c');
    trial.poke({ do: 'place', x: 100, y: 100 }, 'a');
    trial.poke({ do: 'place', x: 150, y: 100 }, 'b');
    trial.poke(award(10, { share: 'full', within: 100 }), 'a');
    expect(all(trial)).toEqual([10, 10, 0, 0]);
  });
});

describe('A fall', () => {
  const actors = [
    {
      id: 'diver',
      label: 'Diver',
      kind: 'player',
      attributes: [{ attribute: 'suit' }, { attribute: 'scrip' }],
      life: 'suit',
      respawn: { after: '1s' },
    },
  ];
  const play = (loss: Record<string, unknown>) => {
    const trial = Trial.of({
      attributes: [pool('suit'), counter('scrip')],
      actors,
      tracks: [standing({ needs: 10, loss, onLevel: [{ then: [give('scrip')] }] })],
    });
    trial.poke(award(26));
    trial.poke({ do: 'fell' });
    return trial;
  };

  it('costs a share of what was earned in the level', () => {
    const trial = play({ share: 0.5 });
    expect([level(trial), earned(trial)]).toEqual([3, 3]);
  });

  it('may cost levels, which are not rewarded again', () => {
    const trial = play({ share: 1, levels: true });
    expect([level(trial), earned(trial)]).toEqual([2, 6]);
    expect(trial.named('experienceLost')[0].data['lost']).toBe(10);
    trial.run(2);
    trial.poke(award(4));
    expect([level(trial), trial.value('scrip')]).toEqual([3, 2]);
  });
});

describe('Levels that are kept', () => {
  it('come back with their player, and with what grew', () => {
    const parts = { attributes: [stat('lung', 90)], tracks: [standing({ needs: 10, growth: [{ attribute: 'lung', amount: 'level' }] })] };
    const trial = Trial.of(parts);
    trial.poke(award(34));
    const saved = savePlayer(trial.world, trial.world.actors.rowOf(trial.actor()));
    const again = Trial.of(parts, [join('north', { saved })]);
    expect([level(again), earned(again), again.value('lung')]).toEqual([4, 4, 94]);
    expect(again.named('levelReached')).toEqual([]);
  });

  it('follow a renaming and an edit of the curve: nobody loses a level, nobody is given one', () => {
    const trial = Trial.of({ tracks: [standing({ needs: 100 })] });
    trial.poke(award(290));
    const cheaper = standing({ id: 'rank', formerly: ['standing'], needs: 10, levels: 30 });
    trial.world = trial.world.adopt(compileRuleset(rulesetWith({ tracks: [cheaper] })));
    const row = trial.world.actors.rowOf(trial.actor());
    expect([level(trial), tracksTable.in(trial.world).cells.rank[row]]).toEqual([3, 9.999]);
    trial.world = trial.world.adopt(compileRuleset(rulesetWith({ tracks: [{ ...cheaper, levels: 2 }] })));
    expect(level(trial)).toBe(2);
  });

  it('that somebody made up are held within what there is', () => {
    const trial = Trial.of({ tracks: [standing({ needs: 10, levels: 5 })] }, [
      join('north', { saved: { tracks: { standing: 1e9, 'standing.level': 400, 'standing.peak': -3 } } }),
    ]);
    expect([level(trial), earned(trial)]).toEqual([5, 0]);
  });

  it('come to the same in one grant as in many', () => {
    const rules = compileRuleset(rulesetWith({ tracks: [standing()] }));
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 900 }), { minLength: 1, maxLength: 12 }), (grants) => {
        const one = new Trial(rules);
        const many = new Trial(rules);
        one.poke(award(grants.reduce((sum, grant) => sum + grant, 0)));
        for (const grant of grants) many.poke(award(grant));
        expect(level(one)).toBe(level(many));
        expect(earned(one)).toBeCloseTo(earned(many), 3);
        expect(one.named('levelReached').length).toBe(many.named('levelReached').length);
      }),
      { numRuns: 40 },
    );
  });
});

describe('What does not fit a track', () => {
  it('is refused where it stands', () => {
    expect(problems({ tracks: [standing({ needs: [1, 2] })] })[0].message).toContain('19 amounts');
    expect(problems({ tracks: [standing({ needs: '100 - 10 * level' })] })[0].message).toContain('From level 10 to 11');
    expect(problems({ attributes: [stat('handling', 1)], tracks: [standing({ needs: 'level * handling' })] })[0].message).toContain(
      'same for everybody',
    );
    expect(problems({ attributes: [pool('suit')], tracks: [standing({ growth: [{ attribute: 'suit', amount: 1 }] })] })[0].path).toBe(
      '/tracks/0/growth/0/attribute',
    );
    expect(problems({ tracks: [standing({ onLevel: [{ from: 9, to: 3 }] })] })[0].path).toBe('/tracks/0/onLevel/0/from');
  });

  it('is found where it is sound and cannot be meant', () => {
    const kinds = (track: Record<string, unknown>) => findingsOf(compileRuleset(rulesetWith({ tracks: [track] }))).map(({ kind }) => kind);
    expect(kinds(standing())).toContain('neverReached');
    expect(kinds(standing({ sources: [{ on: { on: 'actorDefeated' }, amount: 1 }], onLevel: [{ from: 30, to: 31 }] }))).toEqual([
      'neverReached',
    ]);
    expect(kinds(standing({ needs: [...Array(18).fill(100), 5], sources: [{ on: { on: 'actorDefeated' }, amount: 1 }] }))).toContain(
      'curveFalls',
    );
  });
});
