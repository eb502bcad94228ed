import { placeOf, valuesOf } from '../../index.js';
import { ask, doing, FIGHT, fight } from '../../testing/fights.js';
import { counter, poke, Trial } from '../../testing/rulesets.js';
import { harmTable } from './tables.js';
import { effectsTable } from '../effects/tables.js';

const attributes = [...FIGHT.attributes, counter('felled'), counter('helped'), counter('returns')];
const diver = (more: Record<string, unknown> = {}) => ({
  id: 'diver',
  label: 'Diver',
  kind: 'player',
  speed: 'finSpeed',
  attributes: attributes.map(({ id }) => ({ attribute: id })),
  abilities: ['torch'],
  life: 'suit',
  onDefeat: [
    { do: 'give', attribute: 'felled', amount: 1, to: 'source' },
    { do: 'give', attribute: 'helped', amount: 1, to: 'helpers' },
  ],
  onSpawn: [{ do: 'give', attribute: 'returns', amount: 1 }],
  respawn: { after: '3s' },
  ...more,
});
const eel = (more: Record<string, unknown> = {}) => ({
  id: 'eel',
  label: 'Eel',
  kind: 'foe',
  radius: 10,
  speed: 'finSpeed',
  life: 'suit',
  attributes: [{ attribute: 'suit' }, { attribute: 'finSpeed' }],
  ...more,
});
const STUN = { effects: [{ id: 'glow', label: 'Glow', lasts: '60s' }] };
const trialOf = (actors: unknown[] = [diver(), eel()], more: Record<string, unknown> = {}) =>
  fight({ cooldown: '9s' }, { attributes, actors, ...STUN, ...more });

const hurt = (trial: Trial, from: string, amount: number, seat = 'north') =>
  trial.step({ kind: 'poke', args: { seat, from, action: { do: 'hurt', attribute: 'suit', amount } } });

describe('A life', () => {
  it('ends at the bottom of its pool: who did it and who helped are told', () => {
    const trial = Trial.of({ ...FIGHT, attributes, actors: [diver()], abilities: [{ id: 'torch', label: 'Torch' }] }, [
      { kind: 'join', args: { seat: 'north', team: 'petrel' } },
      { kind: 'join', args: { seat: 'south', team: 'gannet' } },
      { kind: 'join', args: { seat: 'west', team: 'gannet' } },
    ]);
    hurt(trial, 'west', 30);
    hurt(trial, 'south', 80);
    const fell = trial.named('actorDefeated')[0];
    expect([fell.who, fell.by, fell.data['helpers']]).toEqual(['north', 'south', 1]);
    expect([trial.value('felled', 'south'), trial.value('helped', 'west'), trial.value('helped', 'south')]).toEqual([1, 1, 0]);
    expect(doing(trial)).toBe('down');
  });

  it('is of nobody’s doing when nobody did it within ten seconds', () => {
    const trial = trialOf();
    hurt(trial, 'south', 30);
    trial.run(11);
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 90 });
    expect(trial.named('actorDefeated')[0].by).toBe('');
  });

  it('remembers no more than counts: who hurt long ago makes room', () => {
    const trial = trialOf();
    for (let i = 0; i < 4; i++) {
      hurt(trial, 'south', 1);
      trial.step({ kind: 'leave', args: { seat: 'south' } });
      trial.run(10.2);
      trial.step({ kind: 'join', args: { seat: 'south', team: 'gannet' } });
    }
    expect(harmTable.in(trial.world).count).toBe(1);
  });

  it('that is over does nothing, keeps nothing on it, and comes back after its time with what it begins with', () => {
    const trial = trialOf();
    trial.step({ kind: 'input', args: { seat: 'north', input: { do: 'move', x: 1, y: 0 } } });
    trial.run(0.5);
    trial.poke({ do: 'apply', effect: 'glow' });
    hurt(trial, 'south', 200);
    const { x } = placeOf(trial.world, trial.world.actors.rowOf(trial.actor()));
    ask(trial);
    trial.run(1);
    expect(trial.named('abilityRefused')[0].data).toEqual({ ability: 'torch', reason: 'state', state: 'down' });
    expect(effectsTable.in(trial.world).count).toBe(0);
    expect(placeOf(trial.world, trial.world.actors.rowOf(trial.actor())).x).toBe(x);
    expect(valuesOf(trial.world, trial.actor())['suit']).toBe(0);
    trial.run(2.1);
    expect(doing(trial)).toBe('idle');
    expect(valuesOf(trial.world, trial.actor())['suit']).toBe(100);
    // Of its team's two start points the one that is farther from the other crew's diver.
    expect(placeOf(trial.world, trial.world.actors.rowOf(trial.actor()))).toEqual({ x: 100, y: 160 });
    expect(trial.named('actorReturned').length).toBe(1);
  });

  it('falls once, however often it is hit', () => {
    const trial = trialOf();
    hurt(trial, 'south', 200);
    for (let i = 0; i < 10; i++) hurt(trial, 'south', 10);
    expect(trial.named('actorDefeated').length).toBe(1);
    expect(trial.value('felled', 'south')).toBe(1);
  });

  it('without a way back goes, but a player stays', () => {
    const trial = trialOf([diver({ respawn: undefined }), eel()]);
    trial.poke({ do: 'summon', actor: 'eel', x: 400, y: 100 });
    const before = trial.world.actors.count;
    trial.step({ kind: 'poke', args: { seat: 'north', action: { do: 'fell', to: { nearby: 900, who: 'foes' } } } });
    trial.run(0.1);
    expect(trial.world.actors.count).toBe(before - 1);
    expect(trial.named('actorLeft').map((event) => event.data['name'])).toEqual(['Eel']);
    expect(doing(trial, 'south')).toBe('down');
    trial.poke({ do: 'revive' }, 'south');
    expect(doing(trial, 'south')).toBe('idle');
  });

  it('of those brought in is at home where they were put, each with a name of its own', () => {
    const trial = trialOf([diver(), eel({ respawn: { after: '1s' } })]);
    for (const x of [400, 500]) trial.poke({ do: 'summon', actor: 'eel', x, y: 150 });
    expect(
      trial
        .named('actorSpawned')
        .slice(-2)
        .map((event) => event.who),
    ).toEqual(['Eel', 'Eel 2']);
    const row = trial.world.actors.high - 1;
    trial.step({ kind: 'poke', args: { seat: 'north', action: { do: 'fell', to: { nearby: 900, who: 'foes' } } } });
    trial.run(1.1);
    expect(placeOf(trial.world, row)).toEqual({ x: 500, y: 150 });
  });

  it('that the arena places is there from the beginning, and laid anew when that list is edited', () => {
    const arena = { ...FIGHT.arena, placed: [{ actor: 'eel', x: 300, y: 300 }] };
    const trial = trialOf([diver(), eel()], { arena });
    expect(trial.world.actors.count).toBe(3);
    expect(trial.world.nameOf(trial.world.actors.handle(0))).toBe('Eel');
  });

  it('can’t be a stat, or a pool that its kind does not have', () => {
    const problems = (actors: unknown[]) => {
      try {
        trialOf(actors);
        return [];
      } catch (error) {
        return (error as { problems: { path: string }[] }).problems.map(({ path }) => path);
      }
    };
    expect(problems([diver({ life: 'finSpeed' })])).toEqual(['/actors/0/life']);
    expect(problems([diver(), eel({ attributes: [{ attribute: 'finSpeed' }] })])).toEqual(['/actors/1/life']);
  });

  it('of a caster breaks what it casts when it falls', () => {
    const trial = fight({ cast: { time: '2s' } }, { attributes, actors: [diver(), eel()], ...STUN });
    ask(trial);
    trial.step(poke('north', { do: 'fell' }));
    expect(trial.named('castBroken')[0].data['reason']).toBe('state');
  });
});
