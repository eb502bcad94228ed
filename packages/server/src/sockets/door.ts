import type { IncomingMessage } from 'node:http';
import { SUBPROTOCOL } from '@eager-ember/core';
import { Seat } from '../database/models.js';
import type { Hosts } from '../http/hosts.js';
import { isOwnOrigin, type Sessions } from '../http/sessions.js';
import { seatOfLink } from '../rooms/seat-links.js';

/** Sockets that are let in, or wait to be, at the same time. */
export const MOST_SOCKETS = {
  /** Of one address of the network, before anything is known of who it is. */
  address: 1000,
  /** That wait at the door, of one address. */
  waiting: 200,
  session: 64,
  link: 8,
} as const;

const PATH = /^\/ws\/rooms\/([a-z]+-[a-z]+(?:-\d+)?)$/;

/** Who stands at the door, and what they ask for. */
export interface Visitor {
  readonly room: string;
  readonly seat: string | undefined;
  readonly drives: boolean;
  /** The token of the join link that it comes by; undefined for who is signed in. */
  readonly link: string | undefined;
  /** The id of the session that it belongs to; undefined for who comes by a link. */
  readonly session: string | undefined;
  /** The id of the user that is signed in. */
  readonly user: string | undefined;
  /** Who comes in by one link or one session share a number of places. */
  readonly by: string;
  readonly most: number;
}

/** Says who stands at the door, or why they may not come in, as a status of HTTP. */
export async function admit(request: IncomingMessage, sessions: Sessions, hosts: Hosts): Promise<Visitor | number> {
  if (!hosts.allows(request.headers.host)) return 421;
  let url: URL;
  try {
    url = new URL(request.url ?? '/', 'http://localhost');
  } catch {
    return 400;
  }
  const room = PATH.exec(url.pathname)?.[1];
  if (room === undefined) return 404;
  if (!isOwnOrigin(request)) return 403;
  if (!(request.headers['sec-websocket-protocol'] ?? '').split(/,\s*/).includes(SUBPROTOCOL)) return 400;
  const token = url.searchParams.get('seat');
  if (token === null) {
    const session = await sessions.sessionOf(request);
    if (!session) return 401;
    const visitor = {
      room,
      link: undefined,
      session: session.id,
      user: session.userId,
      by: `session ${session.id}`,
      most: MOST_SOCKETS.session,
    };
    const beside = url.searchParams.get('beside');
    if (beside === null) return { ...visitor, seat: undefined, drives: false };
    const seat = await Seat.findOne({ where: { roomId: room, name: beside } });
    return seat ? { ...visitor, seat: seat.name, drives: false } : 404;
  }
  const seat = await seatOfLink(token, room);
  return seat
    ? {
        room,
        seat: seat.name,
        drives: true,
        link: token,
        session: undefined,
        user: undefined,
        by: `link ${token}`,
        most: MOST_SOCKETS.link,
      }
    : 401;
}

/** Counts who holds places: of each name only so many at a time. */
export class Places {
  private readonly taken = new Map<string, number>();

  /** Takes a place. Returns what gives it back, once; undefined where there is none left. */
  take(name: string, most: number): (() => void) | undefined {
    const before = this.taken.get(name) ?? 0;
    if (before >= most) return undefined;
    this.taken.set(name, before + 1);
    let held = true;
    return () => {
      if (!held) return;
      held = false;
      const left = this.taken.get(name)! - 1;
      if (left === 0) this.taken.delete(name);
      else this.taken.set(name, left);
    };
  }
}
