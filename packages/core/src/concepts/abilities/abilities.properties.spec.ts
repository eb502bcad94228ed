import * as fc from 'fast-check';
import { checkInput } from '../../index.js';
import { cooling, doing, FIGHT, HITS } from '../../testing/fights.js';
import { input, join, Trial } from '../../testing/rulesets.js';

const parts = {
  cast: { time: '0.6s' },
  channel: { every: '0.2s', lasts: '0.8s' },
  instant: {},
};

const abilityOf = fc.record({
  kind: fc.constantFrom(...(Object.keys(parts) as (keyof typeof parts)[])),
  charge: fc.constantFrom('onStart', 'onFinish'),
  movement: fc.boolean(),
  recovers: fc.boolean(),
});

const act = fc.oneof(
  { weight: 4, arbitrary: fc.constant({ do: 'use', ability: 'torch' }) },
  fc.constant({ do: 'move', x: 1, y: 0 }),
  fc.constant({ do: 'stop' }),
  fc.constant({ do: 'cancel' }),
);
const pokes = fc.oneof(
  fc.constant({ do: 'hurt', attribute: 'suit', amount: 8 }),
  fc.constant({ do: 'grant', status: 'stunned' }),
  fc.constant({ do: 'withdraw', status: 'stunned' }),
  fc.constant({ do: 'heal', attribute: 'stamina', amount: 30 }),
  fc.constant({ do: 'fell' }),
  fc.constant({ do: 'revive' }),
);
const course = fc.array(
  fc.record({ wait: fc.integer({ min: 0, max: 12 }), acts: fc.array(act, { maxLength: 3 }), poke: fc.option(pokes) }),
  { maxLength: 25 },
);

type AbilityCase = typeof abilityOf extends fc.Arbitrary<infer T> ? T : never;

function trialOf({ kind, charge, movement, recovers }: AbilityCase): Trial {
  const timed = kind === 'instant' ? {} : { [kind]: parts[kind], brokenBy: { damage: 5, player: true, ...(movement && { movement }) } };
  const torch = {
    id: 'torch',
    label: 'Torch',
    charge,
    costs: [{ attribute: 'stamina', amount: 10 }],
    cooldown: '1s',
    ...timed,
    ...(recovers && { recovery: { time: '0.3s' } }),
    target: { at: 'nearest', range: 300 },
    onHit: HITS,
  };
  return Trial.of({ ...FIGHT, abilities: [torch] }, [join('north', { team: 'petrel' }), join('south', { team: 'gannet' })]);
}

describe('Whatever is done, an ability', () => {
  it('is charged exactly once or not at all, waits no shorter for being asked, and begins in no state that forbids it', () => {
    fc.assert(
      fc.property(abilityOf, course, (kind, steps) => {
        const trial = trialOf(kind);
        for (const { wait, acts, poke } of steps) {
          trial.run(wait / 20);
          const before = cooling(trial);
          const forbidden = ['stunned', 'down', 'casting', 'channelling', 'recovering'].includes(doing(trial));
          if (poke) trial.poke(poke);
          const after = poke ? cooling(trial) : before;
          const stillForbidden = poke ? ['stunned', 'down', 'casting', 'channelling', 'recovering'].includes(doing(trial)) : forbidden;
          const events = trial.step(...acts.filter(({ do: what }) => what === 'use').map((ask) => input('north', ask)));
          const begun = events.filter(
            (event) => event.who === 'north' && (event.name === 'castStarted' || (event.name === 'abilityUsed' && kind.kind !== 'cast')),
          );
          expect(begun.length).toBeLessThanOrEqual(1);
          if (stillForbidden) {
            // What ended in this very tick may make way, but nothing that was asked in it.
            expect(begun.length).toBe(0);
          }
          if (begun.length === 0) expect(cooling(trial)).toBeGreaterThanOrEqual(after - 1);
          trial.step(...acts.filter(({ do: what }) => what !== 'use').map((ask) => input('north', ask)));
        }
        trial.run(3);
        const mine = trial.events.filter((event) => event.who === 'north');
        const paid = mine.filter((event) => event.name === 'attributeChanged' && event.data['how'] === 'cost').length;
        const used = mine.filter((event) => event.name === 'abilityUsed').length;
        const started = mine.filter((event) => event.name === 'castStarted').length;
        expect(paid).toBe(kind.kind === 'cast' && kind.charge === 'onStart' ? started : used);
        for (const table of ['casts', 'paid']) expect(trial.world.table(table).count).withContext(table).toBe(0);
      }),
      { numRuns: 150 },
    );
  });

  it('answers nonsense with a refusal or with silence, and leaves the world as it is without', () => {
    const trial = trialOf({ kind: 'cast', charge: 'onStart', movement: false, recovers: false });
    const still = trialOf({ kind: 'cast', charge: 'onStart', movement: false, recovers: false });
    const asks: readonly unknown[] = [
      { do: 'use', ability: 'torch', x: NaN, y: 1 },
      { do: 'use', ability: 'torch', x: Infinity, y: 1 },
      { do: 'use', ability: 'torch', x: '3' },
      { do: 'use', ability: 7 },
      { do: 'use' },
      { do: 'use', ability: 'torch', target: -1 },
      { do: 'use', ability: 'torch', target: { row: 3 } },
      { do: 'cancel', all: true },
      { do: 'conjure' },
      null,
    ];
    for (const ask of asks) expect(checkInput(ask).problems.length).withContext(JSON.stringify(ask)).toBeGreaterThan(0);
    // What passes the door but can't be: refused, and nothing else moves.
    trial.step(input('north', { do: 'use', ability: 'harpoon' }));
    trial.step(input('nobody', { do: 'use', ability: 'torch' }));
    trial.step(input('north', { do: 'cancel' }));
    still.run(0.15);
    expect(trial.world.hash()).toBe(still.world.hash());
  });
});
