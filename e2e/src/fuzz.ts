import { once } from 'node:events';
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { encodeMessage, readRuleset, SUBPROTOCOL, World } from '@eager-ember/core';
import { WebSocket } from 'ws';
import { drawn, mutated } from '../../packages/core/src/testing/mutations.js';
import { startPostgres } from '../../scripts/lib/postgres.mjs';
import { freePort } from '../../scripts/lib/run.mjs';
import { Running } from './served.js';
import { demo } from './trial.js';

/** How much is sent, and drawn from which seed. */
export interface Fuzz {
  readonly messages: number;
  readonly bodies: number;
  readonly rulesets: number;
  readonly seed: number;
}

export interface FuzzReport {
  /** What should not have been; nothing where all is well. */
  readonly faults: readonly string[];
  /** Of the rulesets, how many were sound and were played. */
  readonly played: number;
  /** How long the other room was at most without a frame, in milliseconds. */
  readonly longestSilence: number;
  /** The memory of the server before and after, in megabytes. */
  readonly memory: readonly [number, number];
}

/** Ticks that a sound ruleset is played for. */
const TICKS = 200;
/** Messages that are sent in one go; the server hears at most 200 a second of one socket. */
const AT_ONCE = 40;
const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

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

/** A message that is wrong, or only odd; now and then bytes that are none. */
function message(draw: () => number): Uint8Array {
  const whole = MESSAGES[Math.floor(draw() * MESSAGES.length)];
  const bytes = encodeMessage(mutated(whole, Math.floor(draw() * 2 ** 31), 3) as never);
  const how = draw();
  if (how < 0.1) return bytes.slice(0, Math.floor(draw() * bytes.length));
  if (how < 0.2) bytes[Math.floor(draw() * bytes.length)] = Math.floor(draw() * 256);
  return bytes;
}

/** A room's socket. */
async function enter(server: Running, room: string, query: string, signedIn: boolean): Promise<WebSocket | undefined> {
  const headers = { origin: server.url, ...(signedIn && { cookie: server.cookie }) };
  const socket = new WebSocket(`${server.url.replace('http', 'ws')}/ws/rooms/${room}${query}`, SUBPROTOCOL, { headers });
  socket.on('error', () => undefined);
  const [how] = (await Promise.race([once(socket, 'open').then(() => ['open']), once(socket, 'close').then(() => ['closed'])])) as [string];
  return how === 'open' ? socket : undefined;
}

async function sendMessages(server: Running, room: string, seat: string, count: number, draw: () => number): Promise<void> {
  let socket: WebSocket | undefined;
  for (let sent = 0; sent < count; sent += AT_ONCE) {
    if (socket?.readyState !== WebSocket.OPEN) {
      const signedIn = draw() < 0.5;
      socket = await enter(server, room, signedIn ? '' : `?seat=${seat}`, signedIn);
    }
    for (let n = 0; n < AT_ONCE && socket?.readyState === WebSocket.OPEN; n++) socket.send(message(draw));
    await pause(2);
  }
  socket?.terminate();
}

async function sendBodies(server: Running, ruleset: string, room: string, count: number, draw: () => number): Promise<string[]> {
  const faults: string[] = [];
  const documents: readonly [string, string, unknown][] = [
    ['POST', '/api/rulesets', { document: demo() }],
    [
      'PATCH',
      `/api/rulesets/${ruleset}`,
      [
        { op: 'replace', path: '/attributes/0/max', value: 7 },
        { op: 'copy', from: '/arena', path: '/a' },
      ],
    ],
    ['PUT', `/api/rulesets/${ruleset}/players/north`, { saved: { attributes: { scrip: 3 }, tracks: { 'standing.level': 2 } } }],
    ['POST', '/api/rooms', { ruleset, seats: 2, party: ['north'] }],
    ['POST', `/api/rooms/${room}/seats/east/link`, {}],
  ];
  for (let sent = 0; sent < count; sent++) {
    // Whole rulesets are large: one in eight is enough of them.
    const [method, path, body] = documents[sent % 8 === 0 ? 0 : 1 + Math.floor(draw() * (documents.length - 1))];
    const text = JSON.stringify(mutated(body, Math.floor(draw() * 2 ** 31)));
    const broken = draw() < 0.05 ? text.slice(0, Math.floor(draw() * text.length)) : text;
    const answer = await fetch(server.url + path, {
      method,
      headers: { ...server.headers, 'if-match': '"1"' },
      body: broken,
    });
    const said = await answer.text();
    if (answer.status >= 500) faults.push(`${method} ${path}: ${answer.status} ${said.slice(0, 200)} for ${broken.slice(0, 300)}`);
    // Requests are limited by the minute; that is not what is tried here.
    if (answer.status === 429) await pause(1000);
  }
  return faults;
}

/** Reads spoiled rulesets, and plays those that are sound all the same. Returns how many were. */
function playRulesets(count: number, draw: () => number, faults: string[]): number {
  const document = demo();
  let played = 0;
  for (let n = 0; n < count; n++) {
    const seed = Math.floor(draw() * 2 ** 31);
    try {
      const { rules, problems } = readRuleset(mutated(document, seed, 2));
      if (problems.some(({ message: text }) => text.includes('a mistake of ours'))) faults.push(`ruleset ${seed}: ${problems[0].message}`);
      if (!rules) continue;
      const world = World.start(rules, seed);
      world.step(['north', 'south'].map((seat) => ({ kind: 'join', args: { seat } })));
      for (let tick = 0; tick < TICKS; tick++) world.step([]);
      played++;
    } catch (error) {
      faults.push(`ruleset ${seed}: ${String((error as Error).stack).slice(0, 400)}`);
    }
  }
  return played;
}

const megabytes = ({ process: { pid } }: Running) =>
  Math.round(Number(/^VmRSS:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024);

/**
 * Sends a server what it should not be sent: spoiled messages to one room, spoiled bodies to all its addresses, and reads
 * spoiled rulesets. Meanwhile somebody watches another room. Nothing may throw, answer by 500, or hold up that room.
 */
export async function fuzz(
  { messages, bodies, rulesets, seed }: Fuzz,
  note: (text: string) => void = () => undefined,
): Promise<FuzzReport> {
  const home = mkdtempSync(join(tmpdir(), 'ember-fuzz-'));
  chmodSync(home, 0o755);
  const cluster = await startPostgres(home, { durable: false });
  const server = await Running.on(cluster.url, await freePort());
  const draw = drawn(seed);
  const faults: string[] = [];
  let died = false;
  server.process.once('exit', () => (died = true));
  try {
    const opened = async () => {
      const { id } = await server.post<{ id: string }>('/api/rulesets', { document: demo() });
      const room = await server.post<{ id: string; seats: { join: string }[] }>('/api/rooms', { ruleset: id, seats: 4 });
      return { ruleset: id, room: room.id, seat: room.seats[0].join.split('/').at(-1)! };
    };
    const [target, calm] = [await opened(), await opened()];
    const watcher = (await enter(server, calm.room, `?seat=${calm.seat}`, false))!;
    let last = performance.now();
    let longestSilence = 0;
    watcher.on('message', () => {
      longestSilence = Math.max(longestSilence, performance.now() - last);
      last = performance.now();
    });
    watcher.on('close', () => died || faults.push('the room that nobody touched was closed'));
    await once(watcher, 'message');
    const before = megabytes(server);
    await sendMessages(server, target.room, target.seat, messages, draw);
    note(`${messages} messages sent`);
    faults.push(...(await sendBodies(server, target.ruleset, target.room, bodies, draw)));
    note(`${bodies} bodies sent`);
    const after = died ? 0 : megabytes(server);
    if (died) faults.push('the server died');
    else if ((await fetch(`${server.url}/healthz`)).status !== 200) faults.push('the server does not answer any more');
    watcher.removeAllListeners('close');
    watcher.terminate();
    const silence = longestSilence;
    const played = playRulesets(rulesets, draw, faults);
    note(`${rulesets} rulesets read, ${played} played`);
    return { faults, played, longestSilence: silence, memory: [before, after] };
  } finally {
    if (!died) {
      const gone = once(server.process, 'exit');
      server.process.kill('SIGTERM');
      await gone;
    }
    cluster.stop('immediate');
    rmSync(home, { recursive: true, force: true, maxRetries: 10, retryDelay: 200 });
  }
}
