import { once } from 'node:events';
import { encodeMessage, readClientMessage } from '@eager-ember/core';
import { WebSocket } from 'ws';
import { drawn, mutated } from '../../../packages/core/src/testing/mutations.js';
import type { Running } from '../served.js';
import { enter, type Log, pause, type Target } from './target.js';

/** What a client may say, to be spoiled. */
const MESSAGES: readonly unknown[] = [
  { t: 'ack', frame: 3 },
  { t: 'input', n: 1, input: { do: 'move', x: 1, y: 0 } },
  { t: 'input', n: 2, input: { do: 'use', ability: 'sonarPing', x: 3, y: 4 } },
  { t: 'input', n: 3, input: { do: 'buy', offer: 'lamp' } },
  { t: 'poke', seat: 'north', from: 'south', action: { do: 'give', attribute: 'scrip', amount: 3 } },
  { t: 'poke', seat: 'north', action: { do: 'apply', effect: 'slipstream', to: { within: 50, of: 'self' } } },
  { t: 'why', row: 2, attribute: 'oxygen' },
  { t: 'abilities', row: 2 },
];
/** Messages that a socket sends before it rests: the server hears at most 200 a second of one. */
const AT_ONCE = 40;
const REST_MS = 250;
/** How long a server may take to close a socket that said what it does not understand. */
const PATIENCE_MS = 60_000;

/** A message that is wrong, or only odd; now and then bytes that are none. */
function message(draw: () => number): Uint8Array {
  const whole = MESSAGES[Math.floor(draw() * MESSAGES.length)];
  const bytes = encodeMessage(mutated(whole, Math.floor(draw() * 2 ** 31), 3) as never);
  const how = draw();
  if (how < 0.1) return bytes.slice(0, Math.floor(draw() * bytes.length));
  if (how < 0.2) bytes[Math.floor(draw() * bytes.length)] = Math.floor(draw() * 256);
  return bytes;
}

async function closed(socket: WebSocket): Promise<boolean> {
  if (socket.readyState === WebSocket.CLOSED) return true;
  const late = AbortSignal.timeout(PATIENCE_MS);
  return once(socket, 'close', { signal: late }).then(
    () => true,
    () => false,
  );
}

/** Sends spoiled messages, each on a socket that still hears: after one that the server can't read, it comes in anew. */
async function sendOne(
  server: Running,
  room: string,
  seat: string | undefined,
  count: number,
  draw: () => number,
  log: Log,
): Promise<void> {
  let socket: WebSocket | undefined;
  for (let sent = 0; sent < count; sent++) {
    while (socket?.readyState !== WebSocket.OPEN) {
      if (server.process.exitCode !== null) return log.fault('the server ended while messages were sent');
      socket = await enter(server, room, seat);
      if (!socket) await pause(REST_MS);
    }
    const bytes = message(draw);
    socket.send(bytes);
    const refused = readClientMessage(bytes).error;
    if (refused !== undefined && !(await closed(socket)))
      return log.fault(`a socket stayed open after a message of which is said: ${refused}`);
    if (sent % AT_ONCE === AT_ONCE - 1) await pause(REST_MS);
    log.reached((sent + 1) / count);
  }
  socket?.terminate();
}

/** Sends spoiled messages to a room, on sockets of all its seats and as many of who is signed in. */
export async function sendMessages(server: Running, { room, seats }: Target, count: number, draw: () => number, log: Log): Promise<void> {
  const from = seats.flatMap((seat) => [seat, undefined]);
  const shares = from.map(() => 0);
  await Promise.all(
    from.map((seat, n) =>
      sendOne(server, room, seat, Math.ceil(count / from.length), drawn(Math.floor(draw() * 2 ** 31)), {
        ...log,
        reached: (share) => {
          shares[n] = share;
          log.reached(Math.min(...shares));
        },
      }),
    ),
  );
}
