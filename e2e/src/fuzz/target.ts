import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { SUBPROTOCOL } from '@eager-ember/core';
import { WebSocket } from 'ws';
import type { Running } from '../served.js';

export const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

/** A room of a ruleset of its own. */
export interface Target {
  readonly ruleset: string;
  readonly room: string;
  /** The tokens of its seats' join links. */
  readonly seats: readonly string[];
}

/** Makes a ruleset, and opens a room of it. @throws where the server refuses it */
export async function opened(server: Running, document: unknown, seats: number): Promise<Target> {
  const { id } = await server.post<{ id: string }>('/api/rulesets', { document });
  const room = await server.post<{ id: string; seats: { join: string }[] }>('/api/rooms', { ruleset: id, seats, players: 'saved' });
  return { ruleset: id, room: room.id, seats: room.seats.map(({ join }) => join.split('/').at(-1)!) };
}

/** Enters a room: by a seat's link, or without one as who is signed in. Undefined where the server does not let it in. */
export async function enter(server: Running, room: string, seat?: string): Promise<WebSocket | undefined> {
  const headers = { origin: server.url, ...(seat === undefined && { cookie: server.cookie }) };
  const query = seat === undefined ? '' : `?seat=${seat}`;
  const socket = new WebSocket(`${server.url.replace('http', 'ws')}/ws/rooms/${room}${query}`, SUBPROTOCOL, { headers });
  socket.on('error', () => undefined);
  const [how] = (await Promise.race([once(socket, 'open').then(() => ['open']), once(socket, 'close').then(() => ['closed'])])) as [string];
  return how === 'open' ? socket : undefined;
}

/** What a server's process holds in memory, in megabytes. */
export const megabytes = ({ process: { pid } }: Running) =>
  Math.round(Number(/^VmRSS:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024);

/** What goes wrong, and how far it is. */
export interface Log {
  fault(text: string): void;
  /** Called with how much of a part is done, from 0 to 1. */
  reached(share: number): void;
}
