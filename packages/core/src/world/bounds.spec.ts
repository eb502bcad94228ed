import { type Command, compileRuleset, type GameEvent, readRuleset, World } from '../index.js';
import { MOST_INSTANCES, MOST_MODIFIERS } from '../concepts/effects/system.js';
import { MOST_SENT } from '../concepts/deliveries/index.js';
import { MOST_WAITING } from '../concepts/sequences/index.js';
import { join, poke, pool, rulesetWith, stat } from '../testing/rulesets.js';
import { mindsTable } from '../concepts/behaviours/tables.js';

const times = <T>(count: number, make: (i: number) => T): T[] => Array.from({ length: count }, (_, i) => make(i));
const hurt = { do: 'hurt', attribute: 'suit', amount: 1 };
/** An effect that does something at every tick of a world of 20 a second. */
const ceaseless = (id: string, then: readonly unknown[]) => ({ id, label: id, lifetime: 'lasting', periodic: { every: '50ms', then } });

/** A world with one diver, on whom effects are put. */
class Overgrown {
  readonly world: World;
  readonly events: GameEvent[] = [];

  constructor(parts: Record<string, unknown>, ...effects: readonly string[]) {
    const attributes = [pool('suit', { max: 1_000_000, start: 1_000_000 }), stat('pull', 0)];
    this.world = World.start(compileRuleset(rulesetWith({ attributes, ...parts })), 1);
    this.run(1, join('north'));
    for (const effect of effects) this.run(1, poke('north', { do: 'apply', effect }));
  }

  run(ticks: number, ...commands: Command[]): this {
    for (let n = 0; n < ticks; n++) this.events.push(...this.world.step(n === 0 ? commands : []));
    return this;
  }

  rows(table: string): number {
    return this.world.table(table).count;
  }

  count(event: string): number {
    return this.events.filter(({ name }) => name === event).length;
  }
}

/** A crowd of so many foes that nobody minds, on a field of 500 by 500. */
const crowd = (count: number, more: Record<string, unknown> = {}) => ({
  actors: [
    { id: 'diver', label: 'Diver', kind: 'player', attributes: [{ attribute: 'suit' }] },
    { id: 'eel', label: 'Eel', kind: 'foe', attributes: [{ attribute: 'suit' }], ...more },
  ],
  arena: {
    width: 500,
    height: 500,
    placed: times(count, (i) => ({ actor: 'eel', x: 10 + (i % 45) * 10, y: 10 + Math.floor(i / 45) * 10 })) as unknown[],
  },
});

describe('What rules make more and more of', () => {
  it('is bounded for effects, which are refused with a word', () => {
    const effects = [
      { id: 'mark', label: 'Mark', lifetime: 'lasting', stacking: 'separate' },
      ...times(20, (i) =>
        ceaseless(
          `spread${i}`,
          times(50, () => ({ do: 'apply', effect: 'mark' })),
        ),
      ),
    ];
    const grown = new Overgrown({ effects }, ...times(20, (i) => `spread${i}`)).run(80);
    expect(grown.rows('effects')).toBe(MOST_INSTANCES);
    expect(grown.events.find(({ data }) => data['why'] === 'full')?.name).toBe('effectRefused');
  });

  it('is bounded for their modifiers, however many an effect has', () => {
    const modifiers = times(20, () => ({ attribute: 'pull', operation: 'add', amount: 'suit / 2', live: true }));
    const effects = [
      { id: 'mark', label: 'Mark', lifetime: 'lasting', stacking: 'separate', modifiers },
      ceaseless(
        'spread',
        times(50, () => ({ do: 'apply', effect: 'mark' })),
      ),
    ];
    const grown = new Overgrown({ effects }, 'spread').run(40);
    expect(grown.rows('modifiers')).toBeLessThanOrEqual(MOST_MODIFIERS);
    expect(grown.rows('modifiers') % 20).toBe(0);
    expect(grown.count('tickCut')).toBeGreaterThan(0);
  });

  it('is one timer for an effect, however often that is renewed', () => {
    const effects = [
      { id: 'warm', label: 'Warm', lasts: '10s', stacking: 'refresh' },
      ceaseless('renew', [{ do: 'apply', effect: 'warm' }]),
    ];
    const grown = new Overgrown({ effects }, 'warm', 'renew').run(100);
    expect(grown.rows('timers')).toBe(1);
    expect(
      grown
        .run(1, poke('north', { do: 'end', effect: 'renew' }))
        .run(198)
        .count('effectEnded'),
    ).toBe(1);
    expect(grown.run(2).count('effectEnded')).toBe(2);
    expect(grown.rows('timers')).toBe(0);
  });

  it('is bounded for lists that wait, which are dropped with a word', () => {
    const reactions = times(50, (i) => ({
      id: `r${i}`,
      label: `Chain ${i}`,
      on: { on: 'effectStarted', effect: 'spark' },
      then: [{ do: 'wait', for: '3600s' }, hurt],
    }));
    const effects = [{ id: 'spark', label: 'Spark', lifetime: 'instant' }, ceaseless('f', [{ do: 'apply', effect: 'spark' }])];
    const grown = new Overgrown({ effects, reactions }, 'f').run(MOST_WAITING / 50 + 10);
    expect(grown.rows('waits')).toBe(MOST_WAITING);
    const dropped = grown.events.find(({ name }) => name === 'listDropped')!;
    expect(grown.world.rules.registry.events.get('listDropped')!.sentence(dropped, { label: (_, id) => String(id), time: String })).toBe(
      `${MOST_WAITING} lists of actions wait already: one of ${String(dropped.data['rule']).split('/')[1]} is dropped`,
    );
  });

  it('is bounded for what is sent on its way', () => {
    const abilities = [
      { id: 'shot', label: 'Shot', target: { at: 'direction' }, deliver: { by: 'projectile', count: 50, speed: 0, lifetime: '3600s' } },
      { id: 'pool', label: 'Pool', target: { at: 'self' }, deliver: { by: 'area', radius: 5, lasts: '3600s' } },
    ];
    const effects = abilities.map(({ id }) =>
      ceaseless(
        id,
        times(50, () => ({ do: 'use', ability: id })),
      ),
    );
    const grown = new Overgrown({ abilities, effects }, 'shot', 'pool').run(60);
    expect(grown.rows('projectiles')).toBe(MOST_SENT);
    expect(grown.rows('areas')).toBe(MOST_SENT);
    expect(grown.events.find(({ name }) => name === 'arenaFull')?.data).toEqual({ ability: 'shot' });
  });
});

describe('A tick that is out of steps', () => {
  it('leaves in a zone who was in it, where it has none to look', () => {
    const zones = [{ id: 'pond', label: 'Pond' }];
    const parts = crowd(600);
    parts.arena.placed.push(...times(40, () => ({ zone: 'pond', x: 250, y: 250, radius: 400 })));
    const grown = new Overgrown({ ...parts, zones }).run(5);
    const before = grown.rows('inside');
    expect(before).toBeGreaterThan(600);
    expect(before).toBeLessThan(600 * 40);
    expect(grown.run(20).count('zoneLeft')).toBe(0);
    expect(grown.events.filter(({ name }) => name === 'tickCut').at(-1)?.data['rule']).toBe('zones/pond');
    expect(grown.rows('inside')).toBeGreaterThanOrEqual(before);
  });

  it('has those think first who had no turn at the last one', () => {
    const attributes = [pool('suit'), stat('pace', 0)];
    const parts = crowd(800, { behaviour: { do: 'chase', within: 1000, who: 'others' }, speed: 'pace' });
    parts.actors[1].attributes = [{ attribute: 'suit' }, { attribute: 'pace' }] as never;
    const grown = new Overgrown({ attributes, ...parts }).run(40);
    expect(grown.count('tickCut')).toBeGreaterThan(0);
    const thinks = mindsTable.in(grown.world).cells.thinks;
    const soonest = thinks.slice(0, 700).filter((tick, row) => grown.world.actors.live[row] === 1 && tick !== 0);
    expect(Math.min(...soonest)).toBeGreaterThan(10);
  });

  it('ends at the next one what would have run out', () => {
    const reactions = times(15, (i) => ({
      id: `r${i}`,
      label: `Chain ${i}`,
      on: { on: 'attributeChanged' },
      then: times(12, () => hurt),
    }));
    const effects = [
      { id: 'short', label: 'Short', lasts: '150ms' },
      { id: 'long', label: 'Long', lasts: '150ms', onEnd: [{ then: [hurt] }] },
    ];
    const grown = new Overgrown({ effects, reactions });
    grown.run(1, poke('north', { do: 'apply', effect: 'long' }), poke('north', { do: 'apply', effect: 'short' })).run(20);
    expect(grown.count('effectEnded')).toBe(2);
    expect(grown.rows('effects')).toBe(0);
    expect(grown.rows('timers')).toBe(0);
  });
});

describe('A timer', () => {
  it('that is set while others fire has its own time, however many there are', () => {
    const reactions = [{ id: 'r', label: 'R', on: { on: 'attributeChanged' }, then: [{ do: 'wait', for: '50ms' }, hurt, hurt] }];
    const grown = new Overgrown({ reactions });
    const changes = times(9, (n) => {
      const before = grown.count('attributeChanged');
      return grown.run(1, ...(n === 0 ? [poke('north', hurt)] : [])).count('attributeChanged') - before;
    });
    expect(changes).toEqual([1, 2, 4, 8, 16, 32, 64, 128, 256]);
  });
});

describe('The values of all actors', () => {
  const attributes = [pool('suit'), ...times(99, (i) => pool(`gauge${i}`, { thresholds: [{ id: 'low', end: 'empty' }] }))];
  const filled = (count: number) => {
    const parts = crowd(count);
    parts.actors[1].attributes = attributes.map(({ id }) => ({ attribute: id }));
    return { ...parts, attributes };
  };

  it('are bounded where they are written', () => {
    const { rules, problems } = readRuleset(rulesetWith(filled(260)));
    expect(rules).toBeUndefined();
    expect(problems.map(({ path, message }) => `${path} ${message}`)).toEqual([
      '/arena/placed The actors here have 51740 values and thresholds together, and an arena holds 50000: place fewer, or give them fewer attributes.',
    ]);
  });

  it('are bounded where rules bring actors in', () => {
    const effects = [ceaseless('brood', [{ do: 'summon', actor: 'eel', x: 9, y: 9 }])];
    const grown = new Overgrown({ ...filled(240), effects }, 'brood').run(20);
    expect(grown.world.actors.count).toBe(1 + Math.floor(50_000 / 199));
    expect(grown.count('arenaFull')).toBeGreaterThan(0);
  });
});

describe('Those that a rule brings in', () => {
  it('are called by the first number that is free, also where others went between, and where the world was stored', () => {
    const effects = [ceaseless('brood', [{ do: 'summon', actor: 'eel', x: 9, y: 9 }])];
    const parts = crowd(3, { life: 'suit' });
    const grown = new Overgrown({ ...parts, effects }, 'brood').run(5);
    const names = (world: World) => times(world.actors.high, (row) => world.nameOf(world.actors.handle(row))).filter((name) => name !== '');
    // A few fall next to each other, at the place of the first.
    grown.run(1, poke('north', { do: 'place', x: 12, y: 10 }));
    const before = names(grown.world);
    const fall = poke('north', { do: 'hurt', attribute: 'suit', amount: 1_000_000, to: { nearby: 1, who: 'others' } });
    grown.run(1, fall);
    expect(before.length - names(grown.world).length).toBeGreaterThan(1);
    const stored = World.restore(grown.world.rules, grown.world.snapshot());
    for (const world of [grown.world, stored]) for (let n = 0; n < 12; n++) world.step(n % 3 === 2 ? [fall] : []);
    expect(names(grown.world)).toEqual(names(stored));
    expect(new Set(names(grown.world)).size).toBe(names(grown.world).length);
  });
});

describe('Those that fall with each other, and are followed by others', () => {
  it('are called the same where the world was stored at any moment', () => {
    const fall = { do: 'hurt', attribute: 'suit', amount: 1_000_000, to: { nearby: 12, who: 'others' } };
    const effects = [
      { id: 'bond', label: 'Bond', lifetime: 'lasting', onEnd: [{ then: [fall, { do: 'summon', actor: 'eel', x: 20, y: 10 }] }] },
      ceaseless('brood', [{ do: 'summon', actor: 'eel', x: 20, y: 10 }]),
    ];
    const parts = crowd(6, { life: 'suit', onSpawn: [{ do: 'apply', effect: 'bond' }] });
    const grown = new Overgrown({ ...parts, effects }, 'brood');
    grown.run(1, poke('north', { do: 'place', x: 12, y: 10 }));
    for (let n = 0; n < 30; n++) {
      const stored = World.restore(grown.world.rules, grown.world.snapshot());
      const commands = n % 4 === 1 ? [poke('north', fall)] : [];
      stored.step(commands);
      expect(grown.run(1, ...commands).world.hash())
        .withContext(`tick ${n}`)
        .toBe(stored.hash());
    }
    expect(grown.count('actorLeft')).toBeGreaterThan(10);
  });
});

describe('The luck of those that have gone', () => {
  it('is forgotten in time, at the same moment in a world that was stored meanwhile', () => {
    const effects = [
      ceaseless(
        'brood',
        times(40, () => ({ do: 'summon', actor: 'eel', x: 9, y: 9 })),
      ),
    ];
    const fall = { do: 'hurt', attribute: 'suit', amount: 1_000_000 };
    const parts = crowd(1, { life: 'suit', onSpawn: [{ do: 'pick', among: [{ weight: 1, then: [fall] }] }] });
    const grown = new Overgrown({ ...parts, effects }, 'brood').run(20);
    const stored = World.restore(grown.world.rules, grown.world.snapshot());
    let most = 0;
    for (let n = 0; n < 60; n++) {
      grown.run(1);
      stored.step([]);
      most = Math.max(most, grown.rows('rolls'));
    }
    expect(most).toBeLessThanOrEqual(1024);
    expect(grown.count('actorDefeated')).toBeGreaterThan(2000);
    expect(stored.hash()).toBe(grown.world.hash());
  });
});
