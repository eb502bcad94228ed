import fc from 'fast-check';
import { ask, begin, cell, crew, fell, goal, offer, parts, pay, quest, rows, saved, step, told } from '../../testing/quests.js';
import { type Command, compileRuleset, readRuleset } from '../../index.js';
import { join, rulesetWith, Trial } from '../../testing/rulesets.js';

const three = { count: 3, counts: 'crew' };
/** Found together, with what is said at the end once, and what each has of it. */
const together = (more: Record<string, unknown> = {}) =>
  quest('find', { takenBy: 'crew', then: pay, steps: [step('all', goal('shell', three))], ...more });
const ONCE = { do: 'give', attribute: 'suit2', amount: 1, once: true };
const withTally = (...list: Record<string, unknown>[]) => {
  const { attributes, ...rest } = parts(...list);
  const tally = (id: string) => ({ id, label: id, kind: 'counter', see: 'owner', saved: true });
  return { ...rest, attributes: [...attributes, tally('suit2'), tally('lantern')] };
};
const of = (...list: Record<string, unknown>[]) => new Trial(compileRuleset(rulesetWith(withTally(...list))), crew);
const leave = (seat: string): Command => ({ kind: 'leave', args: { seat } });
const problemsOf = (document: Record<string, unknown>) => readRuleset(rulesetWith(document)).problems;
const SEATS = ['north', 'south', 'east', 'west'];
const each = (trial: Trial, attribute: string, seats = SEATS.slice(0, 3)) => seats.map((seat) => trial.value(attribute, seat));
const standings = (trial: Trial, seats = SEATS.slice(0, 3)) => seats.map((seat) => cell(trial, 'find', seat));

describe('A quest that is shared', () => {
  it('is begun by an action for all who share it', () => {
    const trial = of(together());
    begin(trial, 'find');
    expect(standings(trial)).toEqual([1, 1, 0]);
    expect(told(trial)).toEqual(['north questStarted find', 'south questStarted find']);
  });

  it('is one record: what one of them counts is counted once, and what is met is met by all', () => {
    const trial = of(together({ steps: [step('all', goal('shell', { count: 3 }))] }));
    begin(trial, 'find');
    fell(trial);
    fell(trial, 'south');
    expect(rows(trial, 'questLines', 'actor', 'have')).toEqual([
      ['north', 2],
      ['south', 2],
    ]);
    // Who is not on it has no part in it.
    fell(trial, 'east');
    fell(trial, 'south');
    expect(standings(trial)).toEqual([3, 3, 0]);
    expect(each(trial, 'scrip')).toEqual([10, 10, 0]);
    expect(told(trial).filter((line) => line.includes('goalCounted'))).toEqual([
      'north goalCounted find 1',
      'south goalCounted find 2',
      'south goalCounted find 3',
    ]);
  });

  it('has what follows once follow for whoever brought it about, and all else for each', () => {
    const last = { ...step('all', goal('shell', { ...three, then: [ONCE] })), then: [ONCE, ...pay] };
    const trial = of(together({ steps: [last], then: [ONCE, { do: 'give', attribute: 'lantern', amount: 1 }], onStart: [ONCE] }));
    begin(trial, 'find');
    expect(each(trial, 'suit2')).toEqual([1, 0, 0]);
    for (const seat of ['north', 'north', 'south']) fell(trial, seat);
    expect(each(trial, 'suit2')).toEqual([1, 3, 0]);
    expect(each(trial, 'scrip')).toEqual([10, 10, 0]);
    expect(each(trial, 'lantern')).toEqual([1, 1, 0]);
  });

  it('remembers over a wait what has followed once, also where the world is stored in between', () => {
    const then = [{ do: 'wait', for: '1s' }, { do: 'when', if: 'scrip == 0', then: [ONCE] }, ...pay];
    const trial = of(together({ then }));
    begin(trial, 'find');
    for (let n = 0; n < 3; n++) fell(trial);
    trial.restore().run(1.2);
    expect([each(trial, 'suit2'), each(trial, 'scrip')]).toEqual([
      [1, 0, 0],
      [10, 10, 0],
    ]);
  });

  it('is entered as it stands by who comes late: with what each has at its beginning, and nothing of what is past', () => {
    const lantern = { do: 'give', attribute: 'lantern', amount: 1 };
    const trial = of(
      together({ steps: [{ ...step('one', goal('one')), then: pay }, step('all', goal('shell', three))], onStart: [ONCE, lantern] }),
    );
    begin(trial, 'find');
    fell(trial);
    fell(trial, 'south');
    trial.step(join('west', { team: 'petrel' }));
    trial.step();
    expect(cell(trial, 'find.goal.shell', 'west')).toBe(1);
    expect(each(trial, 'suit2', SEATS)).toEqual([1, 0, 0, 0]);
    expect(each(trial, 'lantern', SEATS)).toEqual([1, 1, 0, 1]);
    expect(each(trial, 'scrip', SEATS)).toEqual([10, 10, 0, 0]);
    fell(trial, 'west');
    fell(trial, 'west');
    expect(standings(trial, SEATS)).toEqual([3, 3, 0, 3]);
    expect(each(trial, 'scrip', SEATS)).toEqual([20, 20, 0, 10]);
  });

  it('draws nobody in who gave it up, and none who may not have it', () => {
    const trial = of(together({ if: 'lantern == 0' }));
    begin(trial, 'find');
    ask(trial, 'abandon', 'find', 'south');
    trial.step(join('west', { team: 'gannet' }));
    trial.poke({ do: 'give', attribute: 'lantern', amount: 1 }, 'west');
    for (const seat of ['south', 'west']) trial.poke({ do: 'assign', team: 'petrel' }, seat);
    trial.step();
    expect(standings(trial, SEATS)).toEqual([1, 6, 0, 0]);
    // Nor by one more who takes it.
    trial.step(join('east2', { team: 'petrel' }));
    ask(trial, 'abandon', 'find', 'east2');
    offer(trial, 'find', 'east2');
    ask(trial, 'accept', 'find', 'east2');
    expect(['south', 'east2'].map((seat) => cell(trial, 'find', seat))).toEqual([6, 1]);
    // Offered anew it is had as it stands.
    fell(trial);
    offer(trial, 'find', 'south');
    ask(trial, 'accept', 'find', 'south');
    expect(cell(trial, 'find.goal.shell', 'south')).toBe(1);
  });

  it('is failed, handed in and over for all of them at one time', () => {
    const failing = of(together({ limit: '2s', onFail: [ONCE] }));
    begin(failing, 'find');
    failing.run(1);
    failing.step(join('west', { team: 'petrel' }));
    failing.run(1.1);
    expect(standings(failing, SEATS)).toEqual([4, 4, 0, 4]);
    expect(each(failing, 'suit2', SEATS).reduce((sum, n) => sum + n, 0)).toBe(1);
    const ended = of(together());
    begin(ended, 'find');
    ended.poke({ do: 'finishQuest', quest: 'find' }, 'south');
    expect(each(ended, 'scrip')).toEqual([10, 10, 0]);
  });

  it('stays with the crew that somebody leaves, and goes along where nobody stays', () => {
    const trial = of(together());
    begin(trial, 'find');
    fell(trial);
    trial.poke({ do: 'assign', team: 'gannet' });
    trial.step();
    expect(standings(trial)).toEqual([0, 1, 0]);
    trial.poke({ do: 'assign', team: 'gannet' }, 'south');
    trial.step();
    expect(standings(trial)).toEqual([1, 1, 1]);
    expect(SEATS.slice(0, 3).map((seat) => cell(trial, 'find.goal.shell', seat))).toEqual([1, 1, 1]);
  });

  it('is the one that is furthest where two meet, as when a crew comes back one by one', () => {
    const trial = of(together());
    begin(trial, 'find');
    fell(trial);
    const kept = saved(trial, 'south');
    trial.step(leave('south'));
    fell(trial);
    trial.step(join('south', { team: 'petrel', saved: kept }));
    trial.step();
    expect(cell(trial, 'find.goal.shell', 'south')).toBe(2);
    trial.step(leave('north'), leave('south'));
    trial.step(join('south', { team: 'petrel', saved: kept }));
    trial.step();
    expect([cell(trial, 'find', 'south'), cell(trial, 'find.goal.shell', 'south')]).toEqual([1, 1]);
  });

  it('is counted once for each record where what anybody does counts', () => {
    const trial = of(quest('find', { takenBy: 'crew', steps: [step('all', goal('shell', { count: 2, counts: 'everyone' }))] }));
    begin(trial, 'find');
    begin(trial, 'find', 'east');
    fell(trial, 'south');
    expect(SEATS.slice(0, 3).map((seat) => cell(trial, 'find.goal.shell', seat))).toEqual([1, 1, 1]);
  });

  it('is each one’s own where it says so: what follows a step follows for whoever did it', () => {
    const own = together({ record: 'own', steps: [step('all', goal('shell', { count: 2 }))] });
    const trial = of(own);
    begin(trial, 'find');
    fell(trial);
    fell(trial);
    expect([standings(trial), each(trial, 'scrip')]).toEqual([
      [3, 1, 0],
      [10, 0, 0],
    ]);
  });

  it('says where something follows once, or has a record, that nobody shares', () => {
    const problems = problemsOf(withTally(quest('alone', { record: 'shared', then: [ONCE] })));
    expect(problems).toEqual([
      jasmine.objectContaining({ path: '/quests/0/record', message: jasmine.stringContaining('Nobody shares alone') }),
      jasmine.objectContaining({ path: '/quests/0/then/0/once', message: jasmine.stringContaining('a quest that is shared') }),
    ]);
    expect(problemsOf(withTally(together({ record: 'own', then: [{ ...ONCE, once: false }] })))).toEqual([
      jasmine.objectContaining({ path: '/quests/0/then/0/once', message: 'What follows once says "once": true.' }),
    ]);
  });

  it('is the same for all who are on it, whatever happens to them', () => {
    const shared = together({
      repeats: 'always',
      limit: '4s',
      steps: [step('one', goal('one', { count: 2 })), step('all', goal('shell', three), goal('rich', { on: undefined, if: 'scrip >= 1' }))],
    });
    const rules = compileRuleset(rulesetWith(withTally(shared)));
    const seat = fc.constantFrom(...SEATS.slice(0, 3));
    const deed = fc.oneof(
      seat.map((who) => (trial: Trial) => fell(trial, who)),
      seat.map((who) => (trial: Trial) => begin(trial, 'find', who)),
      seat.map((who) => (trial: Trial) => ask(trial, 'abandon', 'find', who)),
      seat.map((who) => (trial: Trial) => trial.poke({ do: 'give', attribute: 'scrip', amount: 1 }, who)),
      fc.tuple(seat, fc.constantFrom('petrel', 'gannet')).map(
        ([who, team]) =>
          (trial: Trial) =>
            trial.poke({ do: 'assign', team }, who),
      ),
      fc.constant((trial: Trial) => trial.run(0.7)),
    );
    fc.assert(
      fc.property(fc.array(deed, { maxLength: 30 }), (deeds) => {
        const trial = new Trial(rules, crew);
        for (const act of deeds) {
          act(trial);
          trial.step();
          const { names } = progress;
          const of = (who: string) => names.map((name) => cell(trial, name, who)).join();
          const team = (who: string) => trial.world.actors.cells.team[trial.world.actors.rowOf(trial.actor(who))];
          const taken = SEATS.slice(0, 3).filter((one) => cell(trial, 'find', one) === 1);
          for (const crewOf of [0, 1]) expect(new Set(taken.filter((one) => team(one) === crewOf).map(of)).size).toBeLessThanOrEqual(1);
        }
      }),
      { numRuns: 60 },
    );
  });
});

/** The columns that say how far a record is. */
const progress = {
  names: ['find', 'find.left', 'find.until', 'find.at', 'find.step.one', 'find.step.all', 'find.goal.one', 'find.goal.shell'],
};
