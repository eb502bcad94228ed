import { actorOfSeat, compileRuleset, Publisher, wireSchemaOf, World } from '@eager-ember/core';
import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { FakeSocket } from '../testing/fake-socket';
import { hudOf } from './display';
import { RoomLink } from './room-link';
import { SeatState } from './seat-state';

describe('A link to a room', () => {
  const real = window.WebSocket;
  let link: RoomLink;
  let shutFor = '';
  const socket = () => FakeSocket.all.at(-1)!;
  const welcome = (seat?: string) => socket().welcome(wireSchemaOf(compileRuleset(brinewick), true), seat ? { seat } : {});

  beforeEach(() => {
    jasmine.clock().install();
    FakeSocket.all.length = 0;
    window.WebSocket = FakeSocket as never;
    shutFor = '';
    link = new RoomLink(RoomLink.address('slate-heron'), () => Promise.resolve(shutFor));
    socket().onopen?.();
  });
  afterEach(() => {
    link.close();
    window.WebSocket = real;
    jasmine.clock().uninstall();
  });

  it('has an address for the truth, for a seat beside it, and for who comes by a join link', () => {
    const of = (seat?: Parameters<typeof RoomLink.address>[1]) => new URL(RoomLink.address('slate-heron', seat)).search;
    expect([of(), of({ beside: 'north' }), of({ token: 'abc' })]).toEqual(['', '?beside=north', '?seat=abc']);
  });

  it('shows a seat nothing before the first frame: a welcome alone tells of nobody', () => {
    const world = World.start(compileRuleset(brinewick), 1);
    world.step([{ kind: 'join', args: { seat: 'north' } }]);
    const actor = actorOfSeat(world, 'north');
    const publisher = new Publisher(world);
    publisher.capture();
    const seat = new SeatState(link);
    const painted = () => [seat.paint(undefined), seat.shows, seat.shown(hudOf) !== undefined];
    expect(painted()).toEqual([false, false, false]);
    socket().welcome(wireSchemaOf(world.rules), { row: world.actors.rowOf(actor) });
    expect(painted()).toEqual([false, false, false]);
    socket().take(publisher.frameFor({ actor, team: 0 }, 0));
    expect(painted()).toEqual([true, true, true]);
  });

  it('says why it can’t be in the room now, and tries less and less often until it is let in', () => {
    const opened: number[] = [];
    for (let n = 0; n < 4; n++) {
      socket().hear({ t: 'later', message: 'north plays elsewhere.' });
      socket().onclose?.();
      expect([link.state(), link.lostWords()]).toEqual(['lost', 'north plays elsewhere. Trying to get back …']);
      let waited = 0;
      for (const before = FakeSocket.all.length; FakeSocket.all.length === before; waited += 10) jasmine.clock().tick(10);
      opened.push(waited);
      socket().onopen?.();
    }
    expect(opened).toEqual([...opened].sort((a, b) => a - b));
    expect(opened[3]).toBeGreaterThan(opened[0] * 3);
    welcome();
    socket().onclose?.();
    expect(link.lostWords()).toBe('The connection to the room is lost. Trying to get back …');
    const before = FakeSocket.all.length;
    jasmine.clock().tick(310);
    expect(FakeSocket.all.length).toBe(before + 1);
  });

  it('says what is wrong with the room, and for a while that it is put right', () => {
    welcome();
    expect(link.word()).toBe('');
    socket().hear({ t: 'trouble', message: 'The database can’t be reached.' });
    expect(link.word()).toBe('The database can’t be reached.');
    socket().hear({ t: 'trouble', message: '' });
    expect(link.word()).toBe('That is over: the room runs as it should, and all that happened is saved.');
    link.tick.set(3.5 * link.copy!.schema.tickRate);
    expect(link.word()).toBe('');
    socket().hear({ t: 'trouble', message: 'Again.' });
    socket().onclose?.();
    expect(link.word()).toBe('');
  });

  it('forgets what a seat was told over an earlier connection: it is counted anew', () => {
    const item = { serial: 1, tick: 3, event: 'abilityUsed', cause: 0, who: 'north', text: 'north uses torch', refusal: false, data: {} };
    const told = (seat?: string) => {
      socket().onopen?.();
      welcome(seat);
      socket().hear({ t: 'news', items: [item] });
      // The rules were edited: the same connection goes on.
      welcome(seat);
      return link.news().length;
    };
    const again = () => {
      socket().onclose?.();
      jasmine.clock().tick(10_000);
    };
    expect(told('north')).toBe(1);
    again();
    expect(told('north')).toBe(1);
    again();
    expect(told()).toBe(2);
  });

  it('does not come back where there is nothing to come back to', () => {
    socket().hear({ t: 'error', message: 'This room was closed.', final: true });
    jasmine.clock().tick(10_000);
    expect([link.state(), link.recentComplaint(), FakeSocket.all.length]).toEqual(['closed', 'This room was closed.', 1]);
  });

  it('asks why it is refused at the door, and stays away where that is for good', async () => {
    const refuse = async () => {
      jasmine.clock().tick(10_000);
      const tried = FakeSocket.all.length;
      socket().onclose?.();
      await Promise.resolve();
      await Promise.resolve();
      jasmine.clock().tick(10_000);
      return FakeSocket.all.length - tried;
    };
    socket().onclose?.();
    expect([await refuse(), link.state()]).toEqual([1, 'lost']);
    shutFor = 'You are signed out.';
    expect([await refuse(), link.state(), link.recentComplaint()]).toEqual([0, 'closed', 'You are signed out.']);
  });
});
