import { findHead } from '../database/rulesets.js';
import { compileRuleset, readServerMessage } from '@eager-ember/core';
import pino from 'pino';
import { ConnectionError } from 'sequelize';
import { Room as RoomRow, RoomSnapshot, Ruleset } from '../database/models.js';
import { desk, Harness } from '../testing/harness.js';
import { TestTime } from '../testing/test-time.js';
import { ASLEEP_MS, AwakeRoom } from './awake-room.js';
import { AwakeRooms, TwoWorlds } from './awake-rooms.js';
import { PlayersElsewhere } from '../errors.js';
import { RoomKeeper } from './keeper.js';
import type { Client, Goodbye } from './client.js';
import { Room } from './room.js';
import { NotHeld, RoomHold } from './room-hold.js';
import { describeRoom } from './seat-links.js';

/** A screen without a socket: of who is signed in, or of who has a link. */
class Visitor implements Client {
  readonly drives = false;
  readonly congested = false;
  readonly troubles: string[] = [];
  goodbye: Goodbye | undefined;

  constructor(
    readonly seat: string | undefined = undefined,
    readonly link: string | undefined = undefined,
  ) {}

  send(bytes: Uint8Array): void {
    const heard = readServerMessage(bytes);
    if ('message' in heard && heard.message.t === 'trouble') this.troubles.push(heard.message.message);
  }

  dismiss(goodbye: Goodbye): void {
    this.goodbye = goodbye;
  }
}

const log = pino({ level: 'silent' });
const measures = { tickSeconds: () => undefined, lateSeconds: () => undefined };

describe('The keeper of rooms', () => {
  let harness: Harness;
  let keeper: RoomKeeper;
  let time: TestTime;
  let ruleset: Ruleset;

  beforeAll(async () => (harness = await Harness.start()));
  afterAll(() => harness.stop());
  beforeEach(async () => {
    time = new TestTime();
    keeper = new RoomKeeper(RoomRow.sequelize!, desk, log, measures, time);
    const { document } = (await Ruleset.findOne({ order: [['createdAt', 'ASC']] }))!;
    ruleset = await Ruleset.create({ name: 'Untouched', document, revision: 1 });
  });
  afterEach(() => keeper.close());
  const newRoom = async (of = keeper) => (await of.create(await findHead(ruleset.id), { players: 'saved' })).id;
  /** Waits until all is done that has been begun with the rooms of the ruleset. */
  const settled = () => keeper.leases.withPlayers(ruleset.id, [], async () => undefined);
  /** Has somebody look at a room for ten ticks, and leave. */
  const visited = async (id: string) => {
    const client = new Visitor();
    const awake = (await keeper.connect(id, client))!;
    const began = awake.room.tickNumber;
    time.pass(500);
    await awake.disconnect(client);
    expect(awake.room.tickNumber).toBe(began + 10);
    return awake;
  };
  const asleep = async () => {
    time.pass(ASLEEP_MS);
    await settled();
  };

  it('opens a room for the first who comes, once, also when two come together', async () => {
    const id = await newRoom();
    expect(keeper.count).toBe(0);
    const [one, other] = await Promise.all([keeper.connect(id, new Visitor()), keeper.connect(id, new Visitor())]);
    expect(one).toBe(other!);
    expect(keeper.count).toBe(1);
  });

  it('runs it while somebody looks, lets it stand still after, and forgets it in the end', async () => {
    const id = await newRoom();
    const awake = await visited(id);
    const { tickNumber } = awake.room;
    time.pass(ASLEEP_MS - 1);
    await settled();
    expect([awake.room.tickNumber, keeper.count]).toEqual([tickNumber, 1]);
    time.pass(1);
    await settled();
    expect([awake.room.tickNumber, keeper.count]).toEqual([tickNumber, 0]);
    expect(await keeper.connect(id, new Visitor())).not.toBe(awake);
  });

  it('does not forget a room that somebody came back to, nor one that was woken since', async () => {
    const [one, other] = [await newRoom(), await newRoom()];
    const before = await visited(one);
    // The other room has the same players: the first one ends for it, while ten minutes have not gone by.
    time.pass(1000);
    const there = new Visitor();
    const beside = (await keeper.connect(other, there))!;
    await beside.disconnect(there);
    const back = new Visitor();
    const after = (await keeper.connect(one, back))!;
    expect(after).not.toBe(before);
    const { tickNumber } = after.room;
    await asleep();
    expect(await keeper.connect(one, new Visitor('north'))).toBe(after);
    expect([keeper.count, back.goodbye]).toEqual([1, undefined]);
    expect(after.room.tickNumber).toBeGreaterThan(tickNumber);
    expect(before.room.tickNumber).toBeLessThan(tickNumber);
  });

  it('stores of a room what has changed, beside the world as it was stored whole, and opens it from both', async () => {
    const id = await newRoom();
    const client = new Visitor();
    const { room } = (await keeper.connect(id, client))!;
    const stored = async () => {
      time.pass(1000);
      await keeper.stored(ruleset.id);
      const { world, changes, tick } = (await RoomSnapshot.findByPk(id))!;
      return { world: world.toString('hex'), changes: changes?.length ?? 0, tick };
    };
    const first = await stored();
    const [second, third] = [await stored(), await stored()];
    expect([second.world, third.world]).toEqual([first.world, first.world]);
    expect(third.changes).toBeGreaterThan(0);
    expect(third.changes).toBeLessThan(first.world.length / 4);
    expect(third.tick).toBeGreaterThan(second.tick);
    const { hash } = room;
    await keeper.asleep((await RoomRow.findByPk(id))!, { message: 'It sleeps.', how: 'later' }, async () => undefined);
    const hold = (await RoomHold.take(RoomRow.sequelize!, log, (await RoomRow.findByPk(id))!))!;
    const rules = compileRuleset(ruleset.document);
    const { world } = await hold.read(rules, ruleset.revision, async () => rules);
    expect([world!.hash(), world!.tick]).toEqual([hash, room.tickNumber]);
  });

  it('opens a room as it was stored, also under rules that were edited meanwhile', async () => {
    const id = await newRoom();
    const { room } = await visited(id);
    await asleep();
    await ruleset.update({ revision: ruleset.revision + 1 });
    const { room: again } = (await keeper.connect(id, new Visitor()))!;
    expect(again).not.toBe(room);
    expect(again.tickNumber).toBeGreaterThanOrEqual(room.tickNumber);
    expect(again.tickNumber).toBeLessThan(room.tickNumber + 3);
  });

  it('begins a room anew where what was stored of it can’t be read, and stores it from there on', async () => {
    const id = await newRoom();
    const { room } = await visited(id);
    await asleep();
    await RoomSnapshot.update({ world: Buffer.from('not a world') }, { where: { roomId: id } });
    const again = (await keeper.connect(id, new Visitor()))!;
    expect(again.room.tickNumber).toBeLessThan(room.tickNumber - 8);
    await again.save();
    expect((await RoomSnapshot.findByPk(id))!.tick).toBe(again.room.tickNumber);
  });

  it('knows no rooms that are not there', async () => {
    expect(await keeper.connect('no-room', new Visitor())).toBeUndefined();
    expect(await describeRoom('no-room')).toBeUndefined();
  });

  it('refuses at once who wants a player that plays elsewhere, and lets nobody wait for it', async () => {
    const [one, other] = [await newRoom(), await newRoom()];
    const there = (await keeper.connect(one, new Visitor()))!;
    const asked = await Promise.allSettled(Array.from({ length: 60 }, () => keeper.connect(other, new Visitor('north', 'a link'))));
    for (const answer of asked) expect(answer).toEqual(jasmine.objectContaining({ reason: jasmine.any(PlayersElsewhere) }));
    // Not a moment has passed.
    expect(time.now()).toBe(0);
    expect(await keeper.connect(one, new Visitor('south', 'another'))).toBe(there);
  });

  it('has guests make way for who is signed in, and who is signed in for nobody', async () => {
    const [one, other] = [await newRoom(), await newRoom()];
    const guest = new Visitor('north', 'a link');
    const first = (await keeper.connect(one, guest))!;
    time.pass(100);
    const second = (await keeper.connect(other, new Visitor()))!;
    expect(guest.goodbye).toEqual({ message: `Room ${other} plays north and south now.`, how: 'later' });
    expect(first.room.watched).toBeFalse();
    await expectAsync(keeper.connect(one, new Visitor('north', 'a link'))).toBeRejectedWithError(PlayersElsewhere);
    await expectAsync(keeper.leases.withPlayers(ruleset.id, ['south'], async () => undefined)).toBeRejectedWithError(PlayersElsewhere);
    expect(second.ready).toBeTrue();
  });

  it('works on players whom only guests play, and lets them go on after', async () => {
    const id = await newRoom();
    const guest = new Visitor('north', 'a link');
    await keeper.connect(id, guest);
    const awake = await keeper.leases.withPlayers(ruleset.id, ['north'], () => Promise.resolve(keeper.count));
    expect([awake, guest.goodbye?.message]).toEqual([0, 'north is changed from outside; the room goes on in a moment.']);
    expect((await keeper.connect(id, guest))!.ready).toBeTrue();
  });

  it('says that the database is away, once, plays on, and says when it is back and all is kept', async () => {
    const visitor = new Visitor();
    const awake = (await keeper.connect(await newRoom(), visitor))!;
    const gone = spyOn(RoomRow.sequelize!, 'transaction').and.rejectWith(new ConnectionError(new Error('it is away')));
    for (let n = 0; n < 4; n++) {
      time.pass(500);
      await awake.save();
    }
    expect(visitor.troubles).toEqual([jasmine.stringContaining('You can play on; what happens from here on is kept once it is back.')]);
    gone.and.callThrough();
    time.pass(500);
    await awake.save();
    expect(visitor.troubles.slice(1)).toEqual(['']);
    expect((await RoomSnapshot.findByPk(awake.id))!.tick).toBe(awake.room.tickNumber);
  });

  it('slows a room that takes more than its share, and has it stand still in the end; others keep their time', async () => {
    const [greedy, other] = [new Visitor(), new Visitor()];
    const awake = (await keeper.connect(await newRoom(), greedy))!;
    const { document } = ruleset;
    ruleset = await Ruleset.create({ name: 'Another', document, revision: 1 });
    const beside = (await keeper.connect(await newRoom(), other))!;
    const tick = spyOn(awake.room, 'tick').and.callFake(() => time.take(40));
    const began = beside.room.tickNumber;
    time.pass(5000);
    expect(greedy.troubles).toEqual(['This room asks more of the server than its share, and runs slower than it should.']);
    // Three tenths of a core, and what was saved up.
    expect(tick.calls.count() * 40).toBeLessThan(5000 * 0.3 + 400);
    expect(beside.room.tickNumber - began).toBeGreaterThan(90);
    time.pass(30_000);
    expect(greedy.troubles.at(-1)).toContain('stands still. Change its rules, then set it going again.');
    const calls = tick.calls.count();
    time.pass(5000);
    expect([tick.calls.count(), awake.room.ticksPerSecond]).toEqual([calls, 0]);
    tick.and.callThrough();
    awake.room.run(1);
    time.pass(1000);
    expect([greedy.troubles.at(-1), tick.calls.count() > calls + 18, other.troubles]).toEqual(['', true, []]);
  });

  it('slows no room for what else the machine has to do', async () => {
    const visitor = new Visitor();
    const { room } = (await keeper.connect(await newRoom(), visitor))!;
    const tick = spyOn(room, 'tick').and.callFake(() => time.take(40, 5));
    time.pass(30_000);
    expect(visitor.troubles).toEqual([]);
    expect([tick.calls.count() > 550, room.ticksPerSecond]).toEqual([true, 20]);
  });

  it('keeps a room awake that can’t be stored, until it can', async () => {
    const awake = await visited(await newRoom());
    const visitor = new Visitor();
    awake.connect(visitor);
    time.pass(100);
    const gone = spyOn(RoomRow.sequelize!, 'transaction').and.rejectWith(new ConnectionError(new Error('it is away')));
    await awake.disconnect(visitor);
    await asleep();
    expect([awake.ready, keeper.count]).toEqual([true, 1]);
    gone.and.callThrough();
    await asleep();
    expect([awake.ready, keeper.count]).toEqual([false, 0]);
  });

  it('tells who is there that the server stops, and has nothing run on', async () => {
    const visitor = new Visitor();
    const awake = (await keeper.connect(await newRoom(), visitor))!;
    await keeper.close();
    const { tickNumber } = awake.room;
    time.pass(1000);
    expect([visitor.goodbye?.how, keeper.count, awake.room.tickNumber]).toEqual(['stopping', 0, tickNumber]);
  });

  describe('never has two worlds of one room', () => {
    const woken = async (all: AwakeRooms, row: RoomRow) => {
      const rules = compileRuleset(ruleset.document);
      const room = new Room(row.id, { rules, rulesetId: ruleset.id, revision: 1 }, row.seed, [], new Map());
      const hold = (await RoomHold.take(RoomRow.sequelize!, log, row))!;
      return new AwakeRoom(room, hold, { all, time, measures, log, forgotten: () => undefined });
    };

    it('in one process: the second one is refused', async () => {
      const all = new AwakeRooms();
      const row = await keeper.create(await findHead(ruleset.id), { players: 'saved' });
      const one = await woken(all, row);
      await expectAsync(woken(all, row)).toBeRejectedWithError(TwoWorlds, `Room ${row.id} is awake already, and was to be woken again.`);
      one.abandon({ message: '', how: 'later' });
      const other = await woken(all, row);
      // Whoever goes takes along nobody but itself.
      one.abandon({ message: '', how: 'later' });
      expect(all.holds(other)).toBeTrue();
      other.abandon({ message: '', how: 'later' });
    });

    it('in two: who woke it last has it, and the other one ends', async () => {
      const id = await newRoom();
      const before = new Visitor();
      const old = (await keeper.connect(id, before))!;
      time.pass(2000);
      await old.save();
      const another = new RoomKeeper(RoomRow.sequelize!, desk, log, measures, new TestTime());
      const now = (await another.connect(id, new Visitor()))!;
      expect(now.room.tickNumber).toBeGreaterThanOrEqual(old.room.tickNumber);
      await now.save();
      time.pass(2000);
      await old.save();
      expect([before.goodbye?.how, old.ready, keeper.count]).toEqual(['later', false, 0]);
      expect((await RoomSnapshot.findByPk(id))!.tick).toBe(now.room.tickNumber);
      await another.close();
    });

    it('and what is stored never goes back', async () => {
      const row = await keeper.create(await findHead(ruleset.id), { players: 'saved' });
      const { room } = (await keeper.connect(row.id, new Visitor()))!;
      const earlier = room.snapshot();
      time.pass(1000);
      const later = room.snapshot();
      await keeper.close();
      const hold = (await RoomHold.take(RoomRow.sequelize!, log, row))!;
      // What it follows is not what stands there: somebody has written meanwhile.
      await expectAsync(hold.write(earlier, [])).toBeRejectedWithError(NotHeld);
      await hold.read(compileRuleset(ruleset.document), 1, async (_, document) => compileRuleset(document));
      await hold.write(later, []);
      expect((await RoomSnapshot.findByPk(row.id))!.tick).toBe(later.tick);
      await row.destroy();
      await expectAsync(hold.write(later, [])).toBeRejectedWithError(NotHeld);
    });
  });
});
