import { decode } from '@msgpack/msgpack';
import * as fc from 'fast-check';
import brinewick from '../testing/recorded/brinewick.json' with { type: 'json' };
import {
  actorOfSeat,
  announcementsFor,
  compileRuleset,
  Copy,
  Publisher,
  readClientMessage,
  encodeMessage,
  shownTo,
  sourceOf,
  type Viewer,
  wireSchemaOf,
  World,
} from '../index.js';
import { input, join, poke, pool, rulesetWith, stat, Trial } from '../testing/rulesets.js';

const DEMO = compileRuleset(brinewick);
const rowOf = (world: World, seat: string) => world.actors.rowOf(actorOfSeat(world, seat));
const viewerOf = (world: World, seat: string): Viewer => {
  const actor = actorOfSeat(world, seat);
  const row = world.actors.rowOf(actor);
  return { actor, team: row < 0 ? -1 : world.actors.cells.team[row] };
};

describe('A display', () => {
  it('is told of a name that no attribute has, and what may have been meant', () => {
    const source = sourceOf(new Copy(wireSchemaOf(DEMO)), 0);
    expect(() => source.on('oxgyen', () => undefined)).toThrowError(RangeError, /No attribute is called oxgyen.* Did you mean oxygen\?$/);
    expect(source.on('oxygen', () => undefined)).toEqual(jasmine.any(Function));
  });
});

describe('A copy', () => {
  const act = fc.record({
    seat: fc.constantFrom('north', 'south', 'east'),
    ask: fc.oneof(
      fc.record({
        kind: fc.constant('input'),
        do: fc.constant('moveTo'),
        x: fc.integer({ min: 0, max: 960 }),
        y: fc.integer({ min: 0, max: 540 }),
      }),
      fc.record({ kind: fc.constant('input'), do: fc.constant('use'), ability: fc.constant('sonarPing') }),
      fc.record({
        kind: fc.constant('poke'),
        do: fc.constantFrom('hurt', 'heal'),
        attribute: fc.constantFrom('suit', 'oxygen', 'stamina', 'scrip'),
        amount: fc.integer({ min: 1, max: 60 }),
      }),
      fc.record({ kind: fc.constant('poke'), do: fc.constant('apply'), effect: fc.constantFrom('slipstream', 'silt', 'marked') }),
      fc.constant({ kind: 'leave' }),
      fc.constant({ kind: 'join' }),
    ),
    wait: fc.integer({ min: 0, max: 12 }),
    arrives: fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
  });

  it('equals what the truth may show it, whatever happens and whatever gets lost on the way', () => {
    fc.assert(
      fc.property(fc.array(act, { maxLength: 30 }), (acts) => {
        const world = World.start(DEMO, 3);
        const publisher = new Publisher(world);
        const seats = ['north', 'south', 'truth', 'east'];
        const copies = new Map(seats.map((seat) => [seat, new Copy(wireSchemaOf(DEMO, seat === 'truth'))]));
        const tell = (arrives: readonly boolean[]) => {
          // While nobody watches the truth, what is for it alone is not looked at; who watches again is told all of it.
          publisher.capture(arrives[seats.indexOf('truth')]);
          seats.forEach((seat, i) => {
            if (!arrives[i]) return;
            const viewer = seat === 'truth' ? 'truth' : viewerOf(world, seat);
            const copy = copies.get(seat)!;
            expect(copy.apply(publisher.frameFor(viewer, copy.frame))).toBeTrue();
            expect(copy.contents()).toEqual(shownTo(world, viewer));
          });
        };
        world.step([join('north', { team: 'petrel' }), join('south', { team: 'gannet' }), join('east', { team: 'petrel' })]);
        tell([true, true, true, true]);
        for (const { seat, ask, wait, arrives } of acts) {
          const { kind, ...rest } = ask as { kind: string; do: string };
          // Who leaves and comes back begins with a new copy, as a new connection does.
          if (kind === 'leave' || kind === 'join') copies.set(seat, new Copy(wireSchemaOf(DEMO)));
          const command =
            kind === 'input'
              ? input(seat, rest)
              : kind === 'poke'
                ? poke(seat, rest)
                : kind === 'join'
                  ? join(seat)
                  : { kind, args: { seat } };
          world.step([command]);
          for (let i = 0; i < wait; i++) world.step();
          tell(arrives);
        }
        tell([true, true, true, true]);
      }),
      { numRuns: 25 },
    );
  });

  it('follows a world that is taken back to what it was', () => {
    const trial = new Trial(DEMO, [join('north', { team: 'petrel' }), join('south', { team: 'gannet' })]);
    const publisher = new Publisher(trial.world);
    const copy = new Copy(wireSchemaOf(DEMO));
    const tells = () => {
      publisher.capture(false);
      copy.apply(publisher.frameFor(viewerOf(trial.world, 'north'), copy.frame));
      return copy.contents();
    };
    const before = structuredClone(tells());
    const snapshot = trial.world.snapshot();
    trial.poke({ do: 'apply', effect: 'slipstream' });
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 30 });
    expect(tells()).not.toEqual(before);
    trial.world.rewind(snapshot);
    expect(tells()).toEqual(before);
  });

  it('goes on when somebody changes teams under rules of which some tables have no columns', () => {
    const teams = ['petrel', 'gannet'].map((id) => ({ id, label: id, open: true }));
    const rules = compileRuleset(rulesetWith({ teams, teamRules: { switching: 'free' }, attributes: [pool('suit', { see: 'team' })] }));
    expect(rules.tables.some(({ columns, hidden }) => columns.length === 0 && !hidden)).toBeTrue();
    const world = World.start(rules, 1);
    const publisher = new Publisher(world);
    const viewers = ['truth', 'north', 'south'].map((seat) => ({ seat, copy: new Copy(wireSchemaOf(rules, seat === 'truth')) }));
    world.step([join('north', { team: 'petrel' }), join('south', { team: 'gannet' })]);
    for (const ask of [undefined, 'gannet', 'petrel', undefined, 'gannet', undefined]) {
      world.step(ask === undefined ? [] : [input('north', { do: 'switch', team: ask })]);
      publisher.capture();
      for (const { seat, copy } of viewers) {
        const viewer = seat === 'truth' ? 'truth' : viewerOf(world, seat);
        expect(copy.apply(publisher.frameFor(viewer, copy.frame))).toBeTrue();
        expect(copy.contents()).toEqual(shownTo(world, viewer));
      }
    }
  });

  it('is not told what belongs to another crew, on the wire', () => {
    const world = World.start(DEMO, 1);
    world.step([join('north', { team: 'petrel' }), join('south', { team: 'gannet' }), join('east', { team: 'petrel' })]);
    const publisher = new Publisher(world);
    publisher.capture();
    const told = (seat: string) => {
      const copy = new Copy(wireSchemaOf(DEMO));
      copy.apply(publisher.frameFor(viewerOf(world, seat), 0));
      return (attribute: string) => copy.value('attributes', rowOf(world, 'north'), attribute);
    };
    expect(told('north')('oxygen')).toBe(89.9);
    expect(told('north')('scrip')).toBe(0);
    expect(told('east')('oxygen')).toBe(89.9);
    expect(told('east')('scrip')).toBeUndefined();
    expect(told('south')('oxygen')).toBeUndefined();
    expect(told('south')('finSpeed')).toBe(120);
    // The drain of one seat's oxygen changes no byte of what another crew is sent.
    const before = publisher.frame;
    world.step([poke('north', { do: 'hurt', attribute: 'stamina', amount: 40 })]);
    world.step();
    publisher.capture();
    const bytes = publisher.frameFor(viewerOf(world, 'south'), before);
    const [, , , chunks] = decode(bytes) as [number, number, number, Uint8Array[]];
    // South's own oxygen is all that changed for it: one chunk for its crew, none for everyone.
    expect(chunks.length).toBe(1);
  });

  it('is not even told the names of what only the server knows', () => {
    const rules = compileRuleset(
      rulesetWith({
        attributes: [pool('suit'), pool('dread', { see: 'server', max: 'fear' }), stat('fear', 3, { see: 'server' })],
        effects: [{ id: 'curse', label: 'Curse', lasts: '5s', see: 'server' }],
      }),
    );
    const said = JSON.stringify(wireSchemaOf(rules));
    for (const secret of ['dread', 'fear', 'curse', 'Curse']) expect(said).withContext(secret).not.toContain(secret);
    expect(JSON.stringify(wireSchemaOf(rules, true))).toContain('dread');
  });

  it('forgets what a change of team takes from it', () => {
    const world = World.start(DEMO, 1);
    world.step([join('north', { team: 'petrel' }), join('south', { team: 'petrel' })]);
    const publisher = new Publisher(world);
    const copy = new Copy(wireSchemaOf(DEMO));
    publisher.capture();
    copy.apply(publisher.frameFor(viewerOf(world, 'south'), 0));
    expect(copy.value('attributes', rowOf(world, 'north'), 'oxygen')).toBe(89.9);
    world.actors.cells.team[rowOf(world, 'north')] = 1;
    world.step();
    publisher.capture();
    copy.apply(publisher.frameFor(viewerOf(world, 'south'), copy.frame));
    expect(copy.contents()).toEqual(shownTo(world, viewerOf(world, 'south')));
    expect(copy.value('attributes', rowOf(world, 'north'), 'oxygen')).toBeUndefined();
  });

  it('tells subscribers old and new, by name', () => {
    const trial = new Trial(DEMO, [join('north', { team: 'petrel' })]);
    const publisher = new Publisher(trial.world);
    const copy = new Copy(wireSchemaOf(DEMO));
    const heard: unknown[] = [];
    const row = rowOf(trial.world, 'north');
    const stop = copy.subscribe('attributes', 'suit', (row, now, before) => heard.push([row, now, before]));
    const tell = () => {
      publisher.capture();
      copy.apply(publisher.frameFor(viewerOf(trial.world, 'north'), copy.frame));
    };
    tell();
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 30 });
    tell();
    stop();
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 30 });
    tell();
    expect(heard).toEqual([
      [row, 100, undefined],
      [row, 70, 100],
    ]);
  });

  it('does not take in a frame that builds on one it never had', () => {
    const trial = new Trial(DEMO, [join('north')]);
    const publisher = new Publisher(trial.world);
    for (let i = 0; i < 3; i++) publisher.capture();
    const copy = new Copy(wireSchemaOf(DEMO));
    expect(copy.apply(publisher.frameFor(viewerOf(trial.world, 'north'), 2))).toBeFalse();
    expect(copy.contents()).toEqual({});
    expect(() => copy.apply(new Uint8Array([1, 2, 3]))).toThrow();
  });

  it('is sent little: 12 bytes for a changed number at most', () => {
    const trial = new Trial(DEMO, [join('north', { team: 'petrel' })]);
    const publisher = new Publisher(trial.world);
    publisher.capture();
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 30 });
    publisher.capture();
    const frame = publisher.frameFor(viewerOf(trial.world, 'north'), 1);
    // Oxygen and suit changed.
    expect(frame.length).toBeLessThan(24 + 12);
  });
});

describe('Announcements', () => {
  it('reach whom they concern', () => {
    const world = World.start(DEMO, 1);
    world.step([join('north', { team: 'petrel' }), join('south', { team: 'gannet' })]);
    world.step([input('north', { do: 'use', ability: 'sonarPing' })]);
    const events = world.step([
      input('north', { do: 'use', ability: 'sonarPing' }),
      poke('north', { do: 'spawn', pickup: 'slipstreamPod' }),
    ]);
    const names = (seat: string) => announcementsFor(world, [...events], viewerOf(world, seat)).map((a) => a.event);
    expect(names('north')).toContain('abilityRefused');
    expect(names('south')).not.toContain('abilityRefused');
    expect(names('south')).toContain('pickupTaken');
  });
});

describe('Messages', () => {
  it('of the protocol are read', () => {
    expect(readClientMessage(encodeMessage({ t: 'ack', frame: 3 })).message).toEqual({ t: 'ack', frame: 3 });
  });

  it('that are not are told what is wrong with them', () => {
    expect(readClientMessage(new Uint8Array([0xc1])).error).toContain('MessagePack');
    expect(readClientMessage(new Uint8Array(5000)).error).toContain('at most 4096 bytes');
    expect(readClientMessage(encodeMessage({ t: 'ack', frame: -1 })).error).toContain('frame');
    expect(readClientMessage(encodeMessage({ t: 'shout', text: 'x' } as never)).error).toContain('not of the protocol');
  });

  it('of any bytes never throw', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 60 }), (bytes) => {
        const { message, error } = readClientMessage(bytes);
        expect((message === undefined) !== (error === undefined)).toBeTrue();
      }),
    );
  });
});
