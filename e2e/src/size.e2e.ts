import { largeRuleset } from '../../bench/src/large-ruleset.js';
import { type Screen, WINDOW } from './screen.js';
import { eachWalk } from './suite.js';
import { demo, entryOf, type RulesetJson, Trial } from './trial.js';
import type { Workbench } from './workbench.js';

const ENTRIES = 2000;

describe("A ruleset of a real game's size", () => {
  let workbench: Workbench;
  let screen: Screen;
  eachWalk((walk) => ({ workbench, screen } = walk));

  const countOf = (document: RulesetJson) =>
    Object.values(document)
      .map((list) => (Array.isArray(list) && list[0]?.id !== undefined ? list.length : 0))
      .reduce((sum, count) => sum + count, 0);
  /** How far the page itself could be scrolled. */
  const scrolls = () =>
    screen.page.evaluate(() => {
      const { scrollHeight, clientHeight, scrollWidth, clientWidth } = document.documentElement;
      return [scrollHeight - clientHeight, scrollWidth - clientWidth];
    });

  it('comes in from a file, is edited, and is taken back', async () => {
    const document = largeRuleset(demo(), ENTRIES, 7) as RulesetJson;
    expect(countOf(document)).toBe(ENTRIES);
    await screen.visit('/');
    await screen.page.waitForSelector('main form');
    await screen.takeIn('large.json', JSON.stringify(document), 'main');
    await screen.sees('.index a.here', 'Oxygen');
    const trial = new Trial(workbench, /^\/r\/([^/]+)/.exec(new URL(screen.page.url()).pathname)![1]);
    await screen.page.waitForSelector('canvas[data-drawn]');
    await screen.edit('refill a second', '1');
    await screen.sees('[aria-label="Spec"]', 'refills 1 a second');
    await screen.drawnAs(90, true);
    const rate = async () => (entryOf(await trial.stored(), 'attributes', 'oxygen')['refill'] as { readonly rate: unknown }).rate;
    await screen.until('the edit is stored', async () => (await rate()) === 1);
    await screen.takeBack();
    await screen.sees('[aria-label="Spec"]', 'has(inBell) ? breathRate : -1.5');
    await screen.until('it is stored that it was taken back', async () => (await rate()) !== 1);
    expect(await trial.stored()).toEqual(document);
    // What the analysis says comes by itself.
    await screen.sees('button.findings', /^[1-9]\d* findings$/);
  });

  it('finds an entry among hundreds by the keyboard, in a page that never scrolls', async () => {
    const trial = await workbench.trial(largeRuleset(demo(), ENTRIES, 7) as RulesetJson);
    const last = (await trial.stored())['effects'].at(-1)!;
    await screen.visit(trial.at('effects'));
    await screen.sees('.index a.here', 'Slipstream');
    const drawn = async () => (await screen.page.$$('.index a')).length;
    expect(await drawn()).toBeLessThan(100);
    expect(await scrolls()).toEqual([0, 0]);
    await screen.page.setViewport({ width: 1024, height: 768 });
    expect(await scrolls()).toEqual([0, 0]);
    await screen.tap('.index input');
    await screen.page.keyboard.type(String(last['label']));
    await screen.sees('.index [role=status]', /^1 of \d+$/);
    await screen.page.keyboard.press('Enter');
    await screen.holds('input[aria-label="Id"]', last.id);
    // It is in sight where it stands, also without the filter.
    await screen.tap('.index button[aria-label="Clear the filter"]');
    await screen.sees('.index a.here', String(last['label']));
    await screen.page.reload();
    await screen.sees('.index a.here', String(last['label']));
    expect(await scrolls()).toEqual([0, 0]);
    await screen.page.setViewport(WINDOW);
  });

  it('follows a new id in hundreds of formulas, in one step', async () => {
    const trial = await workbench.trial(largeRuleset(demo(), ENTRIES, 7) as RulesetJson);
    const speaking = async (id: string) => JSON.stringify(await trial.stored()).split(new RegExp(`\\b${id}\\b`)).length - 1;
    const uses = await speaking('torchPower');
    expect(uses).toBeGreaterThan(400);
    await screen.visit(trial.at('attributes', 'torchPower'));
    await screen.holds('input[aria-label="Id"]', 'torchPower');
    await screen.fill('input[aria-label="Id"]', 'torchBlaze');
    await screen.until('it is stored under its new id', async () => (await speaking('torchBlaze')) === uses);
    // The id that it had is noted, and nothing else speaks of it.
    expect(await speaking('torchPower')).toBe(1);
    await screen.takeBack();
    await screen.until('it is taken back', async () => (await speaking('torchPower')) === uses);
  });
});
