import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { seat, type Screen } from './screen.js';
import { eachWalk } from './suite.js';
import type { Trial } from './trial.js';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Finding {
  readonly id: string;
  readonly impact: string;
  readonly nodes: readonly { readonly html: string; readonly failureSummary: string }[];
}

describe('Accessibility', () => {
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ screen, trial } = walk));

  /** Expects that axe finds nothing serious or critical on the page as it is, and no text too faint to read in either theme. */
  async function nothingSerious(where: string): Promise<void> {
    // Through the debugger, which the page's content policy does not bind.
    await screen.page.evaluate(AXE);
    await nothingFound(`${where}, in the light theme`, {});
    await inTheme('dark');
    await nothingFound(`${where}, in the dark theme`, { runOnly: ['color-contrast'] });
    await inTheme('light');
  }
  const inTheme = (theme: string) => screen.page.evaluate((t: string) => document.documentElement.setAttribute('data-theme', t), theme);

  async function nothingFound(where: string, options: object): Promise<void> {
    const all = JSON.stringify({ resultTypes: ['violations'], ...options });
    const found = (await screen.page.evaluate(`axe.run(${all}).then((r) => r.violations)`)) as Finding[];
    expect(
      found
        .filter((f) => ['serious', 'critical'].includes(f.impact))
        .map((f) => `${f.id}: ${f.nodes.map((n) => `${n.html} ${n.failureSummary}`).join('; ')}`.slice(0, 600)),
    )
      .withContext(where)
      .toEqual([]);
  }
  const wide = () => screen.page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);

  it('finds nothing serious in the list and the Rulebook', async () => {
    await screen.visit('/');
    await screen.sees('li', 'Brinewick Salvage');
    await nothingSerious('list');
    await screen.click('link', 'Sessions');
    await screen.sees('li', 'this browser');
    await screen.sees('ee-trail li', 'signed in');
    await nothingSerious('sessions');
    await screen.visit(`/r/${trial.id}/trail`);
    await screen.sees('ee-trail li', 'began');
    await nothingSerious('trail');
    await screen.visit(trial.at('attributes', 'oxygen'));
    await screen.sees('h2', 'What it comes to');
    await nothingSerious('attribute');
    for (const [page, shows] of [
      ['Effects', 'What it comes to'],
      ['Abilities', 'What it comes to'],
      ['Actors', 'What it comes to'],
      ['World', 'What it comes to'],
      ['Loot', 'One opening gives, on average'],
      ['Economy', 'On paper'],
      ['Arena', 'The arena'],
      ['Wiring', 'No loose ends'],
    ]) {
      await screen.click('link', page);
      await screen.sees('h1, h2', shows);
      await nothingSerious(page);
    }
    await screen.click('link', 'Actors');
    await screen.sees('h2', 'What it comes to');
    for (const entry of ['Stunned', 'Down']) {
      await screen.entry(entry);
      await screen.sees('h2', 'What may be done');
      await nothingSerious(entry);
    }
    await screen.tap('header .findings');
    await screen.sees('mat-dialog-content', 'Nothing in this ruleset looks like a mistake.');
    await nothingSerious('findings');
  });

  it('finds nothing serious in Playtest', async () => {
    await screen.play(await trial.room());
    await screen.page.keyboard.press('y');
    await screen.sees('ee-why .line', 'clamp');
    await screen.page.keyboard.press('k');
    await screen.page.waitForSelector('ee-pokes');
    await nothingSerious('playtest');
    await screen.page.keyboard.press('Escape');
    await screen.poke('place', undefined, { Where: '880, 270', Seat: 'north' });
    await screen.page.keyboard.press('m');
    await screen.sees('ee-money-window h3', 'Brinewick yard');
    await nothingSerious('money');
  });

  it('fits a whole job into 1024 pixels', async () => {
    await screen.page.setViewport({ width: 1024, height: 768 });
    await screen.visit(trial.at('attributes', 'oxygen'));
    await screen.sees('h2', 'What it comes to');
    expect(await wide()).toBe(0);
    await screen.play(await trial.room());
    await screen.page.waitForSelector(`${seat('south')} canvas`);
    expect(await wide()).toBe(0);
  });

  it('fits the join page onto a phone', async () => {
    const { joins } = await trial.room();
    await screen.page.setViewport({ width: 390, height: 800, isMobile: true, hasTouch: true });
    await screen.visit(joins['north']);
    await screen.sees('header', 'north');
    await screen.page.waitForSelector('[data-attribute="oxygen"]');
    expect(await wide()).toBe(0);
    await nothingSerious('join page');
  });
});
