import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import type { Screen } from './screen.js';
import { eachWalk } from './suite.js';
import type { Trial } from './trial.js';
import type { Workbench } from './workbench.js';

const EMBER = fileURLToPath(new URL('../../packages/cli/bin/ember.cjs', import.meta.url));

describe('Sessions', () => {
  let workbench: Workbench;
  let screen: Screen;
  let trial: Trial;
  // Whoever else is signed in could be the one that is signed out here.
  eachWalk((walk) => ({ workbench, screen, trial } = walk), { own: 'server' });
  const link = () => execFileSync(process.execPath, [EMBER, 'link', '--socket', workbench.controlSocket], { encoding: 'utf8' }).trim();

  it('begin by a link from the machine’s own terminal, once, and end from another browser with all that is open', async () => {
    const room = await trial.room();
    const address = link();
    const [other, late] = [await workbench.stranger(), await workbench.stranger()];
    await other.page.goto(address);
    await other.sees('h1', 'Rulesets');
    await late.page.goto(address);
    await late.sees('body', 'This link opens nothing any more');
    await other.play(room);
    await workbench.restart();
    await other.sees('[aria-label="Seat north"] .verdict', 'Copy agrees with truth.');
    await screen.page.bringToFront();
    await screen.visit('/sessions');
    await screen.sees('main li', 'this browser');
    // Both are of one kind; the other one is not this.
    await screen.page.evaluate(() => {
      const others = [...document.querySelectorAll('main > ul > li')].filter((one) => !one.textContent?.includes('this browser'));
      others[0].querySelector<HTMLElement>('button')!.click();
    });
    // It may be out of the room just now: then it is told as it asks to come back.
    await other.page.bringToFront();
    await other.sees('[role="alert"]', 'You are signed out.');
    await other.visit('/');
    await other.sees('[role="alert"]', 'have npx ember link print a new one');
    await screen.page.bringToFront();
    await screen.page.reload();
    await screen.sees('ee-trail li', 'signed out another browser: Chromium on Linux');
    await screen.sees('ee-trail li', 'terminal had a sign-in link printed');
    expect(other.complaints).toEqual([]);
  });

  it('are left, and what was done is in the trail of the ruleset', async () => {
    const own = await workbench.stranger();
    await own.page.goto(link());
    await own.sees('h1', 'Rulesets');
    await own.visit(trial.at('attributes', 'finSpeed'));
    await own.edit('base', '150');
    await own.sees('[role="status"]', 'saved · rev 2');
    const room = await trial.room();
    await own.play(room);
    await own.poke('give', 'scrip', { Amount: '3', Seat: 'north' });
    await own.visit(`/r/${trial.id}/trail`);
    await own.sees('ee-trail li', /author poked north in \S+: give \(attribute scrip, amount 3\)/);
    await own.sees('ee-trail li', 'author edited attributes 6: revision 2');
    const lines = await own.page.evaluate(
      async (ruleset: string) => (await fetch(`/api/rulesets/${ruleset}/trail/lines`)).text(),
      trial.id,
    );
    const whats = lines
      .trim()
      .split('\n')
      .map((line) => (JSON.parse(line) as { what: string }).what);
    expect(whats).toEqual(['begun', 'edited', 'roomOpened', 'poked']);
    await own.visit('/sessions');
    await own.tap('main > ul > li:has(b) button');
    await own.sees('[role="alert"]', 'You are not signed in.');
    expect(own.complaints).toEqual([]);
  });
});
