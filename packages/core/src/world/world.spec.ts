import * as fc from 'fast-check';
import brinewick from '../testing/recorded/brinewick.json' with { type: 'json' };
import {
  type Command,
  CommandError,
  compileRuleset,
  conceptState,
  defineConcept,
  defineEvents,
  loadPlayer,
  readSnapshot,
  rollOf,
  savePlayer,
  storeSnapshot,
  World,
} from '../index.js';
import { events as pickupEvents } from '../concepts/pickups/events.js';
import type { Place } from './block.js';
import { Registry } from '../ruleset/registry.js';
import { counter, input, join, poke, pool, rulesetWith, stat, Trial } from '../testing/rulesets.js';
import { modifiersTable, restsTable } from '../concepts/attributes/tables.js';
import { effectsTable } from '../concepts/effects/tables.js';
import { seatsTable } from '../concepts/seats/tables.js';
import { statusesTable } from '../concepts/statuses/tables.js';

const DEMO = compileRuleset(brinewick);

/** Random commands of two seats, by tick. */
const play = fc.array(
  fc.record({
    seat: fc.constantFrom('north', 'south'),
    ask: fc.oneof(
      fc.record({ do: fc.constant('move'), x: fc.integer({ min: -1, max: 1 }), y: fc.integer({ min: -1, max: 1 }) }),
      fc.record({ do: fc.constant('use'), ability: fc.constant('sonarPing') }),
      fc.record({ do: fc.constant('moveTo'), x: fc.integer({ min: 0, max: 960 }), y: fc.integer({ min: 0, max: 540 }) }),
    ),
    wait: fc.integer({ min: 0, max: 25 }),
  }),
  { maxLength: 25 },
);
type Play = { seat: string; ask: Record<string, unknown>; wait: number }[];

const start = (seed: number) => {
  const world = World.start(DEMO, seed);
  world.step([join('north', { team: 'petrel' }), join('south', { team: 'gannet' })]);
  return world;
};
const go = (world: World, deeds: Play) => {
  for (const { seat, ask, wait } of deeds) {
    world.step([input(seat, ask)]);
    for (let i = 0; i < wait; i++) world.step();
  }
  return world;
};

describe('Commands to a world', () => {
  const rules = compileRuleset(rulesetWith({ attributes: [pool('suit'), stat('finSpeed', 100)] }));
  const wrong: readonly (readonly [unknown, string])[] = [
    [{ kind: 'jion', args: { seat: 'south' } }, '/1/kind: No command is called jion. Did you mean join?'],
    [null, '/1/kind: A command is one of'],
    [{ kind: 'join' }, '/1/args: '],
    [{ kind: 'join', args: { seat: 3 } }, '/1/args/seat: A seat has a name.'],
    [{ kind: 'join', args: { seat: 'south', tem: 'x' } }, '/1/args/tem: "tem" is not known here.'],
    [{ kind: 'input', args: { seat: 'north' } }, '/1/args/input/do: One of'],
    [input('north', { do: 'move', x: NaN, y: 0 }), '/1/args/input/x: A number is expected.'],
    [input('north', { do: 'move', x: 2, y: 0 }), '/1/args/input/x: A direction goes from -1 to 1.'],
    [input('north', { do: 'mvoe', x: 1, y: 0 }), "/1/args/input/do: A seat can't mvoe. Did you mean move"],
    [
      poke('north', { do: 'hurt', attribute: 'siut', amount: 3 }),
      '/1/args/action/attribute: The attributes have no entry siut. Did you mean suit?',
    ],
    [poke('north', { do: 'hurt', attribute: 'suit' }), '/1/args/action/amount'],
    [{ kind: 'clock', args: { now: 'noon' } }, '/1/args/now'],
  ];

  for (const [command, says] of wrong)
    it(`are refused whole, with their place: ${says}`, () => {
      const world = World.start(rules, 1);
      world.step([join('north')]);
      const before = [world.hash(), world.tick];
      let error: unknown;
      try {
        world.step([input('north', { do: 'move', x: 1, y: 0 }), command as Command]);
      } catch (caught) {
        error = caught;
      }
      expect(error).toBeInstanceOf(CommandError);
      expect((error as Error).message).toContain(says);
      expect([world.hash(), world.tick]).toEqual(before);
      world.step([input('north', { do: 'move', x: 1, y: 0 })]);
      expect(world.tick).toBe(2);
    });

  it('are a list', () => {
    expect(() => World.start(rules, 1).step('join' as unknown as Command[])).toThrowError(CommandError, /A list of commands/);
  });
});

describe('A world', () => {
  it('is the same for the same rules, seed and commands', () => {
    fc.assert(
      fc.property(play, fc.integer(), (deeds, seed) => {
        expect(go(start(seed), deeds).hash()).toBe(go(start(seed), deeds).hash());
      }),
      { numRuns: 20 },
    );
  });

  it('goes on after snapshot and restore as if nothing had been', () => {
    fc.assert(
      fc.property(play, play, (before, after) => {
        const world = go(start(7), before);
        const restored = World.restore(DEMO, world.snapshot());
        expect(restored.hash()).toBe(world.hash());
        expect(go(restored, after).hash()).toBe(go(world, after).hash());
      }),
      { numRuns: 20 },
    );
  });

  it('can be taken back to what it was, and goes on as if it had never gone further', () => {
    fc.assert(
      fc.property(play, play, play, (before, further, after) => {
        const world = go(start(7), before);
        const [snapshot, hash] = [world.snapshot(), world.hash()];
        go(world, further);
        world.rewind(snapshot);
        expect(world.hash()).toBe(hash);
        expect(go(world, after).hash()).toBe(go(World.restore(DEMO, snapshot), after).hash());
      }),
      { numRuns: 20 },
    );
  });

  it('is read as it was stored, and not where bytes are missing or another version stored it', () => {
    const world = go(start(3), []);
    const stored = storeSnapshot(world.snapshot());
    expect(World.restore(DEMO, readSnapshot(stored)).hash()).toBe(world.hash());
    const { bytes, ...rest } = world.snapshot();
    expect(() => readSnapshot(storeSnapshot({ ...rest, bytes: bytes.slice(8) }))).toThrowError(RangeError, /^A block of \d+ bytes/);
    // What comes first in the list is the version.
    expect(() => readSnapshot(stored.map((byte, i) => (i === 1 ? 9 : byte)))).toThrowError(
      RangeError,
      /version 1 or 2 is expected; this is 9/,
    );
  });

  it('can be taken up again from its very beginning, and right after an edit', () => {
    for (const world of [World.start(DEMO, 9), go(start(9), []).adopt(DEMO)]) {
      const restored = World.restore(DEMO, world.snapshot());
      const commands = [join('east', { team: 'petrel' })];
      expect(restored.step(commands)).toEqual(world.step(commands));
      expect(restored.hash()).toBe(world.hash());
    }
  });

  it('is told apart by its hash', () => {
    const [one, other] = [start(1), start(1)];
    other.step([poke('north', { do: 'give', attribute: 'scrip', amount: 1 })]);
    one.step();
    expect(one.hash()).not.toBe(other.hash());
  });

  it('has snapshots that later ticks do not touch', () => {
    const world = start(1);
    const snapshot = world.snapshot();
    const hash = world.hash();
    go(world, [{ seat: 'north', ask: { do: 'move', x: 1, y: 0 }, wait: 40 }]);
    expect(World.restore(DEMO, snapshot).hash()).toBe(hash);
  });

  it('that was stored before there was a table has an empty row in it for each actor', () => {
    const hurt = { do: 'hurt', attribute: 'suit', amount: 1000 };
    const foe = { id: 'eel', label: 'Eel', kind: 'foe', attributes: [] };
    const diver = { id: 'diver', label: 'Diver', kind: 'player', life: 'suit', attributes: [{ attribute: 'suit' }] };
    const trial = Trial.of({
      attributes: [pool('suit', { refill: { rate: 5 } })],
      actors: [diver, foe],
      pickups: [{ id: 'urchin', label: 'Urchin', then: [] }],
      reactions: [{ id: 'sting', label: 'Sting', on: { on: 'pickupTaken' }, then: [hurt] }],
      arena: { placed: Array.from({ length: 40 }, (_, i) => ({ actor: 'eel', x: 20 + i * 20, y: 300 })) },
    });
    const snapshot = trial.world.snapshot();
    const called = (place: Place) => (['rests', 'crossings'].includes(place.spec.name) ? 'another' : place.spec.name);
    const places = snapshot.layout.places.map((place) => ({ ...place, spec: { ...place.spec, name: called(place) } }));
    trial.world = World.restore(trial.rules, { ...snapshot, layout: { ...snapshot.layout, places } });
    expect(restsTable.in(trial.world).columns[0].data.length).toBeGreaterThanOrEqual(trial.world.actors.high);
    trial.poke({ do: 'spawn', pickup: 'urchin' });
    trial.step();
    trial.step();
    expect([trial.named('actorDefeated').length, trial.value('suit')]).toEqual([1, 0]);
  });

  it('survives commands that speak of nobody', () => {
    const world = start(1);
    const hash = () => World.restore(DEMO, world.snapshot()).hash();
    world.step([input('nobody', { do: 'move', x: 1, y: 0 }), { kind: 'leave', args: { seat: 'nobody' } }]);
    expect(hash()).toBe(world.hash());
  });
});

describe('Leaving', () => {
  it('takes everything an actor owns with it', () => {
    const world = start(1);
    const before = ['actors', 'abilities', 'seats'].map((name) => world.table(name).count);
    const own = compileRuleset(brinewick).chapters.get('actors')!.entries[0] as unknown as { abilities: string[] };
    world.step([poke('north', { do: 'apply', effect: 'slipstream' })]);
    world.step([{ kind: 'leave', args: { seat: 'north' } }]);
    expect(effectsTable.in(world).count).toBe(0);
    // Whoever stays keeps what grows with their level.
    expect(modifiersTable.in(world).count).toBe(seatsTable.in(world).count);
    const after = ['actors', 'abilities', 'seats'].map((name) => world.table(name).count);
    expect(after).toEqual([before[0] - 1, before[1] - own.abilities.length, before[2] - 1]);
    for (let i = 0; i < 200; i++) world.step();
    expect(world.actors.count).toBe(after[0]);
  });
});

describe('Random numbers', () => {
  it('depend on the seed, the purpose, the actor and the count, and on nothing else', () => {
    const base = rollOf(1, 2, 3, 4);
    expect(rollOf(1, 2, 3, 4)).toBe(base);
    for (const other of [rollOf(2, 2, 3, 4), rollOf(1, 3, 3, 4), rollOf(1, 2, 4, 4), rollOf(1, 2, 3, 5)]) expect(other).not.toBe(base);
  });

  it('spread evenly from 0 to below 1', () => {
    const buckets = new Array<number>(10).fill(0);
    for (let n = 0; n < 20000; n++) buckets[Math.floor(rollOf(42, 7, 1, n) * 10)]++;
    for (const count of buckets) expect(Math.abs(count - 2000)).toBeLessThan(200);
  });

  it('are not moved by a roll added elsewhere', () => {
    const parts = (extra: unknown[]) => ({
      attributes: [counter('scrip')],
      pickups: [
        ...extra,
        { id: 'token', label: 'Token', then: [{ do: 'give', attribute: 'scrip', amount: { random: [1, 1000], whole: true } }] },
      ],
    });
    const worth = (extra: unknown[], first?: string) => {
      const trial = Trial.of(parts(extra));
      if (first) trial.poke({ do: 'spawn', pickup: first, x: 0, y: 0 });
      trial.poke({ do: 'spawn', pickup: 'token' });
      return trial.value('scrip');
    };
    const other = { id: 'other', label: 'Other', then: [{ do: 'heal', attribute: 'scrip', amount: { random: [1, 1000], whole: true } }] };
    expect(worth([other], 'other')).toBe(worth([]));
  });
});

describe('Edited rules', () => {
  const parts = (speed: number, more: Record<string, unknown> = {}) =>
    compileRuleset(
      rulesetWith({
        attributes: [stat('finSpeed', speed, { max: 600 }), pool('suit', { start: 40 }), counter('scrip')],
        effects: [
          {
            id: 'slipstream',
            label: 'Slipstream',
            lasts: '6s',
            grants: ['fast'],
            modifiers: [{ attribute: 'finSpeed', operation: 'percent', amount: 40 }],
          },
        ],
        statuses: [{ id: 'fast', label: 'Fast' }],
        ...more,
      }),
    );

  it('are taken at the next tick: the new base under the running effects, the rest as it was', () => {
    const trial = new Trial(parts(120));
    trial.poke({ do: 'apply', effect: 'slipstream' });
    trial.poke({ do: 'give', attribute: 'scrip', amount: 9 });
    trial.world = trial.world.adopt(parts(200));
    expect([trial.value('finSpeed'), trial.value('scrip'), trial.value('suit')]).toEqual([280, 9, 40]);
    trial.run(6);
    expect(trial.value('finSpeed')).toBe(200);
  });

  it('leave a base alone that the game had moved', () => {
    const trial = new Trial(parts(120));
    trial.poke({ do: 'set', attribute: 'finSpeed', value: 90 });
    trial.world = trial.world.adopt(parts(200));
    expect(trial.value('finSpeed')).toBe(90);
  });

  it('start a new attribute where its author says', () => {
    const trial = new Trial(parts(120));
    trial.world = trial.world.adopt(
      parts(120, { attributes: [pool('air', { start: 33 }), stat('finSpeed', 120), pool('suit', { start: 40 }), counter('scrip')] }),
    );
    expect([trial.value('air'), trial.value('finSpeed')]).toEqual([33, 120]);
  });

  it('take deleted effects away, with what they modified and granted', () => {
    const trial = new Trial(parts(120));
    trial.poke({ do: 'apply', effect: 'slipstream' });
    trial.world = trial.world.adopt(parts(120, { effects: [] }));
    trial.run(10);
    expect(trial.value('finSpeed')).toBe(120);
    expect(statusesTable.in(trial.world).cells.fast[0]).toBe(0);
  });

  it('bring pools back into moved bounds', () => {
    const trial = new Trial(parts(120));
    trial.world = trial.world.adopt(
      parts(120, { attributes: [stat('finSpeed', 120), pool('suit', { start: 5, max: 10 }), counter('scrip')] }),
    );
    expect(trial.value('suit')).toBe(10);
  });
});

describe('A player', () => {
  it('is kept by names, and comes back also under edited rules', () => {
    const trial = Trial.of({ attributes: [counter('scrip'), pool('suit', { saved: true }), pool('stamina')] });
    trial.poke({ do: 'give', attribute: 'scrip', amount: 12 });
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 60 });
    trial.poke({ do: 'hurt', attribute: 'stamina', amount: 60 });
    const saved = savePlayer(trial.world, trial.world.actors.rowOf(trial.actor()));
    expect(saved).toEqual({ attributes: { scrip: 12, suit: 40 } });
    const back = Trial.of({ attributes: [pool('stamina'), pool('suit', { saved: true, max: 30 }), counter('scrip')] }, [
      join('north', { saved }),
    ]);
    expect([back.value('scrip'), back.value('suit'), back.value('stamina')]).toEqual([12, 30, 100]);
  });

  it('is not harmed by what the rules no longer know', () => {
    const trial = Trial.of({ attributes: [counter('scrip')] });
    loadPlayer(trial.world, 0, { attributes: { gone: 3, scrip: 'text' }, nowhere: { a: 1 } });
    expect(trial.value('scrip')).toBe(0);
  });
});

describe('Causes', () => {
  it('are cut where they go round for ever, and the world goes on', () => {
    const world = start(1);
    const { registry } = DEMO;
    registry.listeners.set('pickupAppeared', [(w) => w.emit(pickupEvents.pickupAppeared, {}, { pickup: 'copperToken', x: 0, y: 0 })]);
    try {
      const events = world.step([poke('north', { do: 'spawn', pickup: 'copperToken', x: 900, y: 20 })]);
      expect(events.filter((e) => e.name === 'pickupAppeared').length).toBeLessThan(40);
      expect(events.filter((e) => e.name === 'loopCut').length).toBe(1);
    } finally {
      registry.listeners.delete('pickupAppeared');
    }
    expect(world.step().length).toBe(0);
  });
});

describe('The registry', () => {
  it('refuses two concepts that declare the same name', () => {
    const twin = () =>
      defineConcept(conceptState('twin'), {
        events: defineEvents({ echo: { label: 'echo', see: 'everyone', when: 'Now.', sentence: () => 'echo' } }),
      });
    expect(() => new Registry([twin(), twin()] as never)).toThrowError(/Two concepts declare the event echo/);
  });
});
