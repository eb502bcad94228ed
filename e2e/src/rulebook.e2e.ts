import { demo, type Trial } from './trial.js';
import type { Screen } from './screen.js';
import { eachWalk } from './suite.js';
import type { Workbench } from './workbench.js';

/** How long a full tank lasts, in the table beside the chart: as the demo ships, and with an edit of its refill. */
const FASTER = 'has(inBell) ? breathRate : -1';
const [LASTS, LASTS_LONGER] = [50.925, 63.95];

describe('The Rulebook', () => {
  let workbench: Workbench;
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ workbench, screen, trial } = walk));

  const oxygen = async () => {
    await screen.visit(trial.at('attributes', 'oxygen'));
    await screen.drawnAs(LASTS, false);
  };
  const refill = () => trial.stored().then(({ attributes }) => (attributes[0]['refill'] as { rate: string }).rate);

  it('opens from a one-time link on the demo', async () => {
    await workbench.restart();
    const stranger = await workbench.stranger();
    await stranger.page.goto(workbench.link);
    await stranger.sees('h1', 'Rulesets');
    await stranger.sees('li', /Brinewick Salvage.*\d+ stats, \d+ effects, \d+ abilities/);
    await stranger.tap(`ul li a[href*="${trial.id}"]`);
    await stranger.sees('[aria-label="Spec"]', 'A pool from 0 to lung capacity, in seconds of air, starting full.');
    await stranger.drawnAs(LASTS, false);
  });

  it('shows the new curve at once when the refill changes, with the old one as a ghost; undoes and redoes; is the same after a reload', async () => {
    await oxygen();
    await screen.edit('refill a second', FASTER);
    await screen.drawnAs(LASTS_LONGER, true);
    await screen.sees('tbody tr', 'Empty, from full 60 s 90 s');
    await screen.sees('[role="status"]', 'saved · rev 2');
    await screen.undo();
    await screen.drawnAs(LASTS, true);
    await screen.sees('[role="status"]', 'saved · rev 3');
    await screen.click('button', 'Redo');
    await screen.drawnAs(LASTS_LONGER, true);
    await screen.sees('[role="status"]', 'saved · rev 4');
    await screen.page.reload();
    await screen.sees('ee-part button', FASTER);
    await screen.sees('[role="status"]', 'saved · rev 4');
  });

  it('refuses a start above the maximum under the sentence; the old value keeps working', async () => {
    await oxygen();
    await screen.edit('start', '500');
    await screen.sees('ee-sentence [role="alert"]', 'The start 500 is above the maximum 90.');
    await screen.drawnAs(LASTS, false);
    await screen.page.keyboard.press('Escape');
    await screen.lacks('ee-sentence [role="alert"]');
    await screen.sees('ee-part button', 'full');
    await screen.sees('[role="status"]', 'saved · rev 1');
  });

  it('says where a formula is wrong and what was meant', async () => {
    await oxygen();
    await screen.edit('refill a second', 'breathRat * 2');
    await screen.sees('ee-sentence [role="alert"]', 'Nothing is called breathRat here. Did you mean breathRate?');
    await screen.page.keyboard.press('Escape');
    await screen.lacks('ee-sentence [role="alert"]');
  });

  it('lets a name be picked with the keyboard alone', async () => {
    await oxygen();
    await screen.page.focus('ee-part button[aria-label^="maximum: "]');
    await screen.page.keyboard.press('Enter');
    await screen.page.waitForSelector('ee-part input');
    await screen.page.keyboard.type('suit r');
    await screen.page.waitForFunction(() => document.querySelectorAll('mat-option').length === 1);
    // The list takes note of its new options a moment after they are drawn, and forgets then what was chosen before.
    await screen.until('Suit rating is chosen', async () => {
      await screen.page.keyboard.press('ArrowDown');
      await screen.settled();
      return (await screen.page.$('mat-option.mat-mdc-option-active')) !== null;
    });
    await screen.sees('mat-option.mat-mdc-option-active', 'Suit rating');
    await screen.page.keyboard.press('Enter');
    await screen.sees('[aria-label="Spec"]', 'A pool from 0 to suit rating');
    await screen.takeBack();
    await screen.sees('[aria-label="Spec"]', 'A pool from 0 to lung capacity');
  });

  it('takes a clause in and out', async () => {
    await oxygen();
    await screen.click('button', 'pause after a loss');
    await screen.sees('[aria-label="Spec"]', 'and rests 2 s after a loss');
    await screen.takeBack();
    await screen.sees('ee-clauses', 'pause after a loss');
  });

  it('shows the entry as JSON and validates as it is typed', async () => {
    await oxygen();
    await screen.click('button', 'Source');
    await screen.page.waitForSelector('.cm-content');
    await screen.sees('.cm-content', '"id": "oxygen"');
    await screen.page.click('.cm-content');
    await screen.page.keyboard.down('Control');
    await screen.page.keyboard.press('End');
    await screen.page.keyboard.up('Control');
    await screen.page.keyboard.type('!');
    await screen.sees('.verdict', 'This is not JSON');
    await screen.page.keyboard.press('Backspace');
    await screen.sees('.verdict', 'Sound, and applied.');
    await screen.click('button', 'Sentences');
    await screen.sees('[aria-label="Spec"]', 'A pool from 0 to lung capacity');
  });

  it('leaves what is typed alone while what was typed before is being applied', async () => {
    await screen.visit(trial.at('attributes', 'finSpeed'));
    await screen.holds('input[aria-label="Id"]', 'finSpeed');
    await screen.click('button', 'Source');
    await screen.sees('.cm-content', '"start": 120,');
    // Every digit is a sound edit on its way when the next one comes; the letter is none.
    await screen.page.click('.cm-line:nth-child(5)');
    await screen.page.keyboard.press('End');
    await screen.page.keyboard.press('ArrowLeft');
    for (const key of ['Backspace', '5', 'x'] as const) await screen.page.keyboard.press(key);
    await screen.sees('.verdict', 'This is not JSON');
    await screen.saved();
    expect(await screen.text('.cm-content')).toContain('"start": 125x,');
    await screen.page.keyboard.press('Backspace');
    await screen.sees('.verdict', 'Sound, and applied.');
    await screen.click('button', 'Sentences');
    await screen.sees('[aria-label="Spec"]', 'A stat that is 125');
  });

  it('loses nothing of who is faster than their edits are looked at', async () => {
    await oxygen();
    await screen.lag(400);
    await screen.edit('refill a second', '7');
    await screen.edit('interval', '2s');
    await screen.edit('minimum', '1');
    await screen.sees('[aria-label="Spec"]', /A pool from 1 to .* It refills 7 a second, every 2 s/);
    await screen.lag(0);
    await screen.undo(3);
    await screen.sees('[aria-label="Spec"]', /A pool from 0 to .* every tick/);
  });

  it('begins a new attribute, gives it to the divers, and deletes it with a way back', async () => {
    await oxygen();
    await screen.click('button', '+ attribute');
    await screen.holds('input[aria-label="Id"]', 'newAttribute');
    await screen.sees('[aria-label="Evidence"]', 'no kind of actor has it');
    await screen.tap('ee-carriers button');
    await screen.sees('[aria-label="Evidence"]', 'What becomes of it');
    await screen.click('button', 'Delete');
    await screen.holds('input[aria-label="Id"]', 'oxygen');
    expect(await screen.page.$$eval('.index', (all) => all.map((e) => e.textContent?.includes('New attribute')))).toEqual([false]);
    await screen.takeBack();
    await screen.sees('.index', 'New attribute');
    await screen.saved();
  });

  it('offers to reapply an edit that came second', async () => {
    await oxygen();
    const other = await workbench.screen();
    await other.visit(trial.at('attributes', 'oxygen'));
    await other.drawnAs(LASTS, false);
    await other.edit('refill a second', FASTER);
    await other.sees('[role="status"]', 'saved · rev 2');
    await screen.page.bringToFront();
    await screen.edit('group', 'Air');
    await screen.sees('.banner', 'This ruleset was edited elsewhere');
    await screen.click('button', 'Reapply my 1 edit');
    await screen.lacks('.banner');
    await screen.sees('[aria-label="Spec"]', FASTER);
    await screen.sees('[aria-label="Spec"]', 'listed under Air');
    await screen.sees('[role="status"]', 'saved · rev 3');
    expect(await refill()).toBe(FASTER);
  });

  it('takes a ruleset in from a file, or lists all that is wrong with it', async () => {
    await screen.visit('/');
    const text = JSON.stringify(demo(), undefined, 2);
    await screen.takeIn(
      'bad.json',
      text.replace('"start": 14', '"start": 1e999, "odd": 1').replace('"id": "silted"', '"id": "in bell"'),
      'body',
    );
    await screen.sees('.problems', /was not taken in: \d problems/);
    for (const path of ['/attributes/2/start', '/attributes/2/odd', '/statuses/3/id']) await screen.sees('.problems code', path);
    await screen.takeIn('good.json', text.replace('Brinewick Salvage', 'Second Harbour'), 'body');
    await screen.sees('[aria-label="Spec"]', 'A pool from 0 to lung capacity');
    await screen.holds('.name', 'Second Harbour');
  });

  it('begins an empty ruleset and says what to do first', async () => {
    await screen.visit('/');
    await screen.page.locator('input[aria-label="Name of a new ruleset"]').fill('Empty Quay');
    await screen.click('button', 'Begin it');
    await screen.sees('h1', 'No attribute yet');
    await screen.click('button', 'Begin the first attribute');
    await screen.sees('[aria-label="Spec"]', 'A pool from 0 to 100, starting full.');
  });
});
