import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { encodeMessage, readServerMessage, SUBPROTOCOL } from '@eager-ember/core';
import { WebSocket } from 'ws';
import { Workbench } from '../../e2e/src/workbench.js';
import { largeRuleset } from './large-ruleset.js';
import { rounded, type Row } from './measure.js';

/** A room has four seats at most. */
const [SEATS, HERTZ, SECONDS] = [4, 20, 20];
const brinewick = JSON.parse(readFileSync(new URL('../../examples/brinewick.json', import.meta.url), 'utf8')) as object;
const pause = (seconds: number) => new Promise((done) => setTimeout(done, seconds * 1000));

/** Seconds of processor time that a process has used so far, in all its threads. */
function processorTime(pid: number): number {
  // The fields behind the name, which may have blanks in it: the 12th and 13th are user and system time, in hundredths.
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8')
    .replace(/^.*\) /, '')
    .split(' ');
  return (Number(fields[11]) + Number(fields[12])) / 100;
}

/** Ticks so far, and those of them that came within so many seconds of their time. */
async function lateness(url: string, cookie: string): Promise<{ readonly all: number; within(seconds: string): number }> {
  const text = await (await fetch(`${url}/metrics`, { headers: { cookie } })).text();
  const count = (of: string) => Number(new RegExp(`^ember_tick_late_seconds${of} (\\d+)`, 'm').exec(text)?.[1] ?? 0);
  return { all: count('_count'), within: (seconds) => count(`_bucket\\{le="${seconds}"\\}`) };
}

/** A seat that is played: it answers for the frames that it is told, and swims to and fro. What they say it leaves unread: a hundred of them share one core here. */
class Player {
  private asked = 0;
  bytes = 0;
  private readonly socket: WebSocket;
  readonly seated: Promise<void>;

  constructor(url: string, room: string, token: string) {
    this.socket = new WebSocket(`${url.replace('http', 'ws')}/ws/rooms/${room}?seat=${token}`, SUBPROTOCOL, { headers: { origin: url } });
    this.seated = new Promise((done, fail) => {
      this.socket.on('error', fail);
      this.socket.on('message', (data: Buffer) => {
        this.bytes += data.length;
        const heard = readServerMessage(new Uint8Array(data));
        if (!('frame' in heard)) return;
        const [frame] = heard.frame as readonly number[];
        this.socket.send(encodeMessage({ t: 'ack', frame }));
        done();
      });
    });
  }

  swim(turn: number): void {
    const [x, y] = [Math.cos(turn), Math.sin(turn)];
    this.socket.send(encodeMessage({ t: 'input', n: ++this.asked, input: { do: 'move', x, y } }));
  }

  leave(): void {
    this.socket.terminate();
  }
}

/** Sends as many bytes as often to as many sockets, and hears as many answers: what no server of seats can do without. */
const BARE = `
  const { WebSocketServer } = require('ws');
  const [size, hertz] = process.argv.slice(1).map(Number);
  const server = new WebSocketServer({ port: 0, host: '127.0.0.1' }, () => console.log(server.address().port));
  server.on('connection', (socket) => socket.on('message', () => undefined));
  const bytes = Buffer.alloc(size, 7);
  setInterval(() => server.clients.forEach((socket) => socket.send(bytes)), 1000 / hertz);
`;

/** What share of a core a server takes that only sends. */
async function bare(size: number, seats: number): Promise<number> {
  const server = spawn(process.execPath, ['-e', BARE, String(size), String(HERTZ)], { stdio: ['ignore', 'pipe', 'inherit'] });
  const port = await new Promise<string>((done) => server.stdout.once('data', (data: Buffer) => done(String(data).trim())));
  const sockets = Array.from({ length: seats }, () => new WebSocket(`ws://127.0.0.1:${port}`));
  await Promise.all(sockets.map((socket) => new Promise((done) => socket.once('message', done))));
  for (const socket of sockets) socket.on('message', () => socket.send('acknowledged'));
  await pause(1);
  const before = processorTime(server.pid!);
  await pause(SECONDS / 2);
  const used = processorTime(server.pid!) - before;
  for (const socket of sockets) socket.terminate();
  server.kill('SIGKILL');
  return used / (SECONDS / 2);
}

/** What is run: a ruleset, and how often it is edited meanwhile. */
interface Load {
  readonly rooms: number;
  readonly document: object;
  readonly named: string;
  /** Seconds from one edit to the next; 0 for none. */
  readonly editEvery: number;
}

/** Seats that are all played by guests, in rooms of four of one ruleset, in one process with its database. */
async function roomsOf({ rooms, document, named, editEvery }: Load): Promise<Row> {
  const workbench = await Workbench.start();
  try {
    const { url, cookie } = workbench;
    const ask = async <T>(method: string, path: string, body: object, more: Record<string, string> = {}): Promise<T> => {
      const headers = { cookie, 'x-eager-ember': '1', 'content-type': 'application/json', ...more };
      const response = await fetch(url + path, { method, headers, body: JSON.stringify(body) });
      if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`);
      return (await response.json()) as T;
    };
    const { id: ruleset } = await ask<{ id: string }>('POST', '/api/rulesets', { document });
    const players: Player[] = [];
    for (let n = 0; n < rooms; n++) {
      const room = { ruleset, seats: SEATS, players: 'guests' };
      const { id, seats } = await ask<{ id: string; seats: readonly { join: string }[] }>('POST', '/api/rooms', room);
      players.push(...seats.map(({ join }) => new Player(url, id, join.split('/').at(-1)!)));
    }
    await Promise.all(players.map(({ seated }) => seated));
    let turn = 0;
    const swimming = setInterval(() => players.forEach((player, i) => player.swim(i + turn++)), 1000);
    await pause(3);
    const began = performance.now();
    const before = { time: processorTime(workbench.pid), late: await lateness(url, cookie) };
    for (const player of players) player.bytes = 0;
    let revision = 1;
    if (editEvery === 0) await pause(SECONDS);
    else
      for (let n = 0; n < SECONDS / editEvery; n++) {
        await pause(editEvery);
        const patch = [{ op: 'add', path: '/attributes/0/refill', value: { rate: n % 2 === 0 ? 1 : 2 } }];
        ({ revision } = await ask<{ revision: number }>('PATCH', `/api/rulesets/${ruleset}`, patch, { 'if-match': `"${revision}"` }));
      }
    const seconds = (performance.now() - began) / 1000;
    const share = (processorTime(workbench.pid) - before.time) / seconds;
    const bytes = players.reduce((sum, player) => sum + player.bytes, 0);
    const after = await lateness(url, cookie);
    clearInterval(swimming);
    for (const player of players) player.leave();
    const ticks = after.all - before.late.all;
    const within = (bound: string) => ((100 * (after.within(bound) - before.late.within(bound))) / ticks).toFixed(1);
    const reference = await bare(Math.round(bytes / (players.length * HERTZ * seconds)), players.length);
    return {
      what: `${rooms * SEATS} seats at ${HERTZ} Hz in ${rooms} rooms of ${named}, one process`,
      value: rounded(share * 100),
      reference: rounded(reference * 100),
      unit: '% of one core',
      referenceIs: 'a bare server that sends as many bytes as often to as many sockets',
      ratio: `${(share / reference).toFixed(1)}x; of ${ticks} ticks ${within('0.01')} % within 10 ms of their time, ${within('0.05')} % within 50 (${Math.round(ticks / (rooms * seconds))} a second and room)`,
      reach: 'at most 60 % of one core, 99 % within 10 ms, for 200 seats in 25 rooms',
    };
  } finally {
    await workbench.stop();
  }
}

/** Rooms of the demo, and rooms of a ruleset of a real game's size: as many, and so few that there is time left, edited or not. */
export async function manyRooms(): Promise<readonly Row[]> {
  const large = largeRuleset(brinewick, 2000, 7);
  const loads: readonly Load[] = [
    { rooms: 25, document: brinewick, named: 'the demo', editEvery: 0 },
    { rooms: 25, document: large, named: 'a ruleset of 2,000 entries, edited every 2 s', editEvery: 2 },
    { rooms: 5, document: large, named: 'a ruleset of 2,000 entries', editEvery: 0 },
    { rooms: 5, document: large, named: 'a ruleset of 2,000 entries, edited every second', editEvery: 1 },
  ];
  const rows: Row[] = [];
  for (const load of loads) rows.push(await roomsOf(load));
  return rows;
}
