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

const FORBIDS = ['stunned', 'down', 'casting', 'channelling', 'recovering'];

/** One asking of a course: what held just before, what began, and how long the cooldown was before and after. */
interface Asking {
  readonly forbidden: boolean;
  readonly begun: number;
  readonly cooled: { readonly before: number; readonly after: number };
}

/** Has an ability asked for, moved through and poked as a course says; tells of every asking, and of the world at the end. */
function taken(kind: AbilityCase, steps: typeof course extends fc.Arbitrary<infer T> ? T : never): { trial: Trial; askings: Asking[] } {
  const trial = trialOf(kind);
  const ask = (acts: readonly { do: string }[]) => trial.step(...acts.map((one) => input('north', one)));
  const begins = kind.kind === 'cast' ? ['castStarted'] : ['castStarted', 'abilityUsed'];
  const askings = steps.map(({ wait, acts, poke }) => {
    trial.run(wait / 20);
    if (poke) trial.poke(poke);
    const [before, forbidden] = [cooling(trial), FORBIDS.includes(doing(trial))];
    const begun = ask(acts.filter(({ do: what }) => what === 'use')).filter(({ who, name }) => who === 'north' && begins.includes(name));
    const after = cooling(trial);
    ask(acts.filter(({ do: what }) => what !== 'use'));
    return { forbidden, begun: begun.length, cooled: { before, after } };
  });
  trial.run(3);
  return { trial, askings };
}

describe('Whatever is done, an ability', () => {
  const holds = (what: (course: ReturnType<typeof taken>, kind: AbilityCase) => boolean) =>
    expect(() =>
      fc.assert(
        fc.property(abilityOf, course, (kind, steps) => what(taken(kind, steps), kind)),
        { numRuns: 50 },
      ),
    ).not.toThrow();

  it('begins at most once for all that is asked in one tick', () => {
    holds(({ askings }) => askings.every(({ begun }) => begun <= 1));
  });

  it('begins in no state that forbids it', () => {
    holds(({ askings }) => askings.every(({ forbidden, begun }) => !forbidden || begun === 0));
  });

  it('waits no shorter for being asked in vain', () => {
    holds(({ askings }) => askings.every(({ begun, cooled }) => begun > 0 || cooled.after >= cooled.before - 1));
  });

  it('is charged exactly once for each use, or for each that is begun where that is when it is charged', () => {
    holds(({ trial }, { kind, charge }) => {
      const mine = trial.events.filter(({ who }) => who === 'north');
      const paid = mine.filter(({ name, data }) => name === 'attributeChanged' && data['how'] === 'cost');
      const charged = mine.filter(({ name }) => name === (kind === 'cast' && charge === 'onStart' ? 'castStarted' : 'abilityUsed'));
      return paid.length === charged.length;
    });
  });

  it('leaves nothing behind in the end', () => {
    holds(({ trial }) => ['casts', 'paid'].every((table) => trial.world.table(table).count === 0));
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
