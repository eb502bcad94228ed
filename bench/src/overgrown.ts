import { readFileSync } from 'node:fs';
import { compileRuleset, World } from '@eager-ember/core';
import { median, rounded, type Row } from './measure.js';

const TICKS = 100;
const times = <T>(count: number, make: (i: number) => T): T[] => Array.from({ length: count }, (_, i) => make(i));

const attributes = [
  { id: 'suit', label: 'Suit', kind: 'pool', max: 1e9, start: 1e9 },
  { id: 'pull', label: 'Pull', kind: 'stat', start: 1 },
  { id: 'pace', label: 'Pace', kind: 'stat', start: 20 },
];
const own = attributes.map(({ id }) => ({ attribute: id }));
const diver = { id: 'diver', label: 'Diver', kind: 'player', attributes: own };
const hurt = { do: 'hurt', attribute: 'suit', amount: 1 };
const ceaseless = (id: string, then: readonly unknown[]) => ({ id, label: id, lifetime: 'lasting', periodic: { every: '50ms', then } });
const crowd = (count: number, more: Record<string, unknown> = {}) => ({
  actors: [diver, { id: 'eel', label: 'Eel', kind: 'foe', attributes: own, speed: 'pace', ...more }],
  arena: {
    width: 500,
    height: 500,
    placed: times(count, (i) => ({ actor: 'eel', x: 10 + (i % 45) * 10, y: 10 + Math.floor(i / 45) * 10 })) as unknown[],
  },
});
const among = (count: number, thing: Record<string, unknown>, crowded = crowd(1490)) => {
  crowded.arena.placed.push(...times(count, () => ({ ...thing, x: 250, y: 250 })));
  return crowded;
};

/** Rulesets that ask more of a tick than it has, each in another way, and the effects that set them going. */
const OVERGROWN: readonly (readonly [string, Record<string, unknown>, ...string[]])[] = [
  [
    '50 reactions of 50 actions on each other',
    {
      effects: [ceaseless('begin', [hurt])],
      reactions: times(50, (i) => ({ id: `r${i}`, label: `R${i}`, on: { on: 'attributeChanged' }, then: times(50, () => hurt) })),
    },
    'begin',
  ],
  [
    'effects without end, of 20 live modifiers each',
    {
      effects: [
        {
          id: 'mark',
          label: 'Mark',
          lifetime: 'lasting',
          stacking: 'separate',
          modifiers: times(20, () => ({ attribute: 'pull', operation: 'add', amount: 'suit', live: true })),
        },
        ...times(20, (i) =>
          ceaseless(
            `spread${i}`,
            times(50, () => ({ do: 'apply', effect: 'mark' })),
          ),
        ),
      ],
    },
    ...times(20, (i) => `spread${i}`),
  ],
  [
    '1,000 projectiles more in every tick',
    {
      abilities: [
        {
          id: 'shot',
          label: 'Shot',
          target: { at: 'direction' },
          deliver: { by: 'projectile', count: 50, spread: 360, speed: 1, lifetime: '3600s', radius: 50, who: 'anyone' },
        },
      ],
      effects: [
        ceaseless(
          'volley',
          times(20, () => ({ do: 'use', ability: 'shot' })),
        ),
      ],
    },
    'volley',
  ],
  ['1,490 actors in 500 zones', { zones: [{ id: 'pond', label: 'Pond' }], ...among(500, { zone: 'pond', radius: 400 }) }],
  [
    '1,490 actors on 500 pickups that are not theirs',
    { pickups: [{ id: 'pearl', label: 'Pearl', radius: 200, who: 'suit < 0' }], ...among(500, { pickup: 'pearl' }) },
  ],
  ['1,990 foes that chase each other', crowd(1990, { behaviour: { do: 'chase', within: 5000, who: 'anyone', sight: true } })],
];

/** The ticks of a ruleset, in milliseconds. */
function ticksOf(ruleset: Record<string, unknown>, effects: readonly string[]): number[] {
  const world = World.start(compileRuleset(ruleset), 1);
  const commands = [
    { kind: 'join', args: { seat: 'north' } },
    ...effects.map((effect) => ({ kind: 'poke', args: { seat: 'north', action: { do: 'apply', effect } } })),
  ];
  return Array.from({ length: TICKS }, (_, n) => {
    const began = performance.now();
    world.step(n === 0 ? commands : []);
    return performance.now() - began;
  });
}

/** Ticks of rulesets that are out of hand, beside those of the demo: how long they take, the first one apart. */
export function overgrown(): Row[] {
  const demo = JSON.parse(readFileSync(new URL('../../examples/brinewick.json', import.meta.url), 'utf8')) as Record<string, unknown>;
  return OVERGROWN.map(([what, parts, ...effects]) => {
    const ruleset = { format: 'eager-ember/ruleset', version: 2, name: 'Overgrown', tickRate: 20, attributes, actors: [diver], ...parts };
    const ticks = ticksOf(ruleset, effects);
    const reference = median(ticksOf(demo, []));
    return {
      what: `a tick of a ruleset that is out of hand: ${what}`,
      value: rounded(median(ticks)),
      reference: rounded(reference),
      unit: 'ms',
      referenceIs: 'a tick of the demo with one diver',
      ratio: `longest ${Math.max(...ticks).toFixed(0)} ms`,
      reach: "a room's tick of 50 ms; never 250 ms",
    };
  });
}
