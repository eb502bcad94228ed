import type { ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import puppeteer, { type Browser, type BrowserContext } from 'puppeteer-core';
import { type Cluster, startPostgres } from '../../scripts/lib/postgres.mjs';
import { freePort } from '../../scripts/lib/run.mjs';
import { Sequelize } from 'sequelize';
import { Screen, WINDOW } from './screen.js';
import { started } from './served.js';
import { DEMO, demo, type RulesetJson, Trial } from './trial.js';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  // What slides or fades is waited for, and drawn sixty times a second for nobody; colours are at rest when they are looked at.
  '--force-prefers-reduced-motion',
];
/** How many milliseconds later the page's workers hear what they are told: what a slow machine does to who is fast. */
const LAG_MS = Number(process.env['WORKER_LAG_MS'] ?? 0);
/** No answer of a browser takes longer, however slow the machine. */
const SLOWEST_MS = 600_000;

interface Cookie {
  readonly name: string;
  readonly value: string;
}

declare global {
  interface Window {
    workerLag?: number;
  }
}

/** The real application: a database of its own, the built server as a process, Debian's Chromium. */
export class Workbench {
  private server: ChildProcess | undefined;
  private session: Cookie | undefined;
  private trials = 0;
  /** The page of the last walk, warm and at rest. */
  private resting: Screen | undefined;
  link = '';
  port = 0;

  private constructor(
    private readonly home: string,
    private readonly database: string,
    private cluster: Cluster | undefined,
    readonly browser: Browser,
  ) {}

  /** @param ownCluster whether its database's server is its own, to be stopped, also where the run has one for all */
  static async start({ ownCluster = false } = {}): Promise<Workbench> {
    const home = mkdtempSync(join(tmpdir(), 'ember-e2e-'));
    // The database's own user has to get in.
    chmodSync(home, 0o755);
    const shared = ownCluster ? undefined : process.env['DATABASE_URL'];
    const cluster = shared === undefined ? await startPostgres(home, { durable: false }) : undefined;
    const database = await newDatabase(shared ?? cluster!.url);
    const browser = await puppeteer.launch({
      executablePath: process.env['CHROME_BIN'] ?? '/usr/bin/chromium',
      args: FLAGS,
      defaultViewport: WINDOW,
      timeout: SLOWEST_MS,
      protocolTimeout: SLOWEST_MS,
    });
    const workbench = new Workbench(home, database, cluster, browser);
    workbench.port = await freePort();
    await workbench.serve();
    const entered = await fetch(workbench.link, { redirect: 'manual' });
    const [name, value] = entered.headers.get('set-cookie')!.split(';')[0].split('=');
    workbench.session = { name, value };
    await browser.setCookie({ name, value, domain: '127.0.0.1', path: '/', httpOnly: true, sameSite: 'Lax', expires: -1 });
    return workbench;
  }

  /** The server's process. */
  get pid(): number {
    return this.server!.pid!;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Where the machine's own terminal asks for a sign-in link. */
  get controlSocket(): string {
    return join(this.home, 'control.sock');
  }

  /** Starts the server, on the port it had before. */
  async serve(): Promise<void> {
    const { process: server, link } = await started(this.settings);
    this.server = server;
    this.link = link;
  }

  /** What the server is told by its environment. */
  get settings(): Record<string, string> {
    return {
      DATABASE_URL: this.database,
      PORT: String(this.port),
      WEB_ROOT: join(ROOT, 'packages/web/dist/browser'),
      DEMO_RULESET: DEMO,
      CONTROL_SOCKET: this.controlSocket,
    };
  }

  /** Ends the server with no chance to say goodbye. */
  async kill(): Promise<void> {
    const server = this.server!;
    const gone = new Promise((done) => server.once('exit', done));
    server.kill('SIGKILL');
    await gone;
  }

  /** Ends the server with no chance to say goodbye, and starts it again. */
  async restart(): Promise<void> {
    await this.kill();
    await this.serve();
  }

  stopDatabase(): void {
    this.cluster!.stop('fast');
  }

  async startDatabase(): Promise<void> {
    this.cluster = await this.cluster!.restart();
  }

  /** What a request of somebody who is signed in carries. */
  get cookie(): string {
    return `${this.session!.name}=${this.session!.value}`;
  }

  /** A request of somebody who is signed in. */
  async request<T>(path: string, method = 'GET', body?: unknown, headers: Readonly<Record<string, string>> = {}): Promise<T> {
    const response = await fetch(this.url + path, {
      method,
      headers: {
        cookie: this.cookie,
        'x-eager-ember': '1',
        ...(body !== undefined && { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
    if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
    return (await response.json()) as T;
  }

  /** A ruleset that nobody has touched: the demo as it ships, under a name of its own, unless another is given. */
  async trial(document: RulesetJson = demo()): Promise<Trial> {
    const name = `${String(document['name'])}, trial ${++this.trials}`;
    const { id } = await this.request<{ id: string }>('/api/rulesets', 'POST', { document: { ...document, name } });
    return new Trial(this, id);
  }

  /** A page for somebody who is signed in, of whom the browser remembers nothing else. */
  async freshScreen(): Promise<Screen> {
    const screen = this.resting ?? (await this.screen());
    this.resting = undefined;
    const devTools = await screen.page.createCDPSession();
    await devTools.send('Storage.clearDataForOrigin', { origin: this.url, storageTypes: 'local_storage,indexeddb,cache_storage' });
    await devTools.detach();
    return screen;
  }

  /** Another page in the browser of who is signed in. */
  screen(): Promise<Screen> {
    return this.page(this.browser.defaultBrowserContext());
  }

  /** A page in a browser of its own, that has no session. */
  async stranger(): Promise<Screen> {
    return this.page(await this.browser.createBrowserContext());
  }

  /** Closes all that was opened, but for the browser itself, and a page that comes to rest: the next walk goes on in that one. */
  async closePages(last?: Screen): Promise<void> {
    if (await last?.rests()) this.resting = last;
    for (const context of this.browser.browserContexts()) {
      if (context !== this.browser.defaultBrowserContext()) await context.close();
      // The browser's own first page keeps its window open.
      else for (const page of await context.pages()) if (page.url() !== 'about:blank' && page !== this.resting?.page) await page.close();
    }
  }

  private async page(context: BrowserContext): Promise<Screen> {
    const page = await context.newPage();
    await page.evaluateOnNewDocument(slowWorkers, LAG_MS);
    return new Screen(page, this.url);
  }

  async stop(): Promise<void> {
    await this.browser.close();
    await this.kill();
    this.clearAway();
  }

  /** Ends all of it at once: for where nothing can be waited for any more. */
  end(): void {
    this.browser.process()?.kill('SIGKILL');
    this.server?.kill('SIGKILL');
    this.clearAway();
  }

  private clearAway(): void {
    this.cluster?.stop('immediate');
    rmSync(this.home, { recursive: true, force: true, maxRetries: 10, retryDelay: 200 });
  }
}

/** A database of its own on a server. */
async function newDatabase(server: string): Promise<string> {
  const name = `e${randomBytes(6).toString('hex')}`;
  const admin = new Sequelize(server, { logging: false });
  await admin.query(`CREATE DATABASE ${name}`);
  await admin.close();
  return server.replace(/\/[^/]*$/, `/${name}`);
}

/** Has workers hear everything later, in order. It runs in the page. */
function slowWorkers(lag: number): void {
  const post = Worker.prototype.postMessage as (...args: unknown[]) => void;
  Worker.prototype.postMessage = function (this: Worker, ...args: unknown[]): void {
    if (window.workerLag ?? lag) setTimeout(() => post.apply(this, args), window.workerLag ?? lag);
    else post.apply(this, args);
  };
}
