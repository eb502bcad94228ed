import type { Page } from 'puppeteer-core';
import type { Room } from './trial.js';

/** How long a state is waited for: longer than any machine needs, so that what did not come is no matter of speed. */
const PATIENCE_MS = 120_000;
/** How long a page has to leave what a walk was about. */
const REST_MS = 5000;
/** What a page has to show itself in, unless a walk says otherwise. */
export const WINDOW = { width: 1280, height: 800 };
/** How often a page is looked at. */
const POLL_MS = 40;

/** Where a seat stands in Playtest. */
export const seat = (name: string) => `[aria-label="Seat ${name}"]`;
/** Where a seat shows a value of its own actor. */
export const value = (name: string, attribute: string) => `${seat(name)} [data-attribute="${attribute}"]`;

/** Lets the next click through only where it lands on what is wanted. It is made in the page. */
interface ClickWatch extends EventListenerObject {
  landed: boolean;
  /** What it landed on instead. */
  instead: string;
}

/** Begins such a watch. It runs in the page. */
function watchClick(wanted: Element): ClickWatch {
  const watch: ClickWatch = {
    landed: false,
    instead: 'nothing',
    handleEvent(event) {
      this.landed = event.composedPath().includes(wanted);
      if (this.landed) return;
      this.instead = (event.target as Element).outerHTML.slice(0, 200);
      event.preventDefault();
      event.stopImmediatePropagation();
    },
  };
  addEventListener('click', watch, { capture: true, once: true });
  return watch;
}

/** Ends a watch; what the click has landed on instead, or nothing where it has landed. It runs in the page. */
function endOfWatch(watch: ClickWatch): string {
  removeEventListener('click', watch, { capture: true });
  return watch.landed ? '' : watch.instead;
}

/** Goes to an address within the page, where it is a page of the workbench. It runs in the page. */
function ledTo(home: string, path: string): boolean {
  if (location.origin !== home || document.querySelector('ee-root > *') === null) return false;
  history.pushState(null, '', path);
  dispatchEvent(new PopStateEvent('popstate', { state: null }));
  return true;
}

/** A page, with words for what a person does and sees. */
export class Screen {
  readonly complaints: string[] = [];

  constructor(
    readonly page: Page,
    /** The address of the workbench. */
    private readonly home: string,
  ) {
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

  /** Opens an address of the workbench: as a link in the page leads there, or by loading the page where there is none yet. */
  async visit(path: string): Promise<void> {
    if (!(await this.page.evaluate(ledTo, this.home, path))) await this.page.goto(this.home + path, { timeout: PATIENCE_MS });
  }

  /** Leaves all that a walk was about, for another walk to go on in this page; whether that is so. */
  async rests(): Promise<boolean> {
    try {
      await this.page.setViewport(WINDOW);
      await this.page.mouse.move(0, 0);
      await this.page.evaluate(ledTo, this.home, '/sessions');
      await this.page.waitForSelector('ee-sessions', { timeout: REST_MS });
      this.complaints.length = 0;
      return true;
    } catch {
      return false;
    }
  }

  /** Watches a room, and drives its first seat. */
  async play(room: Room): Promise<void> {
    await this.visit(room.path);
    await this.sees(`${seat('north')} .verdict`, 'Copy agrees with truth.');
  }

  /** Has the room that is watched run so many times as fast: what takes long by the rules is not waited for. */
  async pace(times: number): Promise<void> {
    await this.page.select('select[aria-label="Speed"]', String(times));
  }

  /** Has the page's workers answer later from here on; loading the page anew ends that. */
  async lag(ms: number): Promise<void> {
    await this.page.evaluate((lag: number) => void (window.workerLag = lag), ms);
  }

  /** Clicks what has this role and exact name. */
  click(role: string, name: string): Promise<void> {
    return this.tap(`::-p-aria([role="${role}"][name="${name}"])`);
  }

  /**
   * Clicks what fits the selector. Where the page moves while the pointer is on its way, the click is held back from what lies
   * there by then, and aimed anew.
   */
  async tap(selector: string): Promise<void> {
    let instead = '';
    await this.until(
      () => `${selector} is clicked and not ${instead}`,
      async () => {
        const wanted = await this.page.waitForSelector(selector);
        const watch = await wanted!.evaluateHandle(watchClick);
        await this.page.locator(selector).click();
        // A click that leads to another page takes the watch with it.
        instead = await watch.evaluate(endOfWatch).catch(() => '');
        // A hint that has opened under the pointer stays for as long as that is on it.
        if (instead !== '') await this.page.mouse.move(0, 0);
        return instead === '';
      },
    );
  }

  /** Presses a button by the keyboard, wherever it has moved to by now. */
  async press(role: string, name: string): Promise<void> {
    const button = await this.page.waitForSelector(`::-p-aria([role="${role}"][name="${name}"])`);
    await button!.press('Enter');
  }

  /** Waits until something that fits the selector says this. */
  async sees(selector: string, text: string | RegExp): Promise<void> {
    const [source, flags] = typeof text === 'string' ? [text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), ''] : [text.source, text.flags];
    await this.page
      .waitForFunction(
        (s: string, p: string, f: string) =>
          [...document.querySelectorAll(s)].some((e) => new RegExp(p, f).test((e as HTMLElement).innerText.replace(/\s+/g, ' '))),
        { polling: POLL_MS },
        selector,
        source,
        flags,
      )
      .catch(async () => {
        const found = await this.page.$$eval(selector, (all) => all.map((e) => (e as HTMLElement).innerText.replace(/\s+/g, ' ').trim()));
        throw new Error(`Waited in vain for ${String(text)} in ${selector}; there is ${JSON.stringify(found)} at ${this.page.url()}`);
      });
  }

  /** Does something that has this be said for a while: it is looked out for from before. */
  async seesPass(selector: string, text: string | RegExp, act: () => Promise<void>): Promise<void> {
    await Promise.all([this.sees(selector, text), act()]);
  }

  /** Waits until the ruleset is saved as it stands. */
  saved(): Promise<void> {
    return this.sees('[role="status"]', /^saved · rev \d+/);
  }

  /** Waits until the room is stored as it was when this was asked, or later. */
  async roomIsStored(): Promise<void> {
    const now = Number(await this.text('.truth h2 .mono'));
    await this.page.waitForFunction(
      (tick: number) => Number(document.querySelector('.truth .kept .mono')?.textContent ?? -1) >= tick,
      { polling: POLL_MS },
      now,
    );
  }

  /** Waits until the page has drawn what it was last told, twice. */
  async settled(): Promise<void> {
    await this.page.evaluate(() => new Promise<void>((done) => requestAnimationFrame(() => requestAnimationFrame(() => done()))));
  }

  /** Does something again and again until it says that it came about. */
  async until(what: string | (() => string), attempt: () => Promise<boolean>): Promise<void> {
    for (const end = Date.now() + PATIENCE_MS; Date.now() < end;) if (await attempt()) return;
    throw new Error(`Waited in vain until ${typeof what === 'string' ? what : what()}`);
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
    await this.tap(button);
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
    await this.tap(`${within} ee-part button[aria-label^="${label}: "]`);
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
    // What stands below moves as the part closes: a click that was on its way would miss.
    await this.page.waitForFunction(
      (e) => !e!.isConnected || e!.getAttribute('aria-invalid') === 'true' || document.activeElement !== e,
      { polling: POLL_MS },
      field,
    );
  }

  /** Picks for a part of a sentence from the list that opens with it, by mouse alone. */
  async choose(label: string, option: string, within = ''): Promise<void> {
    await this.tap(`${within} ee-part button[aria-label^="${label}: "]`);
    await this.page.waitForSelector(`${within} ee-part input[aria-label="${label}"]`);
    await this.tap(`mat-option ::-p-text(${option})`);
    await this.sees(`${within} ee-part button[aria-label^="${label}: "]`, option);
  }

  /** Opens an entry of the chapter that is shown. */
  async entry(label: string): Promise<void> {
    await this.tap(`.index a ::-p-text(${label})`);
  }

  /** Takes back by button what was done last. */
  async takeBack(times = 1): Promise<void> {
    for (let n = 0; n < times; n++) await this.click('button', 'Undo Ctrl Z');
  }

  /** Gives a file to the field that takes one in, as if it had been chosen. */
  async takeIn(name: string, content: string, within = 'mat-dialog-container'): Promise<void> {
    const field = `${within} input[type="file"]`;
    await this.page.waitForSelector(field);
    await this.page.$eval(
      field,
      (e, file, text) => {
        const files = new DataTransfer();
        files.items.add(new File([text], file));
        (e as HTMLInputElement).files = files.files;
        e.dispatchEvent(new Event('change'));
      },
      name,
      content,
    );
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
    await this.page.waitForSelector('ee-pokes');
    await this.page.waitForSelector(`select[aria-label="What to do"] option[value="${kind}"]`);
    await this.page.select('select[aria-label="What to do"]', kind);
    const about = 'select[aria-label="What it is about"]';
    if (what !== undefined) {
      await this.page.waitForSelector(`${about} option[value="${what}"]`);
      await this.page.select(about, what);
    }
    for (const [label, text] of Object.entries(more)) {
      if (label === 'Seat') {
        // One that is not there yet would be passed over without a word.
        await this.page.waitForSelector(`select[aria-label="Seat"] option[value="${text}"]`);
        await this.page.select('select[aria-label="Seat"]', text);
      } else await this.write(`ee-pokes input[aria-label="${label}"]`, text);
    }
    await before();
    // Not by where it stands: that may move at this very moment.
    await this.page.$eval('ee-pokes button[type="submit"]', (e) => {
      (e as HTMLButtonElement).focus();
      (e as HTMLButtonElement).click();
    });
    await this.page.keyboard.press('Escape');
    await this.lacks('ee-pokes');
  }

  /** Puts something into a field at once, as if it had been pasted and the field left. */
  async write(field: string, text: string): Promise<void> {
    await this.page.waitForSelector(field);
    await this.page.$eval(
      field,
      (e, written) => {
        (e as HTMLInputElement).value = written;
        for (const event of ['input', 'change']) e.dispatchEvent(new Event(event, { bubbles: true }));
      },
      text,
    );
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
