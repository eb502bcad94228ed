import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import { encodeMessage, readClientMessage, SUBPROTOCOL } from '@eager-ember/core';
import type { Logger } from 'pino';
import { WebSocket, WebSocketServer } from 'ws';
import { Seat } from '../database/models.js';
import { isOwnOrigin, type Sessions } from '../http/sessions.js';
import { PlayersElsewhere, type RoomKeeper } from './keeper.js';
import type { Client, Room } from './room.js';

/** A client may say this much a second; frames are acknowledged twenty times a second, the rest is inputs. */
const MOST_MESSAGES_A_SECOND = 200;
/** Frames are left out while more than this waits to be sent to a client. */
const CONGESTED_BYTES = 256 * 1024;
/** Longest message that is read at all, to be told that it is too long. */
const MOST_BYTES_READ = 4 * 1024 * 1024;
/** How often a client is asked whether it is still there; who has not answered by the next time is let go of. */
const HEARTBEAT_MS = 15_000;
const PATH = /^\/ws\/rooms\/([a-z]+-[a-z]+(?:-\d+)?)$/;

/** What an upgrade asks for. */
interface Door {
  readonly room: string;
  readonly seat: string | undefined;
  readonly drives: boolean;
}

/** Puts the rooms' sockets on a server. Nothing is opened for a page of another origin, or for who may not be there. */
export function attachSockets(server: Server, keeper: RoomKeeper, sessions: Sessions, log: Logger): WebSocketServer {
  const sockets = new WebSocketServer({
    noServer: true,
    // What is larger is cut off by the library without a word; up to here a client is told why.
    maxPayload: MOST_BYTES_READ,
    handleProtocols: (offered) => (offered.has(SUBPROTOCOL) ? SUBPROTOCOL : false),
  });
  server.on('upgrade', (request: IncomingMessage, socket: Duplex, head: Buffer) => {
    admit(request, sessions)
      .then((door) => {
        if (typeof door === 'number') return refuse(socket, door);
        sockets.handleUpgrade(request, socket, head, (ws) => void serve(ws, door, keeper, log));
      })
      .catch((error: unknown) => {
        log.warn({ err: error }, 'a socket could not be opened');
        refuse(socket, 503);
      });
  });
  return sockets;
}

const REASONS: Readonly<Record<number, string>> = {
  400: 'Bad Request',
  401: 'Unauthorized',
  403: 'Forbidden',
  404: 'Not Found',
  503: 'Service Unavailable',
};

function refuse(socket: Duplex, status: number): void {
  socket.end(`HTTP/1.1 ${status} ${REASONS[status]}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`);
}

async function admit(request: IncomingMessage, sessions: Sessions): Promise<Door | number> {
  const url = new URL(request.url ?? '/', 'http://localhost');
  const room = PATH.exec(url.pathname)?.[1];
  if (room === undefined) return 404;
  if (!isOwnOrigin(request)) return 403;
  if (!(request.headers['sec-websocket-protocol'] ?? '').split(/,\s*/).includes(SUBPROTOCOL)) return 400;
  const token = url.searchParams.get('seat');
  if (token === null) return (await sessions.userOf(request)) === undefined ? 401 : { room, seat: undefined, drives: false };
  const seat = await Seat.findOne({ where: { roomId: room, token } });
  if (!seat) return 401;
  return { room, seat: seat.name, drives: url.searchParams.get('shown') !== 'beside' };
}

async function serve(ws: WebSocket, { room: id, seat, drives }: Door, keeper: RoomKeeper, log: Logger): Promise<void> {
  const client: Client = {
    seat,
    drives,
    send: (bytes) => ws.readyState === WebSocket.OPEN && ws.send(bytes),
    get congested() {
      return ws.bufferedAmount > CONGESTED_BYTES;
    },
  };
  const close = (message: string) => {
    client.send(encodeMessage({ t: 'error', message, final: true }));
    ws.close(1008, message.slice(0, 120));
  };
  // Messages that come before the room is open wait for it.
  const opening = keeper.connect(id, client);
  // Who goes before the room is open has to be let go of all the same, once it is.
  ws.on('close', () => void opening.catch(() => undefined).then(() => keeper.disconnect(id, client)));
  ws.on('error', (error) => log.debug({ err: error, room: id }, 'socket error'));
  let answered = true;
  ws.on('pong', () => (answered = true));
  const heart = setInterval(() => {
    if (!answered) return ws.terminate();
    answered = false;
    ws.ping();
  }, HEARTBEAT_MS);
  heart.unref();
  ws.on('close', () => clearInterval(heart));
  const flood = { second: 0, count: 0 };
  ws.on('message', (data: Buffer, isBinary) => {
    const second = Math.floor(performance.now() / 1000);
    if (flood.second !== second) Object.assign(flood, { second, count: 0 });
    if (++flood.count > MOST_MESSAGES_A_SECOND) return close(`More than ${MOST_MESSAGES_A_SECOND} messages a second are too many.`);
    if (!isBinary) return close('Messages are binary MessagePack; this one was text.');
    const { message, error } = readClientMessage(new Uint8Array(data));
    if (!message) return close(error);
    void opening
      .catch(() => undefined)
      .then(
        (room) => room && hear(room, client, message, (text) => client.send(encodeMessage({ t: 'error', message: text, final: false }))),
      );
  });
  try {
    if (!(await opening)) close('There is no such room any more.');
  } catch (error) {
    if (error instanceof PlayersElsewhere) return close(error.message);
    log.warn({ err: error, room: id }, 'a room could not be opened');
    close('The room can’t be opened at the moment: the database can’t be reached.');
  }
}

type Heard = NonNullable<ReturnType<typeof readClientMessage>['message']>;

function hear(room: Room, client: Client, message: Heard, complain: (text: string) => void): void {
  const problem = answer(room, client, message);
  if (problem !== undefined) complain(problem);
}

function answer(room: Room, client: Client, message: Heard): string | undefined | void {
  switch (message.t) {
    case 'ack':
      return room.acknowledge(client, message.frame);
    case 'input':
      return room.input(client, message.n, message.input);
    case 'poke':
      return room.poke(client, message);
    case 'why':
      return room.why(client, message);
    case 'abilities':
      return room.abilities(client, message);
    case 'pace':
      return room.pace(client, message);
  }
}
