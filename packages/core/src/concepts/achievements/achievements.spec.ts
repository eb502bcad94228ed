import { compileRuleset, findingsOf, readRuleset, savePlayer, wireSchemaOf } from '../../index.js';
import { counter, join, pool, rulesetWith, Trial } from '../../testing/rulesets.js';
import { achievements } from './state.js';
import { achievementsTable, secretsFoundTable } from './tables.js';

const FELLED = { on: 'attributeChanged', attribute: 'felled', how: 'give' };
const one = (id: string, more: Record<string, unknown> = {}) => ({ id, label: id, ...more });
const parts = (...list: Record<string, unknown>[]) => ({
  attributes: [pool('suit'), counter('felled', { saved: true }), counter('scrip')],
  achievements: list,
});
const give = (trial: Trial, amount = 1, seat = 'north') => trial.poke({ do: 'give', attribute: 'felled', amount }, seat);
const unlocked = (trial: Trial) => trial.named('achievementUnlocked').map(({ who, data }) => `${who} ${data['achievement']}`);
const cell = (trial: Trial, name: string, seat = 'north') =>
  achievementsTable.in(trial.world).cells[name][trial.world.actors.rowOf(trial.actor(seat))];

describe('An achievement', () => {
  it('counts for each player alone, and is unlocked once for ever', () => {
    const then = [{ do: 'give', attribute: 'scrip', amount: 5 }];
    const trial = Trial.of(parts(one('three', { on: FELLED, count: 3, then })), [join('north'), join('south')]);
    give(trial, 1);
    give(trial, 1);
    give(trial, 1, 'south');
    expect([cell(trial, 'three'), cell(trial, 'three', 'south'), unlocked(trial)]).toEqual([2, 1, []]);
    give(trial, 1);
    give(trial, 1);
    trial.poke({ do: 'unlock', achievement: 'three' });
    trial.restore();
    give(trial, 1);
    expect(unlocked(trial)).toEqual(['north three']);
    expect([cell(trial, 'three'), trial.value('scrip')]).toEqual([3, 5]);
  });

  it('waits for a condition to hold, without a break for as long as is written', () => {
    const trial = Trial.of(parts(one('rich', { if: 'scrip >= 10' }), one('calm', { if: 'suit > 50', holds: '2s' })));
    trial.run(1.5);
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 60 });
    trial.poke({ do: 'heal', attribute: 'suit', amount: 60 });
    trial.run(1.5);
    expect(unlocked(trial)).toEqual([]);
    trial.run(1);
    trial.poke({ do: 'give', attribute: 'scrip', amount: 10 });
    trial.poke({ do: 'take', attribute: 'scrip', amount: 10 });
    expect(unlocked(trial)).toEqual(['north calm', 'north rich']);
  });

  it('is kept with its player, and not unlocked again as they come back', () => {
    const rules = parts(one('three', { on: FELLED, count: 3 }));
    const trial = Trial.of(rules);
    for (let n = 0; n < 3; n++) give(trial);
    const saved = savePlayer(trial.world, trial.world.actors.rowOf(trial.actor()));
    const again = Trial.of(rules, [join('north', { saved })]);
    again.run(1);
    give(again);
    expect([unlocked(again), cell(again, 'three.done')]).toEqual([[], 1]);
  });

  it('that is added later is granted backwards from what was counted', () => {
    const trial = Trial.of(parts());
    give(trial, 7);
    const backwards = { on: FELLED, backwards: 'felled' };
    const later = parts(
      one('five', { ...backwards, count: 5 }),
      one('nine', { ...backwards, count: 9 }),
      one('anew', { on: FELLED, count: 2 }),
    );
    const saved = savePlayer(trial.world, trial.world.actors.rowOf(trial.actor()));
    trial.world = trial.world.adopt(compileRuleset(rulesetWith(later)));
    trial.run(0.2);
    expect(unlocked(trial)).toEqual(['north five']);
    expect([cell(trial, 'nine'), cell(trial, 'anew')]).toEqual([7, 0]);
    const again = Trial.of(later, [join('north', { saved })]);
    again.run(0.2);
    expect(unlocked(again)).toEqual(['north five']);
  });

  it('is taken back with all others of one player, and nothing else is', () => {
    const trial = Trial.of(parts(one('one', { on: FELLED }), one('two', { on: FELLED, count: 2, secret: true })), [
      join('north'),
      join('south'),
    ]);
    for (const seat of ['north', 'south']) for (let n = 0; n < 2; n++) give(trial, 1, seat);
    trial.poke({ do: 'forgetAchievements' });
    expect([cell(trial, 'one.done'), cell(trial, 'two'), trial.value('felled')]).toEqual([0, 0, 2]);
    expect([cell(trial, 'one.done', 'south'), secretsFoundTable.in(trial.world).count]).toEqual([1, 1]);
    give(trial);
    expect(unlocked(trial).filter((name) => name === 'north one').length).toBe(2);
  });

  it('that an action unlocks needs neither an event nor a condition', () => {
    const zone = { zones: [{ id: 'bell', label: 'Bell', onEnter: [{ do: 'unlock', achievement: 'deep' }] }] };
    const deep = parts(one('deep', {}));
    expect(readRuleset(rulesetWith({ ...deep, ...zone })).problems).toEqual([]);
    expect(readRuleset(rulesetWith(deep)).problems.map(({ path }) => path)).toEqual(['/achievements/0/on']);
    const placed = { ...zone, arena: { starts: [{ x: 50, y: 50 }], placed: [{ zone: 'bell', x: 50, y: 50, radius: 40 }] } };
    expect(unlocked(Trial.of({ ...deep, ...placed }))).toEqual(['north deep']);
    const never = parts(one('deep', { if: 'felled < 0' }));
    const kinds = (more: Record<string, unknown>) => findingsOf(compileRuleset(rulesetWith(more))).map(({ kind }) => kind);
    expect(kinds(never)).toContain('neverUnlocked');
    expect(kinds({ ...never, ...placed })).not.toContain('neverUnlocked');
  });

  it('that was taken back pays again only when it is earned anew', () => {
    const pay = [{ do: 'give', attribute: 'scrip', amount: 10 }];
    const rules = parts(
      one('rich', { if: 'felled >= 3', then: pay }),
      one('long', { if: 'felled >= 3', holds: '300ms', then: pay }),
      one('five', { on: FELLED, count: 5, backwards: 'felled', then: pay }),
    );
    const trial = Trial.of(rules);
    give(trial, 6);
    trial.run(1);
    const count = trial.named('achievementUnlocked').length;
    const purse = trial.value('scrip');
    expect(purse).toBeGreaterThanOrEqual(20);
    trial.poke({ do: 'forgetAchievements' });
    trial.run(2);
    expect([trial.named('achievementUnlocked').length, trial.value('scrip')]).toEqual([count, purse]);
    // Nor does it by leaving and coming back, by a restart, or by an edit.
    const saved = savePlayer(trial.world, trial.world.actors.rowOf(trial.actor()));
    const again = Trial.of(rules, [join('north', { saved })]);
    again.run(1);
    again.restore();
    again.world = again.world.adopt(compileRuleset(rulesetWith(rules)));
    again.run(1);
    expect([unlocked(again), again.value('scrip')]).toEqual([[], purse]);
    // What is no longer so and comes true once more is earned.
    again.poke({ do: 'set', attribute: 'felled', value: 0 });
    again.step();
    again.poke({ do: 'set', attribute: 'felled', value: 4 });
    again.run(0.5);
    expect(unlocked(again)).toEqual(['north rich', 'north long']);
    expect(again.value('scrip')).toBe(purse + 20);
  });

  it('that is secret is told to nobody before it is unlocked, and then in words', () => {
    const rules = compileRuleset(
      rulesetWith(parts(one('plain', { on: FELLED, count: 2 }), one('hushed', { label: 'Not a sound', on: FELLED, secret: true }))),
    );
    const schema = JSON.stringify(wireSchemaOf(rules, false));
    expect(schema).toContain('plain');
    expect(schema).not.toContain('hushed');
    expect(schema).not.toContain('Not a sound');
    const trial = new Trial(rules);
    give(trial);
    const found = secretsFoundTable.in(trial.world);
    expect(found.count).toBe(1);
    expect(trial.world.text(found.cells.label[0])).toBe('Not a sound');
    trial.world = trial.world.adopt(rules);
    expect(secretsFoundTable.in(trial.world).count).toBe(1);
  });

  it('is a condition in formulas', () => {
    const trial = Trial.of(
      parts(
        one('first', { on: FELLED, then: [{ do: 'when', if: 'unlocked(first)', then: [{ do: 'give', attribute: 'scrip', amount: 1 }] }] }),
      ),
    );
    give(trial);
    expect(trial.value('scrip')).toBe(1);
  });
});

describe('What does not fit an achievement', () => {
  it('is refused where it stands, or found', () => {
    const at = (more: Record<string, unknown>) => readRuleset(rulesetWith(parts(one('a', more)))).problems.map(({ path }) => path);
    expect(at({})).toEqual(['/achievements/0/on']);
    expect(at({ on: FELLED, if: 'suit > 1' })).toEqual(['/achievements/0/if']);
    expect(at({ on: FELLED, holds: '2s' })).toEqual(['/achievements/0/holds']);
    expect(at({ if: 'suit > 1', count: 4 })).toEqual(['/achievements/0/count']);
    const kinds = (more: Record<string, unknown>) => findingsOf(compileRuleset(rulesetWith(parts(one('a', more))))).map(({ kind }) => kind);
    expect(kinds({ if: 'suit > 1000' })).toContain('neverUnlocked');
    expect(kinds({ on: { on: 'zoneEntered' } })).toContain('neverHeard');
    expect(achievements.of(compileRuleset(rulesetWith({}))).list).toEqual([]);
  });
});
