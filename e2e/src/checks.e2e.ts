import type { Screen } from './screen.js';
import { eachWalk } from './suite.js';
import { demo, entryOf, Trial } from './trial.js';
import type { Workbench } from './workbench.js';

describe('Checks', () => {
  let workbench: Workbench;
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ workbench, screen, trial } = walk));

  const CHECKS = demo()['checks'].length;
  const SPEC = '[aria-label="Spec"]';
  const STORY = 'ee-check-story';
  /** Adds something by a chip and the menus that it opens. */
  const add = async (chip: string, ...items: string[]) => {
    await screen.click('button', chip);
    for (const item of items) await screen.click('menuitem', item);
    await screen.lacks('.mat-mdc-menu-panel');
  };
  const paste = (selector: string, text: string) =>
    screen.page.$eval(
      selector,
      (e, pasted) => {
        const clipboardData = new DataTransfer();
        clipboardData.setData('text/plain', pasted);
        e.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
      },
      text,
    );

  it('are written before the rule, and turn green as it is written', async () => {
    await screen.visit('/');
    await screen.page.locator('input[aria-label="Name of a new ruleset"]').fill('Empty Quay');
    await screen.click('button', 'Begin it');
    await screen.sees('h1', 'No attribute yet');
    const written = new Trial(workbench, /^\/r\/([^/]+)/.exec(new URL(screen.page.url()).pathname)![1]);
    await screen.click('link', 'Checks');
    await screen.click('button', 'Begin the first check');
    await screen.holds('input[aria-label="Id"]', 'newCheck');
    await screen.fill('.title', 'Healing');
    await screen.holds('input[aria-label="Id"]', 'healing');
    await screen.pick('button[aria-label="More about north"]', 'a value');
    await screen.sees(SPEC, 'with 1 health');
    await screen.pick('button[aria-label="More about north"]', 'the most that health can be');
    await screen.sees(SPEC, 'of at most 12');
    await add('when', 'something is done', 'raise a pool');
    await screen.edit('amount', '2');
    await add('then', 'a value is so much');
    await screen.sees(SPEC, 'then health of north is 1.');
    await screen.edit('amount', '3', 'ee-test-line');
    // There is no health yet, and it says so.
    await screen.sees('header .failing', '1 of 1 fails');
    await screen.sees('ee-given-line ee-verdict', 'The attributes have no entry health.');
    // The rule is written.
    await screen.click('link', 'Rulebook');
    await screen.click('button', 'Begin the first attribute');
    await screen.holds('input[aria-label="Id"]', 'newAttribute');
    await screen.fill('.title', 'Health');
    await screen.holds('input[aria-label="Id"]', 'health');
    await screen.sees('header .failing', '1 of 1 fails');
    await screen.click('button', 'make a player who does');
    await screen.sees('ee-carriers', '☑ Player');
    await screen.edit('maximum', '12');
    await screen.lacks('header .failing');
    await screen.click('link', 'Checks');
    await screen.sees('ee-test-line ee-verdict', 'as it should: 3');
    await screen.sees(STORY, 'All of it holds.');
    // A start above the maximum is refused.
    await screen.click('button', '+ check');
    await screen.holds('input[aria-label="Id"]', 'newCheck');
    await add('another rule');
    await screen.sees('ee-change-line', 'With start of health');
    await screen.edit('changed value', '20');
    await screen.sees('ee-change-line', 'being 20');
    await add('then', 'the ruleset is refused');
    await screen.edit('words', 'above the maximum');
    await screen.sees('ee-test-line ee-verdict', /as it should: “The start 20 is above the maximum 12/);
    await screen.saved();
    const { checks } = await written.stored();
    expect(checks.map(({ id }) => id)).toEqual(['healing', 'newCheck']);
    expect(checks[0]).toEqual(
      jasmine.objectContaining({
        given: [{ name: 'north', with: [{ attribute: 'health', value: 1, atMost: 12 }] }],
        stages: [
          {
            when: [{ on: 'north', action: { do: 'heal', attribute: 'health', amount: 2 } }],
            then: [{ of: 'north', value: 'health', how: 'is', amount: 3 }],
          },
        ],
      }),
    );
  });

  it('are run for each row of a table, pasted from a spreadsheet; the row that fails is named', async () => {
    await screen.visit(trial.at('checks', 'harmLeaves'));
    await screen.sees('ee-check-table', 'For each of');
    await screen.sees(`${STORY} h2`, 'What happened');
    await paste('ee-check-table input[aria-label="Name of column 1"]', 'suit\thurt\tleft\n100\t30\t70\n50\t50\t1\n90\t9\t81\n');
    await screen.sees('header .failing', `1 of ${CHECKS} fails`);
    await screen.sees(`${STORY} .rows`, 'suit 50, hurt 50, left 1');
    await screen.sees(`${STORY} .wrong`, 'north: suit is 0, not 1.');
    await screen.holds('input[aria-label="left of row 2"]', '1');
    await screen.page.click(`${STORY} .wrong button.act`);
    await screen.holds('input[aria-label="left of row 2"]', '0');
    await screen.lacks('header .failing');
    await screen.saved();
    expect((entryOf(await trial.stored(), 'checks', 'harmLeaves')['each'] as { rows: unknown }).rows).toEqual([
      [100, 30, 70],
      [50, 50, 0],
      [90, 9, 81],
    ]);
  });

  it('say at what time something happens, give or take, row by row', async () => {
    await screen.visit(trial.at('checks', 'harpoonTakesItsTime'));
    await screen.sees('ee-test-line', /at row.seconds ?×, give or take 50 ms/);
    await screen.sees('ee-check-foot p', `${CHECKS} hold`);
    const [cell, wrong] = ['input[aria-label="seconds of row 3"]', `${STORY} .wrong`];
    await screen.fill(cell, '0.5');
    await screen.sees(wrong, 'eel: it happened at 0.9 s, not at 0.5 s, give or take 0.05 s.');
    await screen.click('button', 'Take this as right: 0.9');
    await screen.holds(cell, '0.9');
    await screen.lacks('header .failing');
    // What makes no sense where it stands is told at its cell.
    await screen.fill(cell, 'soon');
    await screen.sees('ee-check-table .wrong', '“soon” does not fit where row.seconds stands');
    await screen.fill(cell, '0.9');
    await screen.lacks('header .failing');
    // A distance and a time of its own: what a row has stands for either.
    await screen.edit('time that it may be off', 'row.x');
    await screen.sees('ee-test-line', 'give or take row.x');
    await screen.click('button', 'Take out the time at which');
    await screen.lacks('ee-part button[aria-label^="time at which: "]');
    await screen.click('button', 'More about this expectation');
    await screen.click('menuitem', 'within a time');
    await screen.sees('ee-test-line ee-verdict', /as it should: at 0.3 s/);
    await screen.saved();
    await screen.page.reload();
    await screen.sees('ee-test-line', 'within 2 s');
  });

  it('have somebody come in later, and follow what they are called', async () => {
    await screen.visit(trial.at('checks', 'fullIsLungs'));
    await screen.sees('ee-test-line ee-verdict', 'as it should');
    await add('when', 'somebody comes in');
    await screen.sees('ee-given-line', /called .*, that comes later/);
    await screen.sees('ee-step-line', 'When south comes in');
    await screen.fill('ee-given-line:last-of-type input[aria-label="Name"]', 'late');
    await screen.sees('ee-step-line', 'When late comes in');
    await screen.lacks('header .failing');
    await screen.saved();
    expect(JSON.stringify(entryOf(await trial.stored(), 'checks', 'fullIsLungs'))).toContain('{"joins":"late"}');
  });

  it('turn red at an edit, in the bar of every page, and say what there was and why', async () => {
    await screen.visit(trial.at('abilities', 'bite'));
    await screen.sees('h2', 'What it comes to');
    await screen.edit('amount', '90');
    await screen.sees('header .failing', `3 of ${CHECKS} fail`);
    await screen.tap('header .failing');
    await screen.sees('ee-test-line ee-verdict', 'north: suit is 10, not 91.');
    await screen.sees(`${STORY} .wrong`, 'expected 91, found 10');
    await screen.sees(`${STORY} .chain`, /eel: north’s suit 100 → 10.*because.*eel’s bite hits north.*because.*eel uses bite/);
    await screen.page.waitForSelector(`${STORY} canvas[data-drawn]`);
    // What no check has run stands below it.
    await screen.sees('ee-covered li', /Spawners .*3 of 3/);
    // To the rule and back, to the next that fails, and what there is is taken as right.
    await screen.click('link', 'Show the rule: Bite');
    await screen.sees('h2', 'What it comes to');
    await screen.sees('ee-run-by', /A lamprey’s bite takes nine.* 1 of its 1 action/);
    await screen.tap('header .failing');
    await screen.sees(`${STORY} .wrong`, 'expected 91, found 10');
    await screen.click('button', 'Take this as right: 10');
    await screen.sees('header .failing', `2 of ${CHECKS} fail`);
    await screen.page.keyboard.press('n');
    await screen.sees(`${STORY} .wrong`, 'suit is');
    await screen.saved();
    // All of it is there after a reload.
    await screen.page.reload();
    await screen.sees('header .failing', `2 of ${CHECKS} fail`);
    await screen.entry('A lamprey’s bite takes nine');
    await screen.sees('ee-test-line ee-verdict', 'as it should: 10');
  });

  it('follow a renaming, and are in the way of no deletion', async () => {
    await screen.visit(trial.at('checks', 'siltHalves'));
    await screen.sees('ee-test-line', 'has(silted)');
    await screen.fill('ee-given-line input[aria-label="Name"]', 'diver');
    await screen.visit(trial.at('statuses', 'silted'));
    await screen.holds('input[aria-label="Id"]', 'silted');
    await screen.fill('input[aria-label="Id"]', 'muddied');
    await screen.sees('.page.spec', 'formerly silted');
    await screen.saved();
    expect((await trial.stored())['statuses'].map((status) => status.id)).toContain('muddied');
    await screen.visit(trial.at('checks', 'siltHalves'));
    await screen.sees('ee-test-line', 'has(muddied)');
    await screen.lacks('header .failing');
    await screen.visit(trial.at('checks', 'windRefused'));
    await screen.sees('ee-step-line', 'uses second wind');
    await screen.saved();
    const renamed = entryOf(await trial.stored(), 'checks', 'siltHalves');
    expect(JSON.stringify(renamed)).toContain('"on":"diver"');
  });
});
