import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { withWorkbench } from './suite.js';
import type { Screen, Workbench } from './workbench.js';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Finding {
  readonly id: string;
  readonly impact: string;
  readonly nodes: readonly { readonly html: string; readonly failureSummary: string }[];
}

describe('Accessibility', () => {
  let workbench: Workbench;
  let screen: Screen;
  withWorkbench((started, signedIn) => {
    workbench = started;
    screen = signedIn;
  });

  /** What axe finds serious or critical on the page as it is. */
  async function serious(): Promise<string[]> {
    // Through the debugger, which the page's content policy does not bind.
    await screen.page.evaluate(AXE);
    const found = (await screen.page.evaluate(`axe.run({ resultTypes: ['violations'] }).then((r) => r.violations)`)) as Finding[];
    return found
      .filter((f) => ['serious', 'critical'].includes(f.impact))
      .map((f) => `${f.id}: ${f.nodes.map((n) => `${n.html} ${n.failureSummary}`).join('; ')}`.slice(0, 600));
  }

  for (const theme of ['light', 'dark'])
    it(`finds nothing serious on any page, in the ${theme} theme`, async () => {
      // Colours are looked at when they have come to rest.
      await screen.page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
      await screen.page.evaluate((t: string) => localStorage.setItem('eager-ember.theme', t), theme);
      await screen.page.goto(workbench.url);
      await screen.sees('li', 'Brinewick Salvage');
      expect(await serious())
        .withContext('list')
        .toEqual([]);
      await screen.page.locator('ul li a').click();
      await screen.sees('h2', 'What it comes to');
      expect(await serious())
        .withContext('attribute')
        .toEqual([]);
      for (const chapter of ['Effects', 'Abilities', 'Actors', 'World']) {
        await screen.click('link', chapter);
        await screen.sees('h2', 'What it comes to');
        expect(await serious())
          .withContext(chapter)
          .toEqual([]);
      }
      for (const [page, shows] of [
        ['Loot', 'One opening gives, on average'],
        ['Economy', 'On paper'],
        ['Arena', 'The arena'],
        ['Wiring', 'No loose ends'],
      ]) {
        await screen.click('link', page);
        await screen.sees('h1, h2', shows);
        expect(await serious())
          .withContext(page)
          .toEqual([]);
      }
      await screen.click('link', 'Actors');
      await screen.sees('h2', 'What it comes to');
      for (const [entry, shows] of [
        ['Stunned', 'What may be done'],
        ['Down', 'What may be done'],
      ]) {
        await screen.page.locator(`.index a ::-p-text(${entry})`).click();
        await screen.sees('h2', shows);
        expect(await serious())
          .withContext(entry)
          .toEqual([]);
      }
      await screen.page.locator('header .findings').click();
      await screen.sees('mat-dialog-content', 'Nothing in this ruleset looks like a mistake.');
      expect(await serious())
        .withContext('findings')
        .toEqual([]);
      await screen.page.keyboard.press('Escape');
      await screen.lacks('mat-dialog-content');
      await screen.page.keyboard.press('p');
      await screen.sees('.verdict', 'Copy agrees with truth.');
      await screen.page.keyboard.press('y');
      await screen.sees('ee-why .line', 'clamp');
      await screen.page.keyboard.press('k');
      await screen.page.waitForSelector('ee-pokes');
      expect(await serious())
        .withContext('playtest')
        .toEqual([]);
      await screen.page.keyboard.press('Escape');
      await screen.poke('place', undefined, { Where: '880, 270', Seat: 'north' });
      await screen.page.keyboard.press('m');
      await screen.sees('ee-money-window h3', 'Brinewick yard');
      expect(await serious())
        .withContext('money')
        .toEqual([]);
    }, 60_000);

  it('fits a whole job into 1024 pixels, and the join page onto a phone', async () => {
    await screen.page.setViewport({ width: 1024, height: 768 });
    const wide = () => screen.page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    expect(await wide()).toBe(0);
    await screen.page.goto(screen.page.url().replace(/playtest.*/, 'rulebook/attributes/oxygen'));
    await screen.sees('h2', 'What it comes to');
    expect(await wide()).toBe(0);
    const join = await screen.page.evaluate(async () => {
      const { rulesets } = (await (await fetch('/api/rulesets')).json()) as { rulesets: { id: string }[] };
      const { rooms } = (await (await fetch(`/api/rooms?ruleset=${rulesets[0].id}`)).json()) as { rooms: { id: string }[] };
      return ((await (await fetch(`/api/rooms/${rooms[0].id}`)).json()) as { seats: { join: string }[] }).seats[0].join;
    });
    await screen.page.setViewport({ width: 390, height: 800, isMobile: true, hasTouch: true });
    await screen.page.goto(workbench.url + join);
    await screen.sees('header', 'north');
    await screen.page.waitForSelector('[data-attribute="oxygen"]');
    expect(await wide()).toBe(0);
    expect(await serious()).toEqual([]);
  });
});
