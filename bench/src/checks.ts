import { CheckSession, checksOf, compileRuleset, RulesetCompiler, runChecks, World } from '@eager-ember/core';
import { demo, type RulesetJson } from '../../e2e/src/trial.js';
import { Workbench } from '../../e2e/src/workbench.js';
import { median, rounded, type Row } from './measure.js';

const CHECKS = 100;
const EDITS = 12;

/** The demo with a hundred checks: its own, again and again under other ids. */
function manyChecks(): RulesetJson {
  const document = demo();
  const own = document['checks'];
  document['checks'] = Array.from({ length: CHECKS }, (_, i) => ({ ...own[i % own.length], id: `check${i}` }));
  return document;
}

/** The same with another bite: all but that are the same objects. */
function withBite(document: RulesetJson, amount: number): object {
  const onHit = [{ do: 'hurt', attribute: 'suit', amount, to: 'target' }];
  return { ...document, abilities: document['abilities'].map((one) => (one.id === 'bite' ? { ...one, onHit } : one)) };
}

/** Works through all of it at once. */
function allOf<T>(parts: Generator<void, T>): T {
  for (;;) {
    const { done, value } = parts.next();
    if (done) return value;
  }
}

/** A hundred checks, all of them and after an edit, beside a bare world that runs as many ticks. */
export function checks(): readonly Row[] {
  const compiler = new RulesetCompiler();
  const document = manyChecks();
  const documents = [document, withBite(document, 90)];
  const whole: number[] = [];
  const after: number[] = [];
  const bare: number[] = [];
  let ticks = 0;
  const timed = (work: () => void) => {
    const began = performance.now();
    work();
    return performance.now() - began;
  };
  for (let i = 0; i < EDITS; i++) {
    const rules = compiler.read(documents[i % 2]).rules!;
    const edit = timed(() => allOf(runChecks(rules)));
    if (i > 1) after.push(edit);
    const session = new CheckSession(rules);
    const results = checksOf(rules).map(() => 0);
    whole.push(timed(() => checksOf(rules).forEach((check, k) => (results[k] = session.runNow(check).ticks))));
    ticks = results.reduce((sum, one) => sum + one, 0);
    const world = World.start(compileRuleset({ ...document, arena: undefined, checks: [] }), 1);
    world.step([{ kind: 'join', args: { seat: 'north' } }]);
    bare.push(timed(() => Array.from({ length: ticks }, () => world.step())));
  }
  const reference = { reference: rounded(median(bare)), unit: 'ms', referenceIs: `a bare world with one diver, as many ticks (${ticks})` };
  const times = (value: number) => `${rounded(value / median(bare))}x`;
  return [
    {
      what: `all of ${CHECKS} checks of the demo`,
      value: rounded(median(whole)),
      ...reference,
      ratio: times(median(whole)),
      reach: 'under 2x',
    },
    {
      what: `${CHECKS} checks of the demo after an edit of the bite`,
      value: rounded(median(after)),
      ...reference,
      ratio: times(median(after)),
      reach: 'under 200 ms',
    },
  ];
}

/** Notes when what the bar says of failing checks changes, from Enter on. */
const WATCH = `
  globalThis.failing = { at: 0, changes: [] };
  addEventListener('keydown', (event) => { if (event.key === 'Enter') Object.assign(failing, { at: performance.now(), changes: [] }); }, true);
  let last = document.querySelector('header .failing')?.textContent ?? '';
  new MutationObserver(() => {
    const now = document.querySelector('header .failing')?.textContent ?? '';
    if (now === last) return;
    last = now;
    failing.changes.push(performance.now() - failing.at);
  }).observe(document.querySelector('header'), { subtree: true, childList: true, characterData: true });
`;
const REST = 'new Promise((settled) => setTimeout(settled, 1500))';

/** From Enter to what the bar of the page says of a hundred checks, in a real browser. */
export async function checksInPage(): Promise<readonly Row[]> {
  const workbench = await Workbench.start();
  try {
    const trial = await workbench.trial(manyChecks());
    const screen = await workbench.freshScreen();
    const { page } = screen;
    await screen.visit(trial.at('checks', 'check0'));
    await screen.sees('ee-check-foot p', `${CHECKS} hold`);
    await screen.visit(trial.at('abilities', 'bite'));
    await screen.sees('h2', 'What it comes to');
    await page.evaluate(WATCH);
    await page.evaluate(REST);
    const first: number[] = [];
    const all: number[] = [];
    for (let i = 0; i < EDITS; i++) {
      await page.locator('ee-part button[aria-label^="amount: "]').click();
      const field = await page.waitForSelector('ee-part input');
      await field!.evaluate((e) => (e as HTMLInputElement).select());
      await page.keyboard.type(i % 2 === 0 ? '90' : '9');
      await page.keyboard.press('Enter');
      await page.evaluate(REST);
      const changes = (await page.evaluate('failing.changes')) as number[];
      first.push(changes[0]);
      all.push(changes.at(-1)!);
    }
    const row = (what: string, times: readonly number[]): Row => ({
      what: `${CHECKS} checks of the demo after an edit, in the browser: Enter to ${what}`,
      value: rounded(median(times)),
      reference: rounded(times[0]),
      unit: 'ms',
      referenceIs: 'the first time',
      ratio: `worst of ${EDITS}: ${rounded(Math.max(...times))} ms`,
      reach: 'under 200 ms',
    });
    return [row('the first that fails, in the bar of the page', first), row('all that fail', all)];
  } finally {
    await workbench.stop();
  }
}
