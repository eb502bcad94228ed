import { Workbench } from '../../e2e/src/workbench.js';
import { median, rounded, type Row } from './measure.js';

const EDITS = 21;

interface Times {
  readonly curve: number;
  readonly blocked: number;
  readonly idle: number;
  readonly echo: number;
}

/** From Enter to the new curve in a real browser, and the longest the page's thread was held meanwhile. */
export async function evidence(): Promise<readonly Row[]> {
  const workbench = await Workbench.start();
  try {
    const screen = await workbench.screen();
    await screen.visit('/');
    await screen.page.locator('ul li a').click();
    await screen.sees('h2', 'What it comes to');
    await screen.page.waitForSelector('canvas[data-drawn]');
    // Functions that the page runs are written as text: what a bundler adds to a function is not there.
    await screen.page.evaluate(`
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
    `);
    const demo = (await screen.page.evaluate(
      `fetch(location.pathname.replace(/^\\/r\\/([^/]+).*/, '/api/rulesets/$1')).then((r) => r.json())`,
    )) as object;
    const all: Times[] = [];
    for (let i = 0; i < EDITS; i++) {
      await screen.page.locator('ee-part button[aria-label^="refill a second: "]').click();
      const field = await screen.page.waitForSelector('ee-part input');
      await field!.evaluate((e) => (e as HTMLInputElement).select());
      await screen.page.keyboard.type(`has(inBell) ? breathRate : -1.${10 + i}`);
      const idle = (await screen.page.evaluate(
        `new Promise((settled) => setTimeout(settled, 300)).then(() => (measure.worst = 0, measure.last = performance.now(), measure.on = true, new Promise((d) => setTimeout(() => d(measure.worst), 150))))`,
      )) as number;
      await screen.page.evaluate(`
        measure.worst = 0;
        addEventListener('keydown', () => {
          measure.began = performance.now();
          measure.curve = new Promise((done) => (measure.waiting = (now) => (measure.waiting = null, done(now - measure.began))));
        }, { once: true, capture: true });
      `);
      await screen.page.keyboard.press('Enter');
      const curve = (await screen.page.evaluate('measure.curve')) as number;
      const blocked = (await screen.page.evaluate('measure.worst')) as number;
      const echo = (await screen.page.evaluate(`echoTime(${JSON.stringify(demo)})`)) as number;
      all.push({ curve, blocked, idle, echo });
    }
    const of = (key: keyof Times) => median(all.map((times) => times[key]));
    return [
      {
        what: 'evidence after an edit: Enter to new curve',
        value: rounded(of('curve')),
        reference: rounded(of('echo')),
        unit: 'ms',
        referenceIs: 'the document to an empty worker and back',
        ratio: `worst of ${EDITS}: ${rounded(Math.max(...all.map((t) => t.curve)))} ms`,
        reach: 'under 100 ms',
      },
      {
        what: 'longest hold of the page’s thread during that',
        value: rounded(of('blocked')),
        reference: rounded(of('idle')),
        unit: 'ms',
        referenceIs: 'the same while nothing happens',
        ratio: `worst of ${EDITS}: ${rounded(Math.max(...all.map((t) => t.blocked)))} ms`,
        reach: 'the core itself: 0, it runs in a worker; 16 ms in all',
      },
    ];
  } finally {
    await workbench.stop();
  }
}
