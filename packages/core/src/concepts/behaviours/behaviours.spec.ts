import { placeOf, readRuleset } from '../../index.js';
import { FIGHT, HITS } from '../../testing/fights.js';
import { input, join, poke, rulesetWith, Trial } from '../../testing/rulesets.js';
import { mindsTable } from './tables.js';

const eel = (behaviour: unknown, more: Record<string, unknown> = {}) => ({
  id: 'eel',
  label: 'Eel',
  kind: 'foe',
  radius: 10,
  speed: 'finSpeed',
  life: 'suit',
  attributes: [{ attribute: 'suit', start: 30 }, { attribute: 'finSpeed' }],
  abilities: ['bite'],
  behaviour,
  respawn: { after: '1s' },
  ...more,
});
const bite = { id: 'bite', label: 'Bite', cooldown: '1s', target: { at: 'actor', range: 20 }, onHit: HITS };
const diver = {
  id: 'diver',
  label: 'Diver',
  kind: 'player',
  speed: 'finSpeed',
  attributes: [{ attribute: 'suit' }, { attribute: 'finSpeed', start: 300 }],
};

/** An eel of this behaviour at 400, 200, and a diver somewhere. */
function meeting(behaviour: unknown, x: number, y: number, more: Record<string, unknown> = {}, actor: Record<string, unknown> = {}): Trial {
  const trial = Trial.of({ ...FIGHT, actors: [diver, eel(behaviour, actor)], abilities: [bite], ...more }, [
    join('north', { team: 'petrel' }),
  ]);
  trial.poke({ do: 'place', x, y });
  trial.poke({ do: 'summon', actor: 'eel', x: 400, y: 200 });
  return trial;
}
const place = (trial: Trial) => placeOf(trial.world, 1);
const bites = (trial: Trial) => trial.named('abilityHit').length;

describe('A behaviour', () => {
  it('to stand uses what it has on whom that reaches, and goes nowhere', () => {
    const trial = meeting({ do: 'stand' }, 425, 200).run(2.5);
    expect(bites(trial)).toBe(3);
    expect(place(trial)).toEqual({ x: 400, y: 200 });
  });

  it('uses what it has in the order of its own list, whatever the order of the chapter', () => {
    for (const own of [
      ['bite', 'shock'],
      ['shock', 'bite'],
    ])
      for (const chapter of [
        ['bite', 'shock'],
        ['shock', 'bite'],
      ]) {
        const made = chapter.map((id) => ({ ...bite, id, label: id, cooldown: '10s' }));
        const trial = meeting({ do: 'stand' }, 425, 200, { abilities: made }, { abilities: own }).run(1.5);
        expect(trial.named('abilityUsed').map(({ data }) => data['ability'])).toEqual(own);
      }
  });

  it('to chase goes after the nearest that it minds, bites within reach, and asks for nothing that would be refused', () => {
    const trial = meeting({ do: 'chase', within: 200 }, 250, 200).run(4);
    expect(bites(trial)).toBeGreaterThan(1);
    expect(Math.abs(place(trial).x - 250)).toBeLessThan(45);
    expect(trial.named('abilityRefused')).toEqual([]);
  });

  it('to chase minds nobody too far off, nor behind a wall where it needs sight', () => {
    expect(place(meeting({ do: 'chase', within: 100 }, 250, 200).run(2))).toEqual({ x: 400, y: 200 });
    const arena = { ...FIGHT.arena, walls: [{ x: 320, y: 100, width: 10, height: 200 }] };
    expect(place(meeting({ do: 'chase', within: 200, sight: true }, 250, 200, { arena }).run(2))).toEqual({ x: 400, y: 200 });
    expect(place(meeting({ do: 'chase', within: 200 }, 250, 200, { arena }).run(2)).x).toBeLessThan(400);
  });

  it('to chase gives up at the end of its leash and goes home', () => {
    const trial = meeting({ do: 'chase', within: 200, leash: 160 }, 260, 200).run(1);
    expect(place(trial).x).toBeLessThan(400);
    trial.poke({ do: 'place', x: 150, y: 200 });
    trial.run(4);
    expect(place(trial)).toEqual({ x: 400, y: 200 });
  });

  it('leaves those alone that are down, and its own', () => {
    const trial = meeting({ do: 'chase', within: 200 }, 380, 200);
    trial.poke({ do: 'fell' });
    trial.poke({ do: 'summon', actor: 'eel', x: 420, y: 200 });
    trial.run(2);
    expect(bites(trial)).toBe(0);
  });

  it('to flee gets away from who comes near, and stops when there is room', () => {
    const trial = meeting({ do: 'flee', within: 120 }, 340, 200).run(3);
    expect(place(trial).x).toBeGreaterThan(455);
    const { x } = place(trial);
    trial.run(1);
    expect(place(trial).x).toBe(x);
  });

  it('to wander stays near home, goes on from walls, and is the same on the same luck', () => {
    const run = () => {
      const arena = { ...FIGHT.arena, walls: [{ x: 440, y: 100, width: 10, height: 200 }] };
      const trial = meeting({ do: 'wander', within: 80, pause: '0.2s' }, 60, 60, { arena });
      const seen = new Set<string>();
      for (let i = 0; i < 600; i++) {
        trial.step();
        const { x, y } = place(trial);
        expect(Math.abs(x - 400)).toBeLessThanOrEqual(80.01);
        expect(Math.abs(y - 200)).toBeLessThanOrEqual(80.01);
        seen.add(`${Math.round(x / 20)} ${Math.round(y / 20)}`);
      }
      expect(seen.size).toBeGreaterThan(8);
      return trial.world.hash();
    };
    expect(run()).toBe(run());
  });

  it('to follow goes from point to point, round or back', () => {
    const points = [
      { x: 450, y: 200 },
      { x: 450, y: 260 },
      { x: 400, y: 260 },
    ];
    for (const [turn, expected] of [
      ['round', '0 1 2 0 1'],
      ['back', '0 1 2 1 0'],
    ]) {
      const trial = meeting({ do: 'follow', points, turn }, 60, 60);
      const legs: number[] = [];
      for (let i = 0; i < 200 && legs.length < 5; i++) {
        trial.step();
        const leg = mindsTable.in(trial.world).cells.leg[1];
        if (legs.at(-1) !== leg) legs.push(leg);
      }
      expect(legs.join(' ')).withContext(turn).toBe(expected);
    }
  });

  it('rests while its actor is down and goes on at home when it comes back', () => {
    const trial = meeting({ do: 'chase', within: 300 }, 250, 200).run(1);
    trial.step(poke('north', { do: 'fell', to: { nearby: 900, who: 'foes' } }));
    const { x } = place(trial);
    trial.run(0.9);
    expect(place(trial).x).toBe(x);
    trial.run(0.2);
    expect(place(trial).x).toBeGreaterThan(380);
    trial.run(2);
    expect(bites(trial)).toBeGreaterThan(0);
  });

  it('goes on over a snapshot as if nothing had been', () => {
    const run = (cut: boolean) => {
      const trial = meeting({ do: 'chase', within: 300 }, 250, 200);
      trial.step(input('north', { do: 'move', x: 0, y: 1 }));
      trial.run(1.15);
      if (cut) trial.restore();
      return trial.run(5).world.hash();
    };
    expect(run(true)).toBe(run(false));
  });

  it('is not for players, and needs a speed to go anywhere', () => {
    const problems = (actors: unknown[]) =>
      readRuleset({ ...rulesetWith({ ...FIGHT, abilities: [bite] }), actors }).problems.map(({ path }) => path);
    expect(problems([{ ...diver, behaviour: { do: 'stand' } }])).toEqual(['/actors/0/behaviour']);
    expect(problems([eel({ do: 'chase', within: 100 }, { speed: undefined })])).toEqual(['/actors/0/behaviour/do']);
    expect(problems([eel({ do: 'stand' }, { speed: undefined })])).toEqual([]);
  });
});
