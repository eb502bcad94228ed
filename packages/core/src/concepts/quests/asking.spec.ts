import { compileRuleset, findingsOf, readRuleset } from '../../index.js';
import { HURT, goal, step, quest, pay, parts, crew, fell, ask, offer, cell, saved } from '../../testing/quests.js';
import { input, join, rulesetWith, Trial } from '../../testing/rulesets.js';

describe('What is asked of a quest for no good reason', () => {
  it('is refused in words, and changes nothing', () => {
    const trial = Trial.of(parts(quest('hunt'), quest('secret')));
    offer(trial, 'hunt');
    const twin = Trial.of(parts(quest('hunt'), quest('secret')));
    offer(twin, 'hunt');
    for (const [what, id] of [
      ['accept', 'secret'],
      ['accept', 'nothing'],
      ['accept', 'constructor'],
      ['abandon', 'hunt'],
      ['decline', 'secret'],
    ])
      ask(trial, what, id);
    expect(trial.named('questRefused').map(({ data }) => data['reason'])).toEqual([
      'unknown',
      'unknown',
      'unknown',
      'notActive',
      'unknown',
    ]);
    for (let n = 0; n < 5; n++) twin.step();
    expect(trial.world.hash()).toBe(twin.world.hash());
    trial.step(input('north', { do: 'acceptQuest', quest: 'hunt' }), input('north', { do: 'acceptQuest', quest: 'hunt' }));
    expect(trial.named('questStarted').length).toBe(1);
    expect(trial.named('questRefused').at(-1)!.data['reason']).toBe('has');
    trial.step(input('north', { do: 'acceptQuest', quest: 'hunt' }), input('nobody', { do: 'acceptQuest', quest: 'hunt' }));
    expect(cell(trial, 'hunt')).toBe(1);
  });

  it('is passed over in what was kept: a player made up by hand gets no more than the rules give', () => {
    const rules = parts(quest('hunt', { handIn: 'diver', then: pay, steps: [step('only', goal('two', { count: 2 }))] }), quest('other'));
    const made = { quests: { hunt: 77, 'hunt.goal.two': 1e9, 'hunt.step.only': 9, other: 1, 'other.step.only': 2 } };
    const trial = Trial.of(rules, [join('north', { saved: made })]);
    trial.run(1);
    expect([cell(trial, 'hunt'), trial.value('scrip')]).toEqual([0, 0]);
    expect(cell(trial, 'other')).toBe(3);
  });

  it('gives each reward at most once, whatever the order of asking, counting, leaving and coming back', () => {
    const rules = parts(
      quest('once', { then: pay, takenBy: 'crew', steps: [step('all', goal('two', { count: 2, counts: 'crew' }))] }),
      quest('daily', { repeats: 'daily', then: [{ do: 'give', attribute: 'felled', amount: 1 }], fails: [HURT] }),
    );
    for (let seed = 1; seed <= 12; seed++) {
      let state = seed;
      const roll = (n: number) => ((state = (Math.imul(state, 1_103_515_245) + 12_345) >>> 0) >>> 8) % n;
      const trial = new Trial(compileRuleset(rulesetWith(rules)), crew, seed);
      for (let n = 0; n < 120; n++) {
        const seat = ['north', 'south', 'east'][roll(3)];
        const id = ['once', 'daily'][roll(2)];
        const what = roll(7);
        if (what === 0) fell(trial, seat);
        else if (what === 1) offer(trial, id, seat);
        else if (what <= 3) ask(trial, ['accept', 'accept', 'abandon', 'decline'][roll(4)], id, seat);
        else if (what === 4) trial.restore();
        else if (what === 5) trial.poke({ do: 'hurt', attribute: 'suit', amount: 1 }, seat);
        else {
          const kept = saved(trial, seat);
          const team = seat === 'east' ? 'gannet' : 'petrel';
          trial.step({ kind: 'leave', args: { seat } });
          trial.step(join(seat, { team, saved: kept }));
        }
      }
      const done = (id: string, seat: string) =>
        trial.named('questDone').filter(({ who, data }) => who === seat && data['quest'] === id).length;
      for (const seat of ['north', 'south', 'east']) {
        expect(done('once', seat)).toBeLessThanOrEqual(1);
        expect(done('daily', seat)).toBeLessThanOrEqual(1);
        expect(trial.value('scrip', seat)).toBe(10 * done('once', seat));
      }
    }
  });
});

describe('What does not fit a quest', () => {
  const at = (more: Record<string, unknown>) => readRuleset(rulesetWith(parts(quest('q', more)))).problems.map(({ path }) => path);
  const kinds = (...list: Record<string, unknown>[]) =>
    findingsOf(compileRuleset(rulesetWith(parts(...list))))
      .filter(({ path }) => path.startsWith('/quests'))
      .map(({ kind, path }) => `${kind} ${path}`);

  it('is refused where it stands', () => {
    expect(at({ steps: [] })).toEqual(['/quests/0/steps']);
    expect(at({ repeats: 'after' })).toEqual(['/quests/0/after']);
    expect(at({ after: '3s' })).toEqual(['/quests/0/after']);
    expect(at({ next: 'q' })).toEqual(['/quests/0/next']);
    expect(at({ steps: [step('a', goal('g')), step('a', goal('g'))] })).toEqual(['/quests/0/steps/1/id', '/quests/0/steps/1/goals/0/id']);
    expect(at({ steps: [step('a', goal('g', { optional: true }))] })).toEqual(['/quests/0/steps/0/goals']);
    expect(at({ steps: [step('a', goal('g', { if: 'suit > 1' }))] })).toEqual(['/quests/0/steps/0/goals/0/if']);
    expect(at({ steps: [step('a', goal('g', { on: undefined }))] })).toEqual(['/quests/0/steps/0/goals/0/on']);
    expect(at({ steps: [step('a', goal('g', { on: undefined, if: 'suit > 1', count: 2, counts: 'crew' }))] })).toEqual([
      '/quests/0/steps/0/goals/0/count',
      '/quests/0/steps/0/goals/0/counts',
    ]);
    expect(at({ then: [{ do: 'countGoal', quest: 'q', goal: 'x', amount: 1 }] })).toEqual(['/quests/0/then/0/goal']);
  });

  it('is found: what no one offers, what waits in a circle, what cannot be met, what does not fit', () => {
    const start = { offered: [{ by: 'start' }] };
    expect(kinds(quest('q'))).toEqual(['neverOffered /quests/0']);
    expect(kinds(quest('q', start))).toEqual([]);
    expect(kinds(quest('q', { offered: [{ by: 'character', actor: 'diver' }], handIn: 'diver' }))).toEqual([
      'neverAsked /quests/0/offered/0/actor',
      'neverAsked /quests/0/handIn',
    ]);
    const circle = [quest('a', { ...start, if: 'done(b) and suit > 1' }), quest('b', { ...start, if: 'done(a)' })];
    expect(kinds(...circle)).toEqual(['questCircle /quests/0/if', 'questCircle /quests/1/if']);
    expect(kinds(circle[0], quest('b', { ...start, if: 'done(a) or suit > 5' }))).toEqual([]);
    expect(kinds(quest('q', { ...start, if: 'suit > 500' }))).toEqual(['neverTaken /quests/0/if']);
    const goals = [
      goal('a', { line: 'A line that is by far too long for the display', count: 1 }),
      goal('b', { line: 'No number', count: 3 }),
      goal('c', { on: undefined, if: 'suit > 500' }),
      goal('d', { on: { on: 'zoneEntered' } }),
    ];
    expect(kinds(quest('q', { ...start, steps: [step('s', ...goals)] }))).toEqual([
      'lineTooLong /quests/0/steps/0/goals/0/line',
      'lineWithoutCount /quests/0/steps/0/goals/1/line',
      'neverMet /quests/0/steps/0/goals/2/if',
      'neverHeard /quests/0/steps/0/goals/3/on',
    ]);
  });

  it('is found: more asked for than there is', () => {
    const page = { id: 'page', label: 'Page' };
    const collect = quest('q', {
      offered: [{ by: 'start' }],
      steps: [step('s', goal('pages', { on: { on: 'pickupTaken', pickup: 'page' }, count: 3 }))],
    });
    const found = (more: Record<string, unknown>, count: number) => {
      const placed = Array.from({ length: count }, (_, i) => ({ pickup: 'page', x: 50 + 60 * i, y: 50 }));
      const rules = { ...parts(collect), pickups: [{ ...page, ...more }], arena: { width: 400, height: 400, placed } };
      return findingsOf(compileRuleset(rulesetWith(rules))).filter(({ kind }) => kind === 'countTooHigh').length;
    };
    expect([found({}, 2), found({}, 3), found({ returns: '5s' }, 1)]).toEqual([1, 0, 0]);
  });
});
