import { demo, type RulesetJson } from '../../e2e/src/trial.js';
import { Workbench } from '../../e2e/src/workbench.js';
import { largeRuleset } from './large-ruleset.js';
import { median, rounded, type Row } from './measure.js';

const EDITS = 15;
/** The demo's own size, a small game's, and a real one's. */
export const SIZES = [122, 426, 2000] as const;

interface Times {
  /** From Enter to the new curve, and from Ctrl Z to the one before. */
  readonly curve: number;
  readonly undo: number;
  readonly blocked: number;
  readonly idle: number;
  readonly echo: number;
}

/** What the page's own thread is asked. Functions that the page runs are written as text: what a bundler adds to a function is not there. */
const WATCH = `
  globalThis.measure = { waiting: null, worst: 0, last: performance.now(), on: false };
  const channel = new MessageChannel();
  channel.port1.onmessage = () => {
    const now = performance.now();
    if (measure.on) measure.worst = Math.max(measure.worst, now - measure.last);
    measure.last = now;
    channel.port2.postMessage(0);
  };
  channel.port2.postMessage(0);
  new MutationObserver(() => measure.waiting && measure.waiting(performance.now()))
    .observe(document.querySelector('ee-evidence-chart canvas'), { attributes: true, attributeFilter: ['data-drawn'] });
  const echo = new Worker(URL.createObjectURL(new Blob(['onmessage = (e) => postMessage(e.data)'], { type: 'text/javascript' })));
  globalThis.echoTime = (value) => new Promise((done) => {
    const began = performance.now();
    echo.onmessage = () => done(performance.now() - began);
    echo.postMessage(value);
  });
`;
const REST = 'new Promise((settled) => setTimeout(settled, 400))';
/** From the next key on until the curve is another one. */
const CLOCK = `
  measure.worst = 0;
  measure.last = performance.now();
  measure.on = true;
  addEventListener('keydown', () => {
    measure.began = performance.now();
    measure.curve = new Promise((done) => (measure.waiting = (now) => (measure.waiting = null, done(now - measure.began))));
  }, { once: true, capture: true });
`;

/** From Enter to the new curve in a real browser, at the three sizes, and the longest the page's thread was held meanwhile. */
export async function evidence(): Promise<readonly Row[]> {
  const workbench = await Workbench.start();
  try {
    const rows: Row[] = [];
    for (const size of SIZES) {
      const document = largeRuleset(demo(), size, 7) as RulesetJson;
      rows.push(...rowsOf(size, await timesOf(workbench, document)));
    }
    return rows;
  } finally {
    await workbench.stop();
  }
}

async function timesOf(workbench: Workbench, document: RulesetJson): Promise<readonly Times[]> {
  const trial = await workbench.trial(document);
  const screen = await workbench.freshScreen();
  const { page } = screen;
  const ask = async (what: string) => (await page.evaluate(what)) as number;
  await screen.visit(trial.at('attributes', 'oxygen'));
  await page.waitForSelector('canvas[data-drawn]');
  await page.evaluate(WATCH);
  const all: Times[] = [];
  for (let i = 0; i < EDITS; i++) {
    await page.locator('ee-part button[aria-label^="refill a second: "]').click();
    const field = await page.waitForSelector('ee-part input');
    await field!.evaluate((e) => (e as HTMLInputElement).select());
    await page.keyboard.type(`has(inBell) ? breathRate : -1.${10 + i}`);
    const idle = await ask(
      `${REST}.then(() => (measure.worst = 0, measure.last = performance.now(), measure.on = true, new Promise((d) => setTimeout(() => d(measure.worst), 150))))`,
    );
    await page.evaluate(CLOCK);
    await page.keyboard.press('Enter');
    const curve = await ask('measure.curve');
    const blocked = await ask('measure.worst');
    await ask(`${REST}.then(() => document.activeElement?.blur())`);
    await page.evaluate(CLOCK);
    await page.keyboard.down('Control');
    await page.evaluate(CLOCK);
    await page.keyboard.press('z');
    const undo = await ask('measure.curve');
    await page.keyboard.up('Control');
    const echo = await ask(`echoTime(${JSON.stringify(document)})`);
    all.push({ curve, undo, blocked, idle, echo });
    await ask(REST);
  }
  return all;
}

function rowsOf(size: number, all: readonly Times[]): readonly Row[] {
  const of = (key: keyof Times) => rounded(median(all.map((times) => times[key])));
  const worst = (key: keyof Times) => `worst of ${EDITS}: ${rounded(Math.max(...all.map((times) => times[key])))} ms`;
  const echo = { reference: of('echo'), unit: 'ms', referenceIs: 'the document to an empty worker and back' };
  return [
    {
      what: `an edit with ${size} entries: Enter to new curve`,
      value: of('curve'),
      ...echo,
      ratio: worst('curve'),
      reach: size === 122 ? 'under 100 ms' : 'under 150 ms, and 1.5x the demo’s',
    },
    {
      what: `an undo with ${size} entries: key to the curve before`,
      value: of('undo'),
      ...echo,
      ratio: worst('undo'),
      reach: 'as the edit',
    },
    {
      what: `longest hold of the page’s thread during an edit with ${size} entries`,
      value: of('blocked'),
      reference: of('idle'),
      unit: 'ms',
      referenceIs: 'the same while nothing happens',
      ratio: worst('blocked'),
      reach: 'the core itself: 0, it runs in a worker; 16 ms in all',
    },
  ];
}
