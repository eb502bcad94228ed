import { readSnapshot, type SavedPlayer, savedProblems, storeSnapshot, World } from '../../index.js';
import { Trial, join } from '../rulesets.js';
import room from './room.json' with { type: 'json' };
import { RecordedDigest } from './digest.js';
import { RECORDED_SEATS, RecordedSession, STORED_AT, Told } from './session.js';
import recorded from './told.json' with { type: 'json' };

const bytesOf = (base64: string) => Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
const players = (of: unknown) => of as Readonly<Record<string, SavedPlayer>>;

describe('A session that was recorded with version 0.10.0', () => {
  let session: RecordedSession;
  beforeEach(() => (session = new RecordedSession()));

  it('comes to the same worlds, and tells seats the same to the byte', () => {
    const told = new Told(session);
    const came: unknown[] = [];
    while (session.world.tick < session.length) {
      told.tell(session.step());
      const { world } = session;
      if (world.tick % 100 === 0) came.push([world.tick, RecordedDigest.of(world), ...told.digests()]);
    }
    expect(came).toEqual(recorded);
  });

  it('has a stored room from which it goes on to the same end', () => {
    while (session.world.tick < STORED_AT) session.step();
    const hash = session.world.hash();
    session.world = World.restore(session.rules, readSnapshot(bytesOf(room.world)));
    expect(session.world.hash()).toBe(hash);
    while (session.world.tick < session.length) session.step();
    expect(RecordedDigest.of(session.world)).toBe(recorded[recorded.length - 1][1] as string);
  });

  it('has a stored room that is the same when it is stored again, as it is stored today', () => {
    const world = World.restore(session.rules, readSnapshot(bytesOf(room.world)));
    const stored = storeSnapshot(world.snapshot());
    const again = World.restore(session.rules, readSnapshot(stored));
    expect(storeSnapshot(again.snapshot())).toEqual(stored);
    expect(RecordedDigest.of(again)).toEqual(RecordedDigest.of(world));
  });

  it('keeps of its players what was kept of them', () => {
    while (session.world.tick < STORED_AT) session.step();
    expect(Object.fromEntries(RECORDED_SEATS.map((seat) => [seat, session.savedOf(seat)]))).toEqual(players(room.saved));
  });

  for (const seat of RECORDED_SEATS)
    it(`has ${seat} come back with what was kept of them`, () => {
      const saved = players(room.saved)[seat];
      expect(savedProblems(session.rules, saved, true)).toEqual([]);
      session.world = new Trial(session.rules, [join(seat, { saved })]).world;
      expect(session.savedOf(seat)).toEqual(players(room.back)[seat]);
    });
});
