import * as fc from 'fast-check';
import { compileRuleset, findingsOf, membersOf, readRuleset, teamEvidence } from '../../index.js';
import { counter, input, join, poke, pool, rulesetWith, Trial } from '../../testing/rulesets.js';

const TEAMS = [
  { id: 'petrel', label: 'Petrel' },
  { id: 'gannet', label: 'Gannet' },
  { id: 'watchers', label: 'Watchers', open: false },
];
const parts = (teamRules: Record<string, unknown> = {}, more: Record<string, unknown> = {}) => ({ teams: TEAMS, teamRules, ...more });
const ids = ['', 'petrel', 'gannet', 'watchers'];
const teamOf = (trial: Trial, seat: string) => ids[trial.world.actors.cells.team[trial.world.actors.rowOf(trial.actor(seat))] + 1];
const ask = (trial: Trial, seat: string, team: string) => trial.step(input(seat, { do: 'switch', team }));
const refused = (trial: Trial) => trial.named('switchRefused').map(({ data }) => data['says']);
const four = ['a', 'b', 'c', 'd'].map((seat) => join(seat));

describe('Who joins', () => {
  it('goes where players are needed: two and two, a fifth to the smaller crew, nobody to the watchers', () => {
    const trial = Trial.of(parts(), four);
    expect(['a', 'b', 'c', 'd'].map((seat) => teamOf(trial, seat))).toEqual(['petrel', 'gannet', 'petrel', 'gannet']);
    trial.step({ kind: 'leave', args: { seat: 'b' } });
    trial.step(join('e'));
    expect(teamOf(trial, 'e')).toBe('gannet');
    expect(membersOf(trial.world, 2)).toEqual([]);
  });

  it('goes to the crew with the least of a stat', () => {
    const trial = Trial.of(parts({ assign: 'lowest', stat: 'skill' }, { attributes: [counter('skill')] }), [join('a'), join('b')]);
    trial.poke({ do: 'give', attribute: 'skill', amount: 9 }, 'b');
    trial.step(join('c'));
    expect(['a', 'b', 'c'].map((seat) => teamOf(trial, seat))).toEqual(['petrel', 'gannet', 'petrel']);
    trial.step(join('d'));
    expect(teamOf(trial, 'd')).toBe('petrel');
  });

  it('stays with their party, where there is room', () => {
    const teams = [{ ...TEAMS[0], capacity: 2 }, TEAMS[1]];
    const trial = Trial.of(
      parts({}, { teams }),
      ['a', 'b', 'c'].map((seat) => join(seat, { party: 'lanterns' })),
    );
    expect(['a', 'b', 'c'].map((seat) => teamOf(trial, seat))).toEqual(['petrel', 'petrel', 'gannet']);
  });

  it('is in no team where all are full or closed', () => {
    const teams = [{ ...TEAMS[0], capacity: 1 }, TEAMS[2]];
    const trial = Trial.of(parts({}, { teams }), [join('a'), join('b')]);
    expect([teamOf(trial, 'a'), teamOf(trial, 'b')]).toEqual(['petrel', '']);
  });
});

describe('Who asks for another team', () => {
  it('is refused where that would unbalance, with the words, and nothing changes', () => {
    const trial = Trial.of(parts(), four);
    const before = trial.world.hash();
    const same = Trial.of(parts(), four);
    same.step();
    expect(before).not.toBe(same.world.hash());
    ask(trial, 'a', 'gannet');
    expect(trial.world.hash()).toBe(same.world.hash());
    expect(refused(trial)).toEqual(['That would unbalance the teams: Gannet would have 3, Petrel 1.']);
    ask(trial, 'a', 'watchers');
    ask(trial, 'a', 'petrel');
    ask(trial, 'a', 'nowhere');
    ask(trial, 'a', '');
    expect(refused(trial).slice(1)).toEqual([
      'Watchers takes nobody who asks.',
      'You are in Petrel already.',
      'There is no such team.',
      'Everybody is in a team here.',
    ]);
    trial.step({ kind: 'leave', args: { seat: 'b' } });
    expect(teamOf(trial, 'a')).toBe('petrel');
    ask(trial, 'a', 'gannet');
    expect(teamOf(trial, 'a')).toBe('gannet');
  });

  it('may at will, never, or after a while', () => {
    const free = Trial.of(parts({ switching: 'free', neutral: true }), four);
    ask(free, 'a', 'gannet');
    ask(free, 'c', '');
    expect([teamOf(free, 'a'), teamOf(free, 'c')]).toEqual(['gannet', '']);
    ask(free, 'c', 'gannet');
    expect(teamOf(free, 'c')).toBe('gannet');
    const never = Trial.of(parts({ switching: 'never' }), four);
    ask(never, 'a', 'gannet');
    expect(refused(never)).toEqual(['Teams are kept here.']);
    const after = Trial.of(parts({ switching: 'after', after: '10s' }), four);
    ask(after, 'a', 'gannet');
    ask(after, 'a', 'petrel');
    expect(refused(after)).toEqual(['You changed teams just now: wait 10 s.']);
    after.step({ kind: 'leave', args: { seat: 'a' } });
    after.step(join('a', { team: 'gannet' }));
    ask(after, 'a', 'petrel');
    expect(refused(after).length).toBe(2);
    after.run(10);
    ask(after, 'a', 'petrel');
    expect(teamOf(after, 'a')).toBe('petrel');
  });

  it('finds a full team full', () => {
    const trial = Trial.of(parts({ switching: 'free' }, { teams: [TEAMS[0], { ...TEAMS[1], capacity: 2 }] }), four);
    ask(trial, 'a', 'gannet');
    expect(refused(trial)).toEqual(['Gannet is full: 2 are in it.']);
  });
});

describe('A change of teams', () => {
  it('is announced once a tick, when it has settled', () => {
    const trial = Trial.of(parts(), four);
    trial.events = [];
    trial.step(
      poke('a', { do: 'assign', team: 'gannet' }),
      poke('a', { do: 'assign', team: 'watchers' }),
      poke('b', { do: 'assign', team: 'petrel' }),
      poke('b', { do: 'assign', team: 'gannet' }),
    );
    expect(trial.named('teamChanged').map(({ who, data }) => [who, data['before'], data['team']])).toEqual([['a', 'petrel', 'watchers']]);
    trial.step(poke('a', { do: 'release' }));
    expect(trial.named('teamChanged').length).toBe(2);
    trial.run(1);
    trial.restore();
    trial.run(1);
    expect(trial.named('teamChanged').length).toBe(2);
  });

  it('is announced of who joins, and of who leaves the game', () => {
    const told = (trial: Trial) => trial.named('teamChanged').map(({ who, data }) => `${who}: ${data['before']} to ${data['team']}`);
    const trial = Trial.of(parts(), four);
    expect(told(trial)).toEqual(['a:  to petrel', 'b:  to gannet', 'c:  to petrel', 'd:  to gannet']);
    trial.events = [];
    trial.step({ kind: 'leave', args: { seat: 'b' } });
    expect(told(trial)).toEqual(['b: gannet to ']);
    trial.run(0.2);
    expect(told(trial).length).toBe(1);
  });

  it('can be waited for, as a seat that is taken or left can', () => {
    const on = ['seatTaken', 'seatLeft', 'teamChanged'];
    const reactions = on.map((event) => ({
      id: event,
      label: event,
      on: { on: event, who: 'anyone' },
      then: [{ do: 'give', attribute: event, amount: 1, to: 'everyone' }],
    }));
    const trial = Trial.of(parts({}, { reactions, attributes: on.map((id) => counter(id)) }), four.slice(0, 1));
    trial.step(...four.slice(1, 2));
    expect(on.map((id) => trial.value(id, 'a'))).toEqual([2, 0, 2]);
    trial.step({ kind: 'leave', args: { seat: 'b' } });
    expect(on.map((id) => trial.value(id, 'a'))).toEqual([2, 1, 3]);
  });

  it('by a rule or from outside goes by the capacity of the team, and says so', () => {
    const teams = [
      { id: 'petrel', label: 'Petrel', open: true, capacity: 2 },
      { id: 'gannet', label: 'Gannet', open: true },
    ];
    const trial = Trial.of({ ...parts(), teams }, four);
    trial.events = [];
    trial.step(poke('b', { do: 'assign', team: 'petrel' }), poke('a', { do: 'assign', team: 'petrel' }));
    expect(trial.named('switchRefused').map(({ who, data }) => `${who}: ${data['says']}`)).toEqual(['b: Petrel is full: 2 are in it.']);
    expect(trial.named('teamChanged')).toEqual([]);
    trial.step(poke('a', { do: 'assign', team: 'gannet' }), poke('b', { do: 'assign', team: 'petrel' }));
    expect(trial.named('teamChanged').length).toBe(2);
  });

  it('is heard by reactions, after the state that it speaks of', () => {
    const reactions = [
      { id: 'r', label: 'R', on: { on: 'teamChanged', team: 'gannet' }, then: [{ do: 'give', attribute: 'n', amount: 1, to: 'team' }] },
    ];
    const trial = Trial.of(parts({ switching: 'free' }, { reactions, attributes: [counter('n')] }), four);
    for (const seat of ['a', 'b', 'c', 'd']) trial.poke({ do: 'set', attribute: 'n', value: 0 }, seat);
    ask(trial, 'a', 'gannet');
    trial.step();
    expect(['a', 'b', 'c', 'd'].map((seat) => trial.value('n', seat))).toEqual([1, 1, 0, 1]);
  });
});

describe('Sizes of teams', () => {
  it('differ by at most one under any order of joining, leaving and asking, where the rules say so', () => {
    const rules = compileRuleset(rulesetWith(parts({ rebalance: true })));
    const command = fc.record({
      do: fc.constantFrom('join', 'leave', 'switch'),
      seat: fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f', 'g'),
      team: fc.constantFrom(...ids),
    });
    fc.assert(
      fc.property(fc.array(command, { maxLength: 40 }), (commands) => {
        const trial = new Trial(rules, []);
        const seats = ['a', 'b', 'c', 'd', 'e', 'f', 'g'];
        const teamsNow = () => new Map(seats.filter((seat) => trial.actor(seat) !== 0).map((seat) => [seat, teamOf(trial, seat)]));
        let changes = 0;
        for (const { do: what, seat, team } of commands) {
          const before = teamsNow();
          const came = (seats: ReadonlyMap<string, string>) => [...seats].filter(([, team]) => team !== '');
          trial.step(what === 'switch' ? input(seat, { do: 'switch', team }) : { kind: what, args: { seat } });
          // Whoever left and came is somebody new: what they were in before is no change.
          for (const [who, now] of teamsNow()) if (before.has(who) && before.get(who) !== now) changes++;
          // Who comes joins a team, and who goes leaves it.
          changes +=
            came(teamsNow()).filter(([who]) => !before.has(who)).length + came(before).filter(([who]) => !teamsNow().has(who)).length;
          expect(Math.abs(membersOf(trial.world, 0).length - membersOf(trial.world, 1).length)).toBeLessThanOrEqual(1);
        }
        expect(trial.named('teamChanged').length).toBe(changes);
      }),
      { numRuns: 60 },
    );
  });
});

describe('Evidence of teams', () => {
  it('is who goes where, and what becomes of who asks', () => {
    const evidence = teamEvidence(compileRuleset(rulesetWith(parts())))!;
    expect(evidence.teams.map(({ members }) => members.length)).toEqual([4, 3, 0]);
    expect(evidence.asked.map(({ who, team, granted }) => [who, team, granted])).toEqual([
      ['first', 'Gannet', true],
      ['first', 'Watchers', false],
      ['second', 'Petrel', false],
      ['second', 'Watchers', false],
    ]);
    expect(teamEvidence(compileRuleset(rulesetWith({})))).toBeUndefined();
  });
});

describe('What does not fit teams', () => {
  const at = (teamRules: Record<string, unknown>, more = {}) =>
    readRuleset(rulesetWith(parts(teamRules, more))).problems.map(({ path }) => path);
  it('is refused, or found', () => {
    expect(at({ assign: 'lowest' })).toEqual(['/teamRules/stat']);
    expect(at({ assign: 'lowest', stat: 'suit' }, { attributes: [pool('suit')] })).toEqual(['/teamRules/stat']);
    expect(at({ switching: 'after' })).toEqual(['/teamRules/after']);
    const kinds = (more: Record<string, unknown>) => findingsOf(compileRuleset(rulesetWith(parts({}, more)))).map(({ kind }) => kind);
    expect(kinds({ arena: { starts: [{ x: 10, y: 10, team: 'petrel' }] } })).toEqual(['noStart']);
    expect(kinds({ teams: [{ ...TEAMS[0], open: false }] })).toEqual(['noOpenTeam']);
  });
});
