import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import { encodeMessage, readClientMessage, type ServerMessage, SUBPROTOCOL } from '@eager-ember/core';
import type { Logger } from 'pino';
import { WebSocket, WebSocketServer } from 'ws';
import type { Hosts } from '../http/hosts.js';
import type { Sessions } from '../http/sessions.js';
import type { AwakeRoom } from '../rooms/awake-room.js';
import { admit, MOST_SOCKETS, Places, type Visitor } from './door.js';
import type { Trail } from '../trail/trail.js';
import { PlayersElsewhere } from '../errors.js';
import type { RoomKeeper } from '../rooms/keeper.js';
import type { Client, Goodbye } from '../rooms/client.js';
import type { Room } from '../rooms/room.js';
import { seatOfLink } from '../rooms/seat-links.js';

/** A client may say this much a second; frames are acknowledged twenty times a second, the rest is inputs. */
const MOST_MESSAGES_A_SECOND = 200;
/** Frames are left out while more than this waits to be sent to a client. */
const CONGESTED_BYTES = 256 * 1024;
/** A client that has not taken in this much of what was sent to it has gone, or does not want it. */
const STUCK_BYTES = 8 * 1024 * 1024;
/** Longest message that is read at all, to be told that it is too long. */
const MOST_BYTES_READ = 4 * 1024 * 1024;
/** How often a client is asked whether it is still there; who has not answered by the next time is let go of. */
const HEARTBEAT_MS = 15_000;

/** What sockets need of the server that they are put on. */
export interface SocketParts {
  readonly keeper: RoomKeeper;
  readonly sessions: Sessions;
  readonly hosts: Hosts;
  readonly trail: Trail;
  readonly log: Logger;
  /** The address of the network that a request comes from. */
  readonly addressOf: (request: IncomingMessage) => string;
}

/** Puts the rooms' sockets on a server. Nothing is opened for a page of another origin, or for who may not be there. */
export function attachSockets(server: Server, parts: SocketParts): WebSocketServer {
  const { log } = parts;
  const sockets = new WebSocketServer({
    noServer: true,
    // What is larger is cut off by the library without a word; up to here a client is told why.
    maxPayload: MOST_BYTES_READ,
    handleProtocols: (offered) => (offered.has(SUBPROTOCOL) ? SUBPROTOCOL : false),
  });
  const places = new Places();
  const open = new Map<string, Set<Client>>();
  parts.sessions.onEnd((session) => {
    for (const client of open.get(session) ?? []) client.dismiss(SIGNED_OUT);
  });
  // From its first moment on: an error that nobody listens for ends the process.
  server.on('connection', (socket) => socket.on('error', (error) => log.debug({ err: error }, 'a connection broke')));
  server.on('upgrade', (request: IncomingMessage, socket: Duplex, head: Buffer) => {
    socket.on('error', (error) => log.debug({ err: error }, 'a socket broke at the door'));
    const address = parts.addressOf(request);
    const leave = places.take(`address ${address}`, MOST_SOCKETS.address);
    const waiting = places.take(`waiting ${address}`, MOST_SOCKETS.waiting);
    socket.once('close', () => {
      leave?.();
      waiting?.();
    });
    if (!leave || !waiting) return refuse(socket, 429);
    admit(request, parts.sessions, parts.hosts)
      .then((visitor) => {
        if (typeof visitor === 'number') return refuse(socket, visitor);
        if (socket.destroyed) return;
        sockets.handleUpgrade(request, socket, head, (ws) => serve(ws, visitor, { places, open }, parts));
      })
      .catch((error: unknown) => {
        log.warn({ err: error }, 'a socket could not be opened');
        refuse(socket, 503);
      })
      .finally(waiting);
  });
  return sockets;
}

const REASONS: Readonly<Record<number, string>> = {
  400: 'Bad Request',
  401: 'Unauthorized',
  403: 'Forbidden',
  404: 'Not Found',
  421: 'Misdirected Request',
  429: 'Too Many Requests',
  503: 'Service Unavailable',
};

function refuse(socket: Duplex, status: number): void {
  if (socket.destroyed) return;
  socket.once('finish', () => socket.destroy());
  socket.end(`HTTP/1.1 ${status} ${REASONS[status]}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`);
}

/** Codes that a socket is closed with (RFC 6455, and the registry for 1013). */
const CODES = { later: 1013, stopping: 1001, final: 1008 } as const;

/** A message that says goodbye. */
const farewell = ({ message, how }: Goodbye): ServerMessage =>
  how === 'final' ? { t: 'error', message, final: true } : { t: 'later', message };

const SIGNED_OUT: Goodbye = { message: 'You are signed out.', how: 'final' };

/** Who is there. */
interface Present {
  readonly places: Places;
  /** The clients of each session. */
  readonly open: Map<string, Set<Client>>;
}

function serve(ws: WebSocket, visitor: Visitor, { places, open: present }: Present, parts: SocketParts): void {
  ws.on('error', (error) => parts.log.debug({ err: error, room: visitor.room }, 'socket error'));
  const { seat, drives, link } = visitor;
  const client: Client = {
    seat,
    drives,
    link,
    send(bytes) {
      if (ws.readyState !== WebSocket.OPEN) return;
      if (ws.bufferedAmount > STUCK_BYTES) ws.terminate();
      else ws.send(bytes);
    },
    get congested() {
      return ws.bufferedAmount > CONGESTED_BYTES;
    },
    dismiss(goodbye) {
      client.send(encodeMessage(farewell(goodbye)));
      // The reason has at most 123 bytes; letters may have three.
      ws.close(CODES[goodbye.how], goodbye.message.slice(0, 40));
    },
  };
  const place = places.take(visitor.by, visitor.most);
  if (!place)
    return client.dismiss({ message: `This room is open on ${visitor.most} screens by the same way. Close one of them.`, how: 'final' });
  ws.on('close', place);
  const opening = open(visitor, client, parts);
  // Who goes before the room is open has to be let go of all the same, once it is.
  ws.on('close', () => void opening.then((room) => room?.disconnect(client)));
  if (visitor.session !== undefined) endWith(ws, client, visitor.session, present);
  keepAlive(ws, () => stillIn(visitor, client, parts));
  listen(ws, client, opening, (room, poke) => {
    const { seat: whose, from, action } = poke;
    const about = { room: room.id, ...(whose !== undefined && { seat: whose }), ...(from !== undefined && { from }), action };
    parts.trail.note({ who: visitor.user ?? null, ruleset: room.rulesetId, what: 'poked', about });
  });
}

/** Has a client come into the room that it asks for; where it can't, it is told why and has to go. */
async function open(visitor: Visitor, client: Client, parts: SocketParts): Promise<AwakeRoom | undefined> {
  const { keeper, log } = parts;
  try {
    const room = await keeper.connect(visitor.room, client);
    if (!room) client.dismiss({ message: 'There is no such room any more.', how: 'final' });
    // What was ended while it was used opens nothing.
    else await stillIn(visitor, client, parts);
    return room;
  } catch (error) {
    if (error instanceof PlayersElsewhere) client.dismiss({ message: error.message, how: 'later' });
    else {
      log.warn({ err: error, room: visitor.room }, 'a room could not be opened');
      client.dismiss({ message: 'The room can’t be opened at the moment: the database can’t be reached.', how: 'later' });
    }
    return undefined;
  }
}

/** Has a client go when its session ends. */
function endWith(ws: WebSocket, client: Client, session: string, present: Present['open']): void {
  const clients = present.get(session) ?? new Set();
  present.set(session, clients.add(client));
  ws.on('close', () => {
    clients.delete(client);
    if (clients.size === 0 && present.get(session) === clients) present.delete(session);
  });
}

/** Has a client go whose session or link has run out, or was ended by another process. */
async function stillIn({ session, link, room }: Visitor, client: Client, { sessions, log }: SocketParts): Promise<void> {
  try {
    if (session !== undefined && !(await sessions.session(session))) client.dismiss(SIGNED_OUT);
    if (link !== undefined && !(await seatOfLink(link, room))) client.dismiss({ message: 'This join link was ended.', how: 'final' });
  } catch (error) {
    // Who is in stays in while the database can't be asked.
    log.debug({ err: error }, 'whether a session still lasts can’t be said');
  }
}

function keepAlive(ws: WebSocket, check: () => Promise<void>): void {
  let answered = true;
  ws.on('pong', () => (answered = true));
  const heart = setInterval(() => {
    if (!answered) return ws.terminate();
    answered = false;
    ws.ping();
    void check();
  }, HEARTBEAT_MS);
  heart.unref();
  ws.on('close', () => clearInterval(heart));
}

/** Reads what a client says. What is said before the room is open waits for it. */
function listen(ws: WebSocket, client: Client, opening: Promise<AwakeRoom | undefined>, poked: (room: Room, poke: Poke) => void): void {
  const flood = { second: 0, count: 0 };
  const close = (message: string) => client.dismiss({ message, how: 'final' });
  ws.on('message', (data: Buffer, isBinary) => {
    if (ws.readyState !== WebSocket.OPEN) return;
    const second = Math.floor(performance.now() / 1000);
    if (flood.second !== second) Object.assign(flood, { second, count: 0 });
    if (++flood.count > MOST_MESSAGES_A_SECOND) return close(`More than ${MOST_MESSAGES_A_SECOND} messages a second are too many.`);
    if (!isBinary) return close('Messages are binary MessagePack; this one was text.');
    const { message, error } = readClientMessage(new Uint8Array(data));
    if (!message) return close(error);
    void opening.then((awake) => {
      const problem = awake && answer(awake.room, client, message);
      if (awake && message.t === 'poke' && problem === undefined) poked(awake.room, message);
      if (problem !== undefined) client.send(encodeMessage({ t: 'error', message: problem, final: false }));
    });
  });
}

type Poke = Extract<Heard, { t: 'poke' }>;
type Heard = NonNullable<ReturnType<typeof readClientMessage>['message']>;

/** Has a room do what a client says. Returns what is wrong with it, or undefined. */
function answer(room: Room, client: Client, message: Heard): string | undefined {
  switch (message.t) {
    case 'ack':
      room.acknowledge(client, message.frame);
      return undefined;
    case 'input':
      return room.input(client, message.n, message.input);
    case 'poke':
      return room.poke(client, message);
    case 'pace':
      return room.pace(client, message);
    default:
      return room.answer(client, message);
  }
}
