import pino from 'pino';
import { Room as RoomRow, RoomSnapshot, Ruleset } from '../database/models.js';
import { Harness } from '../testing/harness.js';
import { TestTime } from '../testing/test-time.js';
import { ASLEEP_MS, RoomKeeper } from './keeper.js';
import type { Client } from './room.js';

describe('The keeper of rooms', () => {
  let harness: Harness;
  let keeper: RoomKeeper;
  let time: TestTime;
  const screen = (): Client => ({ seat: undefined, drives: false, congested: false, send: () => undefined });

  beforeAll(async () => (harness = await Harness.start()));
  afterAll(() => harness.stop());
  beforeEach(() => {
    time = new TestTime();
    keeper = new RoomKeeper(
      RoomRow.sequelize!,
      pino({ level: 'silent' }),
      { tickSeconds: () => undefined, lateSeconds: () => undefined },
      time,
    );
  });
  afterEach(() => keeper.close());
  const newRoom = async () => (await keeper.create((await Ruleset.findOne())!)).id;
  /** Has somebody look at a room for ten ticks, and leave. */
  const visited = async (id: string) => {
    const client = screen();
    const room = (await keeper.connect(id, client))!;
    const began = room.tickNumber;
    time.pass(500);
    await keeper.disconnect(id, client);
    expect(room.tickNumber).toBe(began + 10);
    return room;
  };

  it('opens a room for the first who comes, once, also when two come together', async () => {
    const id = await newRoom();
    expect(keeper.count).toBe(0);
    const [one, other] = await Promise.all([keeper.connect(id, screen()), keeper.connect(id, screen())]);
    expect(one).toBe(other!);
    expect(keeper.count).toBe(1);
  });

  it('runs it while somebody looks, lets it stand still after, and forgets it in the end', async () => {
    const id = await newRoom();
    const room = await visited(id);
    const { tickNumber } = room;
    time.pass(ASLEEP_MS - 1);
    expect([room.tickNumber, keeper.count]).toEqual([tickNumber, 1]);
    time.pass(1);
    expect([room.tickNumber, keeper.count]).toEqual([tickNumber, 0]);
    expect(await keeper.connect(id, screen())).not.toBe(room);
  });

  it('does not forget a room that somebody came back to', async () => {
    const id = await newRoom();
    const room = await visited(id);
    const { tickNumber } = room;
    expect(await keeper.connect(id, screen())).toBe(room);
    time.pass(ASLEEP_MS);
    expect(keeper.count).toBe(1);
    expect(room.tickNumber).toBeGreaterThan(tickNumber);
  });

  it('opens a room as it was stored, also under rules that were edited meanwhile', async () => {
    const id = await newRoom();
    const room = await visited(id);
    time.pass(ASLEEP_MS);
    const ruleset = (await Ruleset.findOne())!;
    await ruleset.update({ revision: ruleset.revision + 1 });
    const again = (await keeper.connect(id, screen()))!;
    expect(again).not.toBe(room);
    expect(again.tickNumber).toBeGreaterThanOrEqual(room.tickNumber);
    expect(again.tickNumber).toBeLessThan(room.tickNumber + 3);
  });

  it('begins a room anew where what was stored of it can’t be read', async () => {
    const id = await newRoom();
    const room = await visited(id);
    time.pass(ASLEEP_MS);
    await RoomSnapshot.update({ world: Buffer.from('not a world') }, { where: { roomId: id } });
    const again = (await keeper.connect(id, screen()))!;
    expect(again.tickNumber).toBeLessThan(room.tickNumber - 8);
  });

  it('knows no rooms that are not there', async () => {
    expect(await keeper.connect('no-room', screen())).toBeUndefined();
    expect(await keeper.describe('no-room')).toBeUndefined();
    await keeper.disconnect('no-room', screen());
  });
});
