import pino from 'pino';
import { Room as RoomRow, RoomSnapshot, Ruleset } from '../database/models.js';
import { Harness } from '../testing/harness.js';
import { RoomKeeper } from './keeper.js';
import type { Client } from './room.js';

describe('The keeper of rooms', () => {
  let harness: Harness;
  let keeper: RoomKeeper;
  const screen = (): Client => ({ seat: undefined, drives: false, congested: false, send: () => undefined });
  const until = async (holds: () => boolean) => {
    for (let i = 0; i < 500 && !holds(); i++) await new Promise((next) => setTimeout(next, 10));
    expect(holds()).toBeTrue();
  };

  beforeAll(async () => (harness = await Harness.start()));
  afterAll(() => harness.stop());
  beforeEach(() => {
    keeper = new RoomKeeper(
      RoomRow.sequelize!,
      pino({ level: 'silent' }),
      { tickSeconds: () => undefined, lateSeconds: () => undefined },
      20,
    );
  });
  afterEach(() => keeper.close());
  const newRoom = async () => (await keeper.create((await Ruleset.findOne())!)).id;

  it('opens a room for the first who comes, once, also when two come together', async () => {
    const id = await newRoom();
    expect(keeper.count).toBe(0);
    const [one, other] = await Promise.all([keeper.connect(id, screen()), keeper.connect(id, screen())]);
    expect(one).toBe(other!);
    expect(keeper.count).toBe(1);
  });

  it('runs it while somebody looks, lets it stand still after, and forgets it in the end', async () => {
    const id = await newRoom();
    const client = screen();
    const room = (await keeper.connect(id, client))!;
    const { tickNumber } = room;
    await until(() => room.tickNumber > tickNumber + 3);
    await keeper.disconnect(id, client);
    const stopped = room.tickNumber;
    await until(() => keeper.count === 0);
    expect(room.tickNumber).toBe(stopped);
    const again = screen();
    expect(await keeper.connect(id, again)).not.toBe(room);
  });

  it('does not forget a room that somebody came back to', async () => {
    const id = await newRoom();
    const client = screen();
    const room = await keeper.connect(id, client);
    await keeper.disconnect(id, client);
    expect(await keeper.connect(id, screen())).toBe(room);
    const { tickNumber } = room!;
    await until(() => room!.tickNumber > tickNumber + 5);
    expect(keeper.count).toBe(1);
  });

  it('opens a room as it was stored, also under rules that were edited meanwhile', async () => {
    const id = await newRoom();
    const client = screen();
    const room = (await keeper.connect(id, client))!;
    await until(() => room.tickNumber > 8);
    await keeper.disconnect(id, client);
    const stopped = room.tickNumber;
    await until(() => keeper.count === 0);
    const ruleset = (await Ruleset.findOne())!;
    await ruleset.update({ revision: ruleset.revision + 1 });
    const again = (await keeper.connect(id, screen()))!;
    expect(again).not.toBe(room);
    expect(again.tickNumber).toBeGreaterThan(stopped);
    expect(again.tickNumber).toBeLessThan(stopped + 5);
  });

  it('begins a room anew where what was stored of it can’t be read', async () => {
    const id = await newRoom();
    const client = screen();
    const room = (await keeper.connect(id, client))!;
    await until(() => room.tickNumber > 5);
    await keeper.disconnect(id, client);
    await until(() => keeper.count === 0);
    await RoomSnapshot.update({ world: Buffer.from('not a world') }, { where: { roomId: id } });
    const again = (await keeper.connect(id, screen()))!;
    expect(again.tickNumber).toBeLessThan(3);
  });

  it('knows no rooms that are not there', async () => {
    expect(await keeper.connect('no-room', screen())).toBeUndefined();
    expect(await keeper.describe('no-room')).toBeUndefined();
    await keeper.disconnect('no-room', screen());
  });
});
