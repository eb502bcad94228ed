import { compileRuleset, findingsOf, readRuleset, renameEntry } from '../../index.js';
import { ask, at, doing, FIGHT, fight, story } from '../../testing/fights.js';
import { input, join, poke, rulesetWith, Trial } from '../../testing/rulesets.js';
import { statesTable } from './tables.js';

const changes = (trial: Trial) => trial.named('stateChanged').map(({ data }) => `${data['from']} → ${data['to']}`);
const tethered = { id: 'tethered', label: 'Tethered', allows: ['use'], ends: { on: 'statusGained', status: 'winded' } };
const withStates = (...states: unknown[]) => fight({ cast: { time: '1s' } }, { states });

describe('A state', () => {
  it('is idle or moving where nothing else holds', () => {
    const trial = withStates();
    trial.step(input('north', { do: 'move', x: 0, y: 1 }));
    expect(doing(trial)).toBe('moving');
    trial.step(input('north', { do: 'stop' }));
    expect(doing(trial)).toBe('idle');
    expect(changes(trial)).toEqual(['idle → moving', 'moving → idle']);
  });

  it('of an author’s own forbids what it does not allow, and ends on its own event', () => {
    const trial = withStates(tethered);
    trial.poke({ do: 'enter', state: 'tethered' });
    trial.step(input('north', { do: 'move', x: 1, y: 0 }));
    trial.run(0.5);
    expect(at(trial).x).toBe(100);
    trial.poke({ do: 'grant', status: 'winded' });
    expect(doing(trial)).not.toBe('tethered');
    trial.run(0.5);
    expect(at(trial).x).toBeGreaterThan(100);
    expect(trial.named('stateChanged').find(({ data }) => data['from'] === 'tethered')!.data['how']).toBe('event');
  });

  it('ends after its time, or after the time that it was entered for', () => {
    const timed = { id: 'held', label: 'Held', lasts: '1s' };
    const trial = withStates(timed);
    trial.poke({ do: 'enter', state: 'held' });
    trial.run(0.95);
    expect(doing(trial)).toBe('held');
    trial.step();
    expect(doing(trial)).toBe('idle');
    trial.poke({ do: 'enter', state: 'held', for: '0.2s' });
    trial.run(0.2);
    expect(doing(trial)).toBe('idle');
  });

  it('that goes with a status comes and goes with it, also from under another', () => {
    const trial = withStates(...FIGHT.states, tethered);
    trial.poke({ do: 'grant', status: 'stunned' });
    expect(doing(trial)).toBe('stunned');
    trial.poke({ do: 'enter', state: 'tethered' });
    trial.poke({ do: 'leave', state: 'tethered' });
    expect(doing(trial)).toBe('stunned');
    trial.poke({ do: 'withdraw', status: 'stunned' });
    expect(doing(trial)).toBe('idle');
  });

  it('is entered only from where it may be, and left only for what may follow', () => {
    const trial = withStates({ ...tethered, from: ['moving'], into: ['down'] }, ...FIGHT.states);
    trial.poke({ do: 'enter', state: 'tethered' });
    expect(doing(trial)).toBe('idle');
    trial.step(input('north', { do: 'move', x: 1, y: 0 }));
    trial.poke({ do: 'enter', state: 'tethered' });
    trial.poke({ do: 'grant', status: 'stunned' });
    expect(doing(trial)).toBe('tethered');
    trial.poke({ do: 'fell' });
    expect(doing(trial)).toBe('down');
  });

  it('that can’t be left for casting keeps its actor from beginning a cast', () => {
    const trial = withStates({ ...tethered, into: ['down'] });
    trial.poke({ do: 'enter', state: 'tethered' });
    ask(trial);
    expect(story(trial)).toBe('refused state');
  });

  it('of being down is left by coming back and by nothing else', () => {
    const trial = withStates(tethered, ...FIGHT.states);
    trial.poke({ do: 'fell' });
    trial.poke({ do: 'enter', state: 'tethered' });
    trial.poke({ do: 'grant', status: 'stunned' });
    ask(trial);
    trial.step(input('north', { do: 'move', x: 1, y: 0 }));
    trial.run(1);
    expect(doing(trial)).toBe('down');
    expect(at(trial).x).toBe(100);
  });

  it('can be said anew, and stays where its rules are edited', () => {
    const trial = withStates(tethered);
    trial.poke({ do: 'enter', state: 'tethered' });
    const edit = (states: unknown[]) => {
      const rules = compileRuleset(rulesetWith({ ...FIGHT, states, abilities: [{ id: 'torch', label: 'Torch' }] }));
      trial.world = trial.world.adopt(rules);
      return (trial as { rules: unknown }).rules === rules
        ? ''
        : rules.chapters.get('states')!.ids[statesTable.in(trial.world).cells.state[0]];
    };
    expect(edit([{ id: 'leashed', label: 'Leashed', formerly: ['tethered'], lasts: '9s' }])).toBe('leashed');
    expect(edit([{ id: 'idle', label: 'At rest', allows: ['move', 'use'] }])).toBe('idle');
  });

  it('is read by formulas', () => {
    const trial = fight({ requires: [{ if: 'not doing(moving)', says: 'Stand.' }] });
    trial.step(input('north', { do: 'move', x: 1, y: 0 }));
    ask(trial);
    expect(story(trial)).toBe('refused requirement');
  });

  it('is told to seats with who it is of, when, and no more than that', () => {
    const trial = withStates(tethered);
    trial.poke({ do: 'enter', state: 'tethered' });
    const table = statesTable.in(trial.world);
    expect(table.cells.since[0]).toBe(trial.world.tick);
  });

  it('that nothing leads out of, or into, is a finding', () => {
    const kinds = (states: unknown[], more: Record<string, unknown> = {}) =>
      findingsOf(compileRuleset(rulesetWith({ states, statuses: FIGHT.statuses, ...more })))
        .filter(({ path }) => path.startsWith('/states'))
        .map(({ kind }) => kind);
    const enter = (more: Record<string, unknown> = {}) => ({
      abilities: [{ id: 'a', label: 'A', then: [{ do: 'enter', state: 'held', ...more }] }],
    });
    const held = { id: 'held', label: 'Held' };
    expect(kinds([held])).toEqual(['unused']);
    expect(kinds([held], enter())).toEqual(['stuckState']);
    expect(kinds([held], enter({ for: '2s' }))).toEqual([]);
    expect(kinds([{ ...held, lasts: '2s' }], enter())).toEqual([]);
    expect(kinds([{ ...held, while: 'stunned' }])).toEqual([]);
    expect(kinds([held], { abilities: [{ id: 'a', label: 'A', cast: { time: '1s', state: 'held' } }] })).toEqual([]);
  });

  it('that is given keeps its id; one that is written anew can be renamed', () => {
    const rules = compileRuleset(rulesetWith({ states: [{ id: 'stunned', label: 'Stunned' }] }));
    expect(renameEntry(rules, 'states', 'casting', 'conjuring').problem).toContain('casting is one that every ruleset has');
    expect(renameEntry(rules, 'states', 'stunned', 'dazed').patch![0]).toEqual({ op: 'replace', path: '/states/0/id', value: 'dazed' });
  });

  it('has no time of its own where it is what remains', () => {
    const { problems } = readRuleset(rulesetWith({ states: [{ id: 'idle', label: 'Idle', lasts: '3s' }] }));
    expect(problems.map(({ path }) => path)).toEqual(['/states/0']);
  });
});

describe('Relations', () => {
  it('hold between teams, the wild and those on no side', () => {
    const actors = [
      { id: 'diver', label: 'Diver', kind: 'player', abilities: ['torch'], attributes: [{ attribute: 'suit' }] },
      { id: 'eel', label: 'Eel', kind: 'foe' },
      { id: 'crate', label: 'Crate', kind: 'prop' },
    ];
    const reached = (who: string) => {
      const abilities = [{ id: 'torch', label: 'Torch', target: { at: 'nearest', count: 9, range: 900, who }, onHit: [], onMiss: [] }];
      const trial = Trial.of(
        {
          ...FIGHT,
          abilities: abilities.map((a) => ({ ...a, onHit: [{ do: 'hurt', attribute: 'suit', amount: 1, to: 'target' }] })),
          actors,
        },
        [join('north', { team: 'petrel' }), join('mate', { team: 'petrel' }), join('south', { team: 'gannet' })],
      );
      for (const actor of ['eel', 'crate']) trial.step(poke('north', { do: 'summon', actor, x: 300, y: 100 }));
      ask(trial);
      return trial
        .named('abilityHit')
        .map((event) => event.who)
        .sort()
        .join(' ');
    };
    expect(reached('foes')).toBe('Eel south');
    expect(reached('allies')).toBe('mate');
    expect(reached('crew')).toBe('mate');
    expect(reached('others')).toBe('Crate Eel south');
    expect(reached('anyone')).toBe('Crate Eel mate south');
  });
});
