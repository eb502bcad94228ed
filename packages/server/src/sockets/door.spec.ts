import { once } from 'node:events';
import { connect, type Socket } from 'node:net';
import { bodiesTable, SUBPROTOCOL } from '@eager-ember/core';
import { Seat } from '../database/models.js';
import { Harness, type RoomInfo, type Screen } from '../testing/harness.js';
import { MOST_SOCKETS, Places } from './door.js';

interface Link {
  readonly join: string | null;
  readonly until: string | null;
}

describe('The door of a room', () => {
  let harness: Harness;
  let room: RoomInfo;
  beforeAll(async () => (harness = await Harness.start()));
  afterAll(() => harness.stop());
  beforeEach(async () => (room = await harness.untouchedRoom()));

  const address = () => new URL(harness.server.url);
  /** A connection that asks for an upgrade by hand. */
  const knock = async (path: string, headers: Record<string, string> = {}): Promise<Socket> => {
    const { hostname, port, host, origin } = address();
    const socket = connect(Number(port), hostname);
    socket.on('error', () => undefined);
    await once(socket, 'connect');
    const all = {
      host,
      origin,
      connection: 'Upgrade',
      upgrade: 'websocket',
      'sec-websocket-version': '13',
      'sec-websocket-key': 'ZW1iZXJzIGFyZSBlYWdlcg==',
      'sec-websocket-protocol': SUBPROTOCOL,
      ...headers,
    };
    const lines = Object.entries(all).map(([name, value]) => `${name}: ${value}`);
    socket.write(`GET ${path} HTTP/1.1\r\n${lines.join('\r\n')}\r\n\r\n`);
    return socket;
  };
  const statusOf = async (path: string, headers: Record<string, string> = {}) => {
    const socket = await knock(path, headers);
    const [data] = (await once(socket, 'data')) as [Buffer];
    socket.destroy();
    return Number(/^HTTP\/1.1 (\d+)/.exec(data.toString())?.[1]);
  };
  const gone = (screen: Screen) => screen.until('it has to go', () => screen.closed !== undefined || screen.refused !== undefined);

  it('stands 2,000 connections that are reset in the middle, of own and foreign pages, while others play on', async () => {
    const [truth, north] = [harness.screen(room.id), harness.screen(room.id, room.seats[0].join)];
    await Promise.all([truth.ready(), north.ready()]);
    const path = `/ws/rooms/${room.id}`;
    const seat = `${path}?seat=${room.seats[1].join.split('/').at(-1)}`;
    const kinds: [string, Record<string, string>][] = [
      [path, {}],
      [path, { origin: 'http://elsewhere.invalid' }],
      [path, { cookie: harness.cookie }],
      [seat, {}],
      [seat, { origin: 'http://elsewhere.invalid' }],
    ];
    const { frame } = north.copy!;
    for (let wave = 0; wave < 40; wave++)
      await Promise.all(
        Array.from({ length: 50 }, async (_, n) => {
          const socket = await knock(...kinds[n % kinds.length]);
          // Now and then the answer is waited for: what breaks then is the open socket.
          if (n % 7 === 0) await Promise.race([once(socket, 'data'), once(socket, 'close')]);
          socket.resetAndDestroy();
        }),
      );
    expect([truth.closed, north.closed]).toEqual([undefined, undefined]);
    expect(north.copy!.frame).toBeGreaterThan(frame);
    expect((await harness.request('/healthz')).status).toBe(200);
    // All their places are given back.
    const south = harness.screen(room.id, room.seats[1].join);
    await south.ready();
    await Promise.all([truth, north, south].map((screen) => screen.close()));
  });

  it('answers by a status who may not come in', async () => {
    const path = `/ws/rooms/${room.id}`;
    const { cookie } = harness;
    expect(await statusOf('/ws/elsewhere', { cookie })).toBe(404);
    expect(await statusOf('//', { cookie })).toBe(400);
    expect(await statusOf(path, { cookie, 'sec-websocket-protocol': 'chat' })).toBe(400);
    expect(await statusOf(path, { cookie, origin: 'http://elsewhere.invalid' })).toBe(403);
    expect(await statusOf(path)).toBe(401);
    expect(await statusOf(`${path}?beside=nobody`, { cookie })).toBe(404);
    expect(await statusOf(path, { cookie })).toBe(101);
  });

  it('does not answer under names that it does not have', async () => {
    const { port } = address();
    const named = (host: string) => statusOf(`/ws/rooms/${room.id}`, { cookie: harness.cookie, host, origin: `http://${host}` });
    for (const host of ['harbour.invalid', `harbour.invalid:${port}`, '127.0.0.1.harbour.invalid', '127.0.0.1@harbour.invalid', ''])
      expect(await named(host))
        .withContext(host)
        .toBe(421);
    for (const host of ['localhost', `LOCALHOST:${port}`, `[::1]:${port}`])
      expect(await named(host))
        .withContext(host)
        .toBe(101);
  });

  it('shows a seat beside the truth to who is signed in, without its link', async () => {
    await harness.request(`/api/rooms/${room.id}/seats/north/link`, { method: 'DELETE' });
    const [truth, pane] = [harness.screen(room.id), harness.screen(`${room.id}?beside=north`)];
    await Promise.all([truth.ready(), pane.ready()]);
    expect(pane.welcome!.seat).toBe('north');
    expect(pane.welcome!.seats).toContain({ name: 'north', driven: false });
    pane.ask({ do: 'move', x: 1, y: 0 });
    await truth.until('it moves', () => truth.copy!.of(bodiesTable).row(pane.welcome!.row!).headingX === 1);
    await Promise.all([truth.close(), pane.close()]);
  });

  it('opens a seat by its link until that is renewed or ended, and has those go who came by it', async () => {
    const at = `/api/rooms/${room.id}/seats/north/link`;
    const [north, south] = room.seats.slice(0, 2).map(({ join }) => harness.screen(room.id, join));
    await Promise.all([north.ready(), south.ready()]);
    const renewed = await harness.json<Link>(at, { method: 'POST' });
    await gone(north);
    expect([north.closed, north.errors]).toEqual([1008, ['This join link was replaced by a new one. Ask for the new link.']]);
    const old = harness.screen(room.id, room.seats[0].join);
    await gone(old);
    expect([old.refused, (await fetch(`${harness.server.url}/api${room.seats[0].join}`)).status]).toEqual([401, 404]);
    const again = harness.screen(room.id, renewed.join!);
    await again.ready();
    expect(new Date(renewed.until!).getTime()).toBeGreaterThan(Date.now());
    expect(await harness.json<Link>(at, { method: 'DELETE' })).toEqual(jasmine.objectContaining({ join: null, until: null }));
    await gone(again);
    expect(again.errors).toEqual(['This join link was ended.']);
    expect(south.closed).toBeUndefined();
    expect((await harness.request(`/api/rooms/${room.id}/seats/nobody/link`, { method: 'POST' })).status).toBe(404);
    await south.close();
  });

  it('opens no seat by a link of another room, nor by one that has run out', async () => {
    const other = await harness.untouchedRoom();
    const stranger = harness.screen(other.id, room.seats[0].join);
    await gone(stranger);
    expect(stranger.refused).toBe(401);
    await Seat.update({ linkUntil: new Date(Date.now() - 1) }, { where: { roomId: room.id } });
    const late = harness.screen(room.id, room.seats[0].join);
    await gone(late);
    expect(late.refused).toBe(401);
    const { seats } = await harness.json<{ seats: Link[] }>(`/api/rooms/${room.id}`);
    expect(seats.map(({ join }) => join)).toEqual([null, null]);
  });

  it('ends the links of a room that is closed; what its players have is kept', async () => {
    const [truth, north] = [harness.screen(room.id), harness.screen(room.id, room.seats[0].join)];
    await Promise.all([truth.ready(), north.ready()]);
    truth.poke('north', { do: 'give', attribute: 'scrip', amount: 5 });
    await north.until('it is given', () => north.value('scrip') === 5);
    const { ruleset } = await harness.json<{ ruleset: string }>(`/api/rooms/${room.id}`);
    expect((await harness.request(`/api/rooms/${room.id}`, { method: 'DELETE' })).status).toBe(204);
    await Promise.all([truth, north].map(gone));
    expect(north.errors).toEqual(['This room was closed. What its players have is kept.']);
    expect((await fetch(`${harness.server.url}/api${room.seats[0].join}`)).status).toBe(404);
    expect((await harness.request(`/api/rooms/${room.id}`, { method: 'DELETE' })).status).toBe(404);
    const { saved } = await harness.json<{ saved: { attributes: { scrip: number } } }>(`/api/rulesets/${ruleset}/players/north`);
    expect(saved.attributes.scrip).toBe(5);
  });

  it('lets only so many in by one link', async () => {
    const screens = Array.from({ length: MOST_SOCKETS.link + 1 }, () => harness.screen(room.id, room.seats[0].join));
    await screens[0].until('one has to go', () => screens.some(({ closed }) => closed !== undefined));
    const [refused, ...more] = screens.filter(({ closed }) => closed !== undefined);
    expect([more.length, refused.errors[0]]).toEqual([0, 'This room is open on 8 screens by the same way. Close one of them.']);
    const left = screens.filter((screen) => screen !== refused);
    await Promise.all(left.map((screen) => screen.ready()));
    await left[0].close();
    const next = harness.screen(room.id, room.seats[0].join);
    await next.ready();
    await Promise.all([next, ...left.slice(1)].map((screen) => screen.close()));
  });

  it('tells everybody that the server stops, and lets them go by the code for it', async () => {
    const north = harness.screen(room.id, room.seats[0].join);
    await north.ready();
    await harness.restart();
    await gone(north);
    expect([north.closed, north.later]).toEqual([1001, 'The server stops. Your seat is kept; come back when it runs again.']);
  });
});

describe('Places', () => {
  it('are given to so many at a time, and given back once', () => {
    const places = new Places();
    const [one, other, none] = [1, 2, 3].map(() => places.take('a', 2));
    expect([none, places.take('b', 1)]).toEqual([undefined, jasmine.any(Function)]);
    one!();
    one!();
    expect([places.take('a', 2), places.take('a', 2)]).toEqual([jasmine.any(Function), undefined]);
    other!();
    expect(places.take('a', 2)).toBeDefined();
  });
});
