import { type ChildProcess, spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import puppeteer, { type Browser, type BrowserContext, type Page } from 'puppeteer-core';
import { startPostgres } from '../../scripts/lib/postgres.mjs';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
/** How many milliseconds later the page's workers hear what they are told: what a slow machine does to who is fast. */
const LAG_MS = Number(process.env['WORKER_LAG_MS'] ?? 0);
const PATIENCE_MS = 25_000;

declare global {
  interface Window {
    workerLag?: number;
  }
}

/** The real application: its own database cluster, the built server as a process, Debian's Chromium. */
export class Workbench {
  private server: ChildProcess | undefined;
  link = '';
  port = 0;

  private constructor(
    private readonly home: string,
    private cluster: Awaited<ReturnType<typeof startPostgres>>,
    readonly browser: Browser,
  ) {}

  static async start(): Promise<Workbench> {
    const home = mkdtempSync(join(tmpdir(), 'ember-e2e-'));
    // The database's own user has to get in.
    chmodSync(home, 0o755);
    const cluster = await startPostgres(home, { durable: false });
    const browser = await puppeteer.launch({
      executablePath: process.env['CHROME_BIN'] ?? '/usr/bin/chromium',
      args: FLAGS,
      defaultViewport: { width: 1280, height: 800 },
    });
    const workbench = new Workbench(home, cluster, browser);
    await workbench.serve();
    return workbench;
  }

  /** The server's process. */
  get pid(): number {
    return this.server!.pid!;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Starts the server, on the port it had before where it had one. */
  async serve(): Promise<void> {
    const env = {
      ...process.env,
      NODE_ENV: 'production',
      LOG_LEVEL: 'fatal',
      DATABASE_URL: this.cluster.url,
      PORT: String(this.port),
      WEB_ROOT: join(ROOT, 'packages/web/dist/browser'),
      DEMO_RULESET: join(ROOT, 'examples/brinewick.json'),
    };
    const server = spawn(process.execPath, [join(ROOT, 'packages/server/dist/main.js')], { env, stdio: ['ignore', 'pipe', 'inherit'] });
    this.server = server;
    this.link = await new Promise<string>((done, fail) => {
      let text = '';
      server.stdout.setEncoding('utf8').on('data', (part: string) => {
        text += part;
        const link = /EMBER_LINK (\S+)/.exec(text)?.[1];
        if (link) done(link);
      });
      server.on('exit', (code) => fail(new Error(`The server ended with ${code}`)));
    });
    this.port = Number(new URL(this.link).port);
  }

  /** Ends the server with no chance to say goodbye. */
  async kill(): Promise<void> {
    const server = this.server!;
    const gone = new Promise((done) => server.once('exit', done));
    server.kill('SIGKILL');
    await gone;
  }

  stopDatabase(): void {
    this.cluster.stop('fast');
  }

  async startDatabase(): Promise<void> {
    this.cluster = await this.cluster.restart();
  }

  /** A page that is signed in, with what it complains of on its console. */
  async signIn(context: Browser | BrowserContext = this.browser): Promise<Screen> {
    const page = await context.newPage();
    await page.evaluateOnNewDocument(slowWorkers, LAG_MS);
    const screen = new Screen(page);
    await page.goto(this.link);
    await screen.sees('h1', 'Rulesets');
    return screen;
  }

  async stop(): Promise<void> {
    await this.browser.close();
    await this.kill();
    this.cluster.stop('immediate');
    rmSync(this.home, { recursive: true, force: true });
  }
}

/** Has workers hear everything later, in order. It runs in the page. */
function slowWorkers(lag: number): void {
  const post = Worker.prototype.postMessage as (...args: unknown[]) => void;
  Worker.prototype.postMessage = function (this: Worker, ...args: unknown[]): void {
    if (window.workerLag ?? lag) setTimeout(() => post.apply(this, args), window.workerLag ?? lag);
    else post.apply(this, args);
  };
}

/** A page, with words for what a person does and sees. */
export class Screen {
  readonly complaints: string[] = [];

  constructor(readonly page: Page) {
    page.setDefaultTimeout(PATIENCE_MS);
    page.on('pageerror', (error) => this.complaints.push(error instanceof Error ? error.message : String(error)));
    page.on('console', (message) => {
      // Chromium writes failed requests to the console by itself; those are tested by what the page then says.
      if (
        message.type() === 'error' &&
        !message.text().startsWith('Failed to load resource') &&
        !message.text().includes('WebSocket connection')
      )
        this.complaints.push(message.text());
    });
  }

  /** Has the page's workers answer later from here on; loading the page anew ends that. */
  async lag(ms: number): Promise<void> {
    await this.page.evaluate((lag: number) => void (window.workerLag = lag), ms);
  }

  /** Clicks what has this role and exact name. */
  async click(role: string, name: string): Promise<void> {
    await this.page.locator(`::-p-aria([role="${role}"][name="${name}"])`).click();
  }

  /** Waits until something that fits the selector says this; for long work, with more patience. */
  async sees(selector: string, text: string | RegExp, timeout = PATIENCE_MS): Promise<void> {
    const [source, flags] = typeof text === 'string' ? [text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), ''] : [text.source, text.flags];
    await this.page
      .waitForFunction(
        (s: string, p: string, f: string) =>
          [...document.querySelectorAll(s)].some((e) => new RegExp(p, f).test((e as HTMLElement).innerText.replace(/\s+/g, ' '))),
        { timeout },
        selector,
        source,
        flags,
      )
      .catch(async () => {
        const found = await this.page.$$eval(selector, (all) => all.map((e) => (e as HTMLElement).innerText.replace(/\s+/g, ' ').trim()));
        throw new Error(`Waited in vain for ${String(text)} in ${selector}; there is ${JSON.stringify(found)} at ${this.page.url()}`);
      });
  }

  /** Waits until the page has drawn what it was last told, twice. */
  async settled(): Promise<void> {
    await this.page.evaluate(() => new Promise<void>((done) => requestAnimationFrame(() => requestAnimationFrame(() => done()))));
  }

  /** Does something again and again until it says that it came about. */
  async until(what: string, attempt: () => Promise<boolean>): Promise<void> {
    for (const end = Date.now() + PATIENCE_MS; Date.now() < end;) if (await attempt()) return;
    throw new Error(`Waited in vain until ${what}`);
  }

  /** Waits until a field holds this. */
  async holds(selector: string, value: string): Promise<void> {
    await this.page
      .waitForFunction((s: string, v: string) => document.querySelector<HTMLInputElement>(s)?.value === v, {}, selector, value)
      .catch(async () => {
        const found = await this.page.$eval(selector, (e) => (e as HTMLInputElement).value).catch(() => 'no such field');
        throw new Error(`Waited in vain for ${selector} to hold ${value}; it holds ${found}`);
      });
  }

  /** Replaces what stands in a field, and leaves it with Enter. */
  async fill(selector: string, text: string): Promise<void> {
    const field = await this.page.waitForSelector(selector);
    await field!.click({ count: 3 });
    await this.page.keyboard.type(text);
    await this.page.keyboard.press('Enter');
  }

  /** Picks from the menu that a button opens, by how the item begins. */
  async pick(button: string, item: string): Promise<void> {
    await this.page.locator(button).click();
    await this.page.waitForFunction(
      (text: string) => {
        const panel = [...document.querySelectorAll('.mat-mdc-menu-panel')].at(-1);
        const found = [...(panel?.querySelectorAll<HTMLElement>('[mat-menu-item]') ?? [])].find((e) => e.innerText.trim().startsWith(text));
        found?.click();
        return found !== undefined;
      },
      {},
      item,
    );
    await this.lacks('.mat-mdc-menu-panel');
  }

  async lacks(selector: string): Promise<void> {
    await this.page.waitForFunction((s: string) => document.querySelector(s) === null, {}, selector);
  }

  /** Edits a part of a sentence: opens it by its label, types, applies. */
  async edit(label: string, text: string, within = ''): Promise<void> {
    // A menu that closes gives the focus back a moment later, and what was opened in between closes with that: a second click.
    const opened = () => this.page.waitForSelector(`${within} ee-part input[aria-label="${label}"]`, { timeout: 2500 }).catch(() => null);
    await this.page.locator(`${within} ee-part button[aria-label^="${label}: "]`).click();
    let field = await opened();
    await this.until(`${label} is being edited`, async () => {
      if (field && (await field.evaluate((e) => e.isConnected && document.activeElement === e))) return true;
      await this.settled();
      const button = await this.page.$(`${within} ee-part button[aria-label^="${label}: "]`);
      if (button) await button.click().catch(() => undefined);
      field = await opened();
      return false;
    });
    await this.page.waitForFunction((e) => document.activeElement === e, {}, field);
    await field!.evaluate((e) => (e as HTMLInputElement).select());
    await this.page.keyboard.type(text);
    // The list of names may lie open over what was typed; what counts is the text.
    await this.page.keyboard.press('Enter');
  }

  /** Takes back by key what was done last. */
  async undo(times = 1): Promise<void> {
    await this.page.keyboard.down('Control');
    for (let n = 0; n < times; n++) await this.page.keyboard.press('z');
    await this.page.keyboard.up('Control');
  }

  /** Pokes the room: what is done, what it is about, and what else the form asks, by label. `before` is done with the form filled. */
  async poke(
    kind: string,
    what?: string,
    more: Readonly<Record<string, string>> = {},
    before: () => Promise<void> = () => Promise.resolve(),
  ): Promise<void> {
    await this.page.keyboard.press('k');
    await this.page.locator('select[aria-label="What to do"]').fill(kind);
    if (what !== undefined) {
      await this.page.waitForFunction(
        (w: string) =>
          [...document.querySelectorAll<HTMLOptionElement>('select[aria-label="What it is about"] option')].some((o) => o.value === w),
        {},
        what,
      );
      await this.page.select('select[aria-label="What it is about"]', what);
    }
    for (const [label, text] of Object.entries(more))
      await this.page.locator(`${label === 'Seat' ? 'select' : 'input'}[aria-label="${label}"]`).fill(text);
    await before();
    await this.click('button', 'Do it');
    await this.page.keyboard.press('Escape');
    await this.lacks('ee-pokes');
  }

  text(selector: string): Promise<string> {
    return this.page.$eval(selector, (e) => (e as HTMLElement).innerText.replace(/\s+/g, ' ').trim());
  }

  /** What the last point of the evidence's first line is, and whether a ghost is drawn. */
  async drawn(): Promise<{ last: number; ghost: boolean }> {
    const text = (await this.page.$eval('ee-evidence-chart canvas', (e) => (e as HTMLCanvasElement).dataset['drawn'])) ?? '';
    return { last: Number(text.split(/[, ]/)[0]), ghost: text.endsWith(' ghost') };
  }

  async drawnAs(last: number, ghost: boolean): Promise<void> {
    await this.page.waitForFunction(
      (l: number, g: boolean) => {
        const drawn = document.querySelector<HTMLElement>('ee-evidence-chart canvas')?.dataset['drawn'] ?? '';
        return Math.abs(Number(drawn.split(/[, ]/)[0]) - l) < 0.01 && drawn.endsWith(' ghost') === g;
      },
      {},
      last,
      ghost,
    );
  }
}
