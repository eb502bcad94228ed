import { randomBytes } from 'node:crypto';
import { fileURLToPath } from 'node:url';
import {
  type Announcement,
  Copy,
  encodeMessage,
  readServerMessage,
  type ServerMessage,
  SUBPROTOCOL,
  type Welcome,
} from '@eager-ember/core';
import pino from 'pino';
import { Sequelize } from 'sequelize';
import { WebSocket } from 'ws';
import { readConfig } from '../config.js';
import { DraftingDesk } from '../drafts/desk.js';
import { type RunningServer, startServer } from '../server.js';
import { checkDescribed } from './described.js';

const DEMO = fileURLToPath(new URL('../../../core/src/testing/recorded/brinewick.json', import.meta.url));

/** Reads rulesets for all servers and rooms of a test run: its thread takes longer to start than most tests take. */
export const desk = new DraftingDesk();

/** How long a state is waited for: longer than any machine needs, so that what did not come is no matter of speed. */
const PATIENCE_MS = 120_000;

/** A server of its own on a database of its own, in the cluster that DATABASE_URL names. */
export class Harness {
  private constructor(
    readonly database: string,
    public server: RunningServer,
    public cookie: string,
  ) {}

  static async start(): Promise<Harness> {
    const cluster = process.env['DATABASE_URL'];
    if (cluster === undefined) throw new Error('The server’s tests need DATABASE_URL: run them by npm test.');
    const name = `t${randomBytes(6).toString('hex')}`;
    const admin = new Sequelize(cluster, { logging: false });
    await admin.query(`CREATE DATABASE ${name}`);
    await admin.close();
    const database = cluster.replace(/\/[^/]*$/, `/${name}`);
    const server = await Harness.serve(database);
    return new Harness(database, server, await Harness.signIn(server));
  }

  private static serve(database: string, settings: Record<string, string> = {}): Promise<RunningServer> {
    const config = readConfig({ DATABASE_URL: database, PORT: '0', LOG_LEVEL: 'silent', DEMO_RULESET: DEMO, ...settings });
    return startServer(config, pino({ level: 'silent' }), desk);
  }

  private static async signIn({ signIn }: RunningServer): Promise<string> {
    const response = await fetch(signIn, { redirect: 'manual' });
    return response.headers.get('set-cookie')!.split(';')[0];
  }

  /** Ends the server and starts another on the same database. */
  async restart(settings: Record<string, string> = {}): Promise<void> {
    await this.server.close();
    this.server = await Harness.serve(this.database, settings);
  }

  stop(): Promise<void> {
    return this.server.close();
  }

  /** A signed-in request. @throws where the answer is other than the description of the operation says */
  async request(
    path: string,
    options: { method?: string; body?: unknown; headers?: Record<string, string>; signal?: AbortSignal } = {},
  ): Promise<Response> {
    const { method = 'GET', body, headers = {}, signal } = options;
    const response = await fetch(this.server.url + path, {
      method,
      signal,
      headers: {
        cookie: this.cookie,
        'x-eager-ember': '1',
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    });
    await checkDescribed(method, path, response);
    return response;
  }

  async json<T>(path: string, options?: Parameters<Harness['request']>[1]): Promise<T> {
    return (await this.request(path, options)).json() as Promise<T>;
  }

  async demo(): Promise<{ id: string; revision: number }> {
    const { rulesets } = await this.json<{ rulesets: { id: string; name: string; revision: number }[] }>('/api/rulesets?limit=200');
    // Others that a case has made are no demo.
    return rulesets.find(({ name }) => name === 'Brinewick Salvage') ?? rulesets[0];
  }

  async newRoom(): Promise<RoomInfo> {
    return this.roomOf((await this.demo()).id);
  }

  /**
   * A room of a copy of the demo that nobody has played: nothing is kept of its players.
   * @param change what is other in it than in the demo
   */
  async untouchedRoom(change: (document: RulesetJson) => void = () => undefined): Promise<RoomInfo> {
    const { document } = await this.json<{ document: RulesetJson }>(`/api/rulesets/${(await this.demo()).id}`);
    change(document);
    const { id } = await this.json<{ id: string }>('/api/rulesets', { method: 'POST', body: { document } });
    return this.roomOf(id);
  }

  private roomOf(id: string): Promise<RoomInfo> {
    return this.json<RoomInfo>('/api/rooms', { method: 'POST', body: { ruleset: id, players: 'saved' } });
  }

  /** Opens a room's socket: a seat's by the path of its join link, or the truth's. */
  screen(room: string, join?: string, headers: Record<string, string> = {}): Screen {
    const query = join === undefined ? '' : `?seat=${join.split('/').at(-1)}`;
    const { host } = new URL(this.server.url);
    return new Screen(
      new WebSocket(`ws://${host}/ws/rooms/${room}${query}`, SUBPROTOCOL, {
        headers: { origin: this.server.url, ...(join === undefined ? { cookie: this.cookie } : {}), ...headers },
      }),
    );
  }
}

/** A ruleset's document, as a test changes it. */
export type RulesetJson = Record<string, (Record<string, unknown> & { id: string })[]>;

export interface RoomInfo {
  readonly id: string;
  readonly seats: readonly { readonly name: string; readonly team: string; readonly join: string }[];
}

/** One screen: a copy kept up to date, and what was said. */
export class Screen {
  copy: Copy | undefined;
  welcome: Welcome | undefined;
  welcomes = 0;
  readonly news: Announcement[] = [];
  readonly errors: string[] = [];
  /** Why it had to go, where it may come again. */
  later: string | undefined;
  /** What is wrong with the room for the moment, one after the other. */
  readonly troubles: string[] = [];
  /** The last tick that was told to be stored. */
  stored = 0;
  readonly answers: Extract<ServerMessage, { t: 'why' }>[] = [];
  /** The undecoded bytes of every message. */
  readonly raw: Uint8Array[] = [];
  closed: number | undefined;
  refused: number | undefined;
  private inputs = 0;
  private readonly waiting = new Set<() => void>();

  constructor(readonly socket: WebSocket) {
    socket.binaryType = 'nodebuffer';
    socket.on('message', (data: Buffer) => this.hear(new Uint8Array(data)));
    socket.on('close', (code) => {
      this.closed = code;
      this.changed();
    });
    socket.on('unexpected-response', (_request, response) => {
      this.refused = response.statusCode;
      this.changed();
    });
    socket.on('error', () => this.changed());
  }

  private hear(bytes: Uint8Array): void {
    this.raw.push(bytes);
    const heard = readServerMessage(bytes);
    if ('frame' in heard) {
      if (this.copy?.applyDecoded(heard.frame)) this.send({ t: 'ack', frame: this.copy.frame });
    } else this.take(heard.message);
    this.changed();
  }

  private take(message: ServerMessage): void {
    if (message.t === 'welcome') {
      this.welcome = message;
      this.welcomes++;
      this.copy = new Copy(message.schema);
    } else if (message.t === 'news') this.news.push(...message.items);
    else if (message.t === 'why') this.answers.push(message);
    else if (message.t === 'error') this.errors.push(message.message);
    else if (message.t === 'later') this.later = message.message;
    else if (message.t === 'trouble') this.troubles.push(message.message);
    else if (message.t === 'stored') this.stored = message.tick;
    else if (message.t === 'seats' && this.welcome) this.welcome = { ...this.welcome, seats: message.seats };
  }

  private changed(): void {
    for (const check of this.waiting) check();
  }

  send(message: Parameters<typeof encodeMessage>[0]): void {
    if (this.socket.readyState === WebSocket.OPEN) this.socket.send(encodeMessage(message));
  }

  ask(input: { do: string; [argument: string]: unknown }): void {
    this.send({ t: 'input', n: ++this.inputs, input });
  }

  poke(seat: string, action: { do: string; [argument: string]: unknown }, from?: string): void {
    this.send({ t: 'poke', seat, action, ...(from !== undefined && { from }) });
  }

  /** An attribute of the seat's own actor, or of another row. */
  value(attribute: string, row = this.welcome?.row ?? 0): number | undefined {
    return this.copy?.value('attributes', row, attribute) as number | undefined;
  }

  /** Waits for a state. */
  until(what: string, holds: () => boolean): Promise<void> {
    return new Promise((done, fail) => {
      const check = () => {
        if (!holds()) return;
        clearTimeout(timer);
        this.waiting.delete(check);
        done();
      };
      const timer = setTimeout(() => {
        this.waiting.delete(check);
        fail(new Error(`Waited in vain until ${what}`));
      }, PATIENCE_MS);
      this.waiting.add(check);
      check();
    });
  }

  /** Waits until the room is stored as it is by now. */
  kept(): Promise<void> {
    const tick = this.copy!.tick;
    return this.until('the room is stored', () => this.stored >= tick);
  }

  ready(): Promise<void> {
    return this.until('the first frame', () => (this.copy?.frame ?? 0) > 0);
  }

  close(): Promise<void> {
    this.socket.close();
    return this.until('the socket is closed', () => this.closed !== undefined);
  }
}
