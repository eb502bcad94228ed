import type { Command } from '../index.js';
import { join } from './rulesets.js';

/** How large a fight is. */
export interface MeleeSize {
  readonly foes: number;
  readonly divers: number;
}
export const MELEE: MeleeSize = { foes: 300, divers: 8 };

const [WIDTH, HEIGHT] = [2400, 1600];

/** A large harbour full of eels that chase, bite, fall and come back, with walls to see around. */
export function meleeRuleset({ foes }: MeleeSize): Record<string, unknown> {
  const pool = (id: string, more: Record<string, unknown>) => ({ id, label: id, kind: 'pool', ...more });
  const across = Math.ceil(Math.sqrt((foes * WIDTH) / HEIGHT));
  return {
    format: 'eager-ember/ruleset',
    version: 2,
    name: 'Melee',
    tickRate: 20,
    teams: [{ id: 'petrel', label: 'Petrel' }],
    attributes: [
      pool('suit', { max: 100, refill: { rate: 3, pause: '2s' } }),
      pool('stamina', { max: 100, refill: { rate: 40 } }),
      { id: 'finSpeed', label: 'Fin speed', kind: 'stat', start: 80, max: 400 },
    ],
    abilities: [
      {
        id: 'bite',
        label: 'Bite',
        cooldown: '1.2s',
        cast: { time: '0.3s' },
        target: { at: 'actor', range: 20 },
        onHit: [{ do: 'hurt', attribute: 'suit', amount: { random: [2, 5] }, to: 'target' }],
      },
      {
        id: 'sparks',
        label: 'Sparks',
        costs: [{ attribute: 'stamina', amount: 10 }],
        target: { at: 'cone', range: 240, angle: 60 },
        deliver: { by: 'projectile', count: 7, speed: 360, radius: 5, lifetime: '0.8s', pierce: 1 },
        onHit: [{ do: 'hurt', attribute: 'suit', amount: 22, to: 'target' }],
      },
      {
        id: 'charge',
        label: 'Charge',
        cooldown: '3s',
        target: { at: 'point', range: 200 },
        deliver: { by: 'area', radius: 110, delay: '1s' },
        onHit: [{ do: 'hurt', attribute: 'suit', amount: 45, to: 'target' }],
      },
    ],
    actors: [
      {
        id: 'diver',
        label: 'Diver',
        kind: 'player',
        speed: 'finSpeed',
        life: 'suit',
        attributes: [{ attribute: 'suit' }, { attribute: 'stamina' }, { attribute: 'finSpeed', start: 140 }],
        abilities: ['sparks', 'charge'],
        respawn: { after: '3s' },
      },
      {
        id: 'eel',
        label: 'Eel',
        kind: 'foe',
        radius: 10,
        speed: 'finSpeed',
        life: 'suit',
        attributes: [{ attribute: 'suit', start: 40 }, { attribute: 'finSpeed' }],
        abilities: ['bite'],
        behaviour: { do: 'chase', within: 320, leash: 700, sight: true },
        respawn: { after: '4s' },
      },
    ],
    arena: {
      width: WIDTH,
      height: HEIGHT,
      walls: Array.from({ length: 12 }, (_, i) => ({ x: 150 + (i % 4) * 600, y: 250 + Math.floor(i / 4) * 500, width: 160, height: 24 })),
      starts: [{ x: WIDTH / 2, y: HEIGHT / 2 }],
      placed: Array.from({ length: foes }, (_, i) => ({
        actor: 'eel',
        x: Math.round(((i % across) + 0.5) * (WIDTH / across)),
        y: Math.min(HEIGHT - 20, Math.round((Math.floor(i / across) + 0.5) * (HEIGHT / Math.ceil(foes / across)))),
      })),
    },
  };
}

export function meleeSeats({ divers }: MeleeSize): readonly Command[] {
  return Array.from({ length: divers }, (_, i) => join(`diver${i}`, { team: 'petrel' }));
}

/** What the divers do at a tick: circle about, throw sparks, and now and then a charge. A function of the tick alone. */
export function meleeCommands({ divers }: MeleeSize, tick: number): readonly Command[] {
  const commands: Command[] = [];
  for (let i = 0; i < divers; i++) {
    const ask = (input: Record<string, unknown>) => commands.push({ kind: 'input', args: { seat: `diver${i}`, input } });
    const turn = Math.floor((tick + i * 37) / 40) % 4;
    if ((tick + i * 37) % 40 === 0) ask({ do: 'move', x: [1, 0, -1, 0][turn], y: [0, 1, 0, -1][turn] });
    if ((tick + i * 5) % 10 === 0) ask({ do: 'use', ability: 'sparks' });
    if ((tick + i * 11) % 70 === 0) ask({ do: 'use', ability: 'charge' });
  }
  return commands;
}
