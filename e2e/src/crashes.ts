import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { attributesTable, Copy, encodeMessage, readServerMessage, stocksTable, SUBPROTOCOL, tracksTable } from '@eager-ember/core';
import { WebSocket } from 'ws';
import { startPostgres } from '../../scripts/lib/postgres.mjs';
import { freePort } from '../../scripts/lib/run.mjs';
import { Running } from './served.js';

/** How long a state is waited for: longer than any machine needs. */
const PATIENCE_MS = 120_000;

/** What one piece of work gives, and what a purchase costs: all of either follows from one event. */
const [PAY, XP, PRICE] = [10, 5, 7];
/** What a piece of brass brings on the market, and what a lamp costs in the shop: scrip, and brass. */
const [BRASS_PAYS, LAMP_COSTS, LAMP_BRASS] = [3, 4, 1];
const COUNTERS = ['scrip', 'earned', 'bought', 'brass', 'lamps'];

/** A ruleset of rewards, purchases and levels in which every sum can be checked against the others. */
const LEDGER = {
  format: 'eager-ember/ruleset',
  version: 2,
  name: 'Ledger',
  tickRate: 20,
  attributes: COUNTERS.map((id) => ({ id, label: id, kind: 'counter', see: 'everyone' })),
  tracks: [{ id: 'standing', label: 'Standing', levels: 200, needs: 20, see: 'everyone' }],
  quests: [
    {
      id: 'work',
      label: 'Work',
      offered: [{ by: 'start' }],
      repeats: 'always',
      steps: [
        {
          id: 'do',
          label: 'Do it',
          goals: [{ id: 'once', line: 'Done', on: { on: 'attributeChanged', attribute: 'scrip', how: 'give' } }],
        },
      ],
      then: [
        { do: 'give', attribute: 'scrip', amount: PAY },
        { do: 'give', attribute: 'earned', amount: 1 },
        { do: 'award', track: 'standing', amount: XP },
        { do: 'drop', table: 'haul' },
      ],
    },
  ],
  interactions: [
    {
      id: 'buy',
      label: 'Buy',
      prompt: 'Buy',
      reach: 500,
      serves: 'each',
      price: { attribute: 'scrip', amount: PRICE },
      then: [{ do: 'give', attribute: 'bought', amount: 1 }],
    },
  ],
  actors: [
    { id: 'diver', label: 'Diver', kind: 'player', attributes: COUNTERS.map((attribute) => ({ attribute })) },
    { id: 'broker', label: 'Broker', kind: 'character', interactions: ['buy'] },
  ],
  loot: [{ id: 'haul', label: 'Haul', entries: [{ id: 'brass', weight: 1, gives: 'brass' }] }],
  economy: { currency: 'scrip' },
  markets: [{ id: 'quay', label: 'Quay', goods: [{ good: 'brass', price: { range: [BRASS_PAYS, BRASS_PAYS] } }] }],
  shops: [{ id: 'yard', label: 'Yard', sells: ['lamp'] }],
  offers: [
    {
      id: 'lamp',
      label: 'Lamp',
      costs: [
        { attribute: 'scrip', amount: LAMP_COSTS },
        { attribute: 'brass', amount: LAMP_BRASS },
      ],
      gets: [{ attribute: 'lamps', amount: 1 }],
      stock: 1_000_000,
    },
  ],
  arena: { width: 400, height: 400, starts: [{ x: 100, y: 100 }], placed: [{ actor: 'broker', x: 150, y: 100 }] },
};

interface Sums {
  readonly tick: number;
  readonly scrip: number;
  readonly earned: number;
  readonly bought: number;
  readonly level: number;
  readonly brass: number;
  readonly lamps: number;
  /** Lamps that the shop has sold, as its stock says. */
  readonly sold: number;
}

/** A screen that asks for work and purchases, and remembers what it was told when. */
class Worker {
  private copy: Copy | undefined;
  private row = -1;
  private n = 0;
  /** What was told, tick by tick, since the last that was told to be stored. */
  private told: Sums[] = [];
  /** The last state that was told to be stored. */
  stored: Sums | undefined;
  now: Sums | undefined;

  private constructor(private readonly socket: WebSocket) {
    socket.binaryType = 'nodebuffer';
    socket.on('message', (data: Buffer) => this.hear(new Uint8Array(data)));
    socket.on('error', () => undefined);
  }

  static async open(url: string, room: string, query: string, cookie: string): Promise<Worker> {
    const headers = { origin: url, cookie };
    const worker = new Worker(new WebSocket(`${url.replace('http', 'ws')}/ws/rooms/${room}${query}`, SUBPROTOCOL, { headers }));
    await until('the room tells something', () => worker.now !== undefined);
    return worker;
  }

  private hear(bytes: Uint8Array): void {
    const heard = readServerMessage(bytes);
    if ('frame' in heard) {
      if (!this.copy?.applyDecoded(heard.frame)) return;
      this.send({ t: 'ack', frame: this.copy.frame });
      const values = this.copy.entries(attributesTable);
      const [scrip, earned, bought, brass, lamps] = COUNTERS.map((id) => values.value(this.row, id) ?? 0);
      const { sold = 0 } = this.copy.of(stocksTable).all()[0] ?? {};
      const level = this.copy.entries(tracksTable).value(this.row, 'standing', 'level') ?? 0;
      this.now = { tick: this.copy.tick, scrip, earned, bought, level, brass, lamps, sold };
      this.told.push(this.now);
    } else if (heard.message.t === 'welcome') {
      this.copy = new Copy(heard.message.schema);
      this.row = heard.message.row ?? 0;
    } else if (heard.message.t === 'stored') {
      const { tick } = heard.message;
      this.stored = this.told.filter((sums) => sums.tick <= tick).at(-1) ?? this.stored;
      this.told = this.told.filter((sums) => sums.tick > tick);
    }
  }

  private send(message: Parameters<typeof encodeMessage>[0]): void {
    if (this.socket.readyState === WebSocket.OPEN) this.socket.send(encodeMessage(message));
  }

  ask(input: { do: string; [argument: string]: unknown }): void {
    this.send({ t: 'input', n: ++this.n, input });
  }

  poke(action: { do: string; [argument: string]: unknown }): void {
    this.send({ t: 'poke', seat: 'north', action });
  }

  close(): void {
    this.socket.terminate();
  }
}

const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

async function until(what: string, holds: () => boolean): Promise<void> {
  for (const end = Date.now() + PATIENCE_MS; !holds(); await pause(25))
    if (Date.now() > end) throw new Error(`Waited in vain until ${what}`);
}

export interface CrashReport {
  readonly kills: number;
  readonly earned: number;
  readonly bought: number;
  readonly level: number;
  /** What was wrong after which kill; nothing where all is well. */
  readonly faults: readonly string[];
  /** Pieces of work that were done and not yet told to be stored when the server was killed, in all. */
  readonly undone: number;
}

/**
 * Works, buys and levels in a room while its server is killed again and again at a random moment. After each restart nothing
 * that was told to be stored may be missing, nothing may be there twice, and all sums have to agree with each other.
 */
export async function surviveCrashes(kills: number, seed: number, note: (text: string) => void = () => undefined): Promise<CrashReport> {
  const home = mkdtempSync(join(tmpdir(), 'ember-crash-'));
  chmodSync(home, 0o755);
  const cluster = await startPostgres(home, { durable: true });
  const faults: string[] = [];
  let state = seed >>> 0;
  const roll = (n: number) => ((state = (Math.imul(state, 1_103_515_245) + 12_345) >>> 0) >>> 8) % n;
  let asked = 0;
  let undone = 0;
  const port = await freePort();
  let server = await Running.on(cluster.url, port);
  try {
    const { id: ruleset } = await server.post<{ id: string }>('/api/rulesets', { document: LEDGER });
    const room = await server.post<{ id: string; seats: { join: string }[] }>('/api/rooms', { ruleset, seats: 1, players: 'saved' });
    const token = room.seats[0].join.split('/').at(-1)!;
    let last: Sums | undefined;
    for (let kill = 1; kill <= kills; kill++) {
      const truth = await Worker.open(server.url, room.id, '', server.cookie);
      const north = await Worker.open(server.url, room.id, `?seat=${token}`, server.cookie);
      if (last && north.now!.tick < last.tick)
        faults.push(`kill ${kill - 1}: tick ${north.now!.tick} is before ${last.tick}, which was stored`);
      for (const fault of check(north.now!, last, asked)) faults.push(`kill ${kill - 1}: ${fault}`);
      // However slow the machine is: what was bought is stored before all of it ends.
      const end = Date.now() + 250 + roll(1200);
      while (Date.now() < end || !north.stored?.bought) {
        const what = roll(5);
        if (what === 0) north.ask({ do: 'acceptQuest', quest: 'work' });
        else if (what === 1) {
          asked++;
          truth.poke({ do: 'finishQuest', quest: 'work' });
        } else if (what === 2) north.ask({ do: 'interact' });
        else if (what === 3) north.ask({ do: 'buy', offer: 'lamp' });
        else north.ask({ do: 'sell', good: 'brass', amount: 1 });
        await pause(5 + roll(30));
      }
      const gone = new Promise((done) => server.process.once('exit', done));
      server.process.kill('SIGKILL');
      await gone;
      last = north.stored ?? last;
      undone += north.now!.earned - (last?.earned ?? 0);
      for (const worker of [truth, north]) worker.close();
      note(
        `${kill}: stored at tick ${last?.tick ?? 0}, ${last?.earned ?? 0} earned, ${last?.bought ?? 0} bought, ${last?.lamps ?? 0} lamps`,
      );
      server = await Running.on(cluster.url, port);
    }
    const end = await Worker.open(server.url, room.id, `?seat=${token}`, server.cookie);
    for (const fault of check(end.now!, last, asked)) faults.push(`kill ${kills}: ${fault}`);
    end.close();
    const { earned, bought, level } = end.now!;
    return { kills, earned, bought, level, faults, undone };
  } finally {
    server.process.kill('SIGKILL');
    cluster.stop('immediate');
    rmSync(home, { recursive: true, force: true });
  }
}

/** What does not add up in a state, or is less than what was stored before. */
function check(now: Sums, before: Sums | undefined, asked: number): readonly string[] {
  const faults: string[] = [];
  // Each piece of work brings one of brass; what is neither there nor in a lamp was sold.
  const gone = now.earned - now.brass - LAMP_BRASS * now.lamps;
  const scrip = PAY * now.earned - PRICE * now.bought - LAMP_COSTS * now.lamps + BRASS_PAYS * gone;
  if (gone < 0) faults.push(`${now.brass} brass and ${now.lamps} lamps of ${now.earned} pieces of work`);
  if (now.scrip !== scrip) faults.push(`${now.scrip} scrip, where all that came in and went out leaves ${scrip}`);
  if (now.sold !== now.lamps) faults.push(`${now.lamps} lamps, where the shop has sold ${now.sold}`);
  const level = Math.min(200, 1 + Math.floor((XP * now.earned) / 20));
  if (now.level !== level) faults.push(`level ${now.level}, where ${now.earned} pieces of work make ${level}`);
  if (now.earned > asked) faults.push(`${now.earned} rewards for ${asked} pieces of work`);
  for (const sum of ['earned', 'bought', 'level', 'lamps'] as const)
    if (before && now[sum] < before[sum]) faults.push(`${sum} is ${now[sum]}, and ${before[sum]} was stored`);
  return faults;
}
