import { withWorkbench } from './suite.js';
import type { Screen, Workbench } from './workbench.js';

const seat = (name: string) => `[aria-label="Seat ${name}"]`;
const lines = (name = 'north') => `${seat(name)} ee-quest-lines`;
const MANIFEST = '230, 100';

describe('Quests, and what is kept of players', () => {
  let workbench: Workbench;
  let screen: Screen;
  withWorkbench((started, signedIn) => {
    workbench = started;
    screen = signedIn;
  });
  afterEach(() => expect(screen.complaints.splice(0)).toEqual([]));

  const saved = () => screen.sees('[role="status"]', /saved/);
  const offered = (prompt: string) => `${seat('north')} ee-around button ::-p-text(${prompt})`;
  const put = (where: string, name = 'north') => screen.poke('place', undefined, { Where: where, Seat: name });

  it('writes a quest as sentences, and walks its path beside them', async () => {
    await screen.page.locator('ul li a').click();
    await screen.sees('[aria-label="Spec"]', 'A pool');
    await screen.click('link', 'Quests');
    await screen.page.locator('.index a ::-p-text(The Manifest)').click();
    await screen.sees('ee-quest-path', 'Chart-keeper, when asked');
    await screen.click('button', 'accept');
    await screen.click('button', 'Count one for wreck');
    await screen.sees('[data-goal="pages"]', 'Pages in hand 0/3');
    for (let n = 0; n < 3; n++) {
      await screen.click('button', 'Count one for pages');
      await screen.sees('[data-goal="pages"]', `Pages in hand ${n + 1}/3`);
    }
    await screen.click('button', 'hand in');
    await screen.sees('[data-told]', /gains 120 standing/);
    await screen.edit('line of pages', 'Pages of the old freight list that are in hand {have}/{need}');
    await screen.sees('ee-entry-findings', 'a line of the display has room for 40');
    await screen.click('button', 'Undo Ctrl Z');
    await screen.edit('count of pages', '4');
    await screen.sees('ee-entry-findings', '4 are asked for, and there are 3');
    await screen.click('button', 'Undo Ctrl Z');
    await screen.sees('button.findings', '0 findings');
    await saved();
  });

  it('begins one of its own: offered by no one at first, with a step more, and a limit', async () => {
    await screen.click('button', '+ quest');
    await screen.sees('[data-step="first"]', 'Felled {have}/{need}');
    await screen.click('button', '+ step');
    await screen.page.waitForSelector('[data-step="step"]');
    await screen.click('button', 'time');
    await screen.sees('ee-quest-sentences', 'It has to be done within 60 s');
    await screen.click('button', 'accept');
    await screen.click('button', 'a minute');
    await screen.sees('[data-standing]', 'failed');
    await saved();
  });

  it('takes quests in from a table, as a whole or not at all', async () => {
    await screen.click('button', 'quests from a table …');
    const read = async (text: string) => {
      await screen.page.$eval(
        'mat-dialog-container input[type="file"]',
        (e, content) => {
          const files = new DataTransfer();
          files.items.add(new File([content], 'quests.csv', { type: 'text/csv' }));
          (e as HTMLInputElement).files = files.files;
          e.dispatchEvent(new Event('change'));
        },
        text,
      );
    };
    const head = 'quest,title,step,goal,line,event,count\n';
    await read(`${head}lampOil,Lamp oil,fetch,kelp,Kelp {have}/{need},pickupTakn pickup=glowKelp,2\n`);
    await screen.sees('mat-dialog-container', 'No event is called pickupTakn');
    await read(`${head}lampOil,Lamp oil,fetch,kelp,Kelp {have}/{need},pickupTaken pickup=glowKelp,2\n`);
    await screen.sees('mat-dialog-container', '1 new');
    await screen.click('button', 'Take it');
    await screen.sees('mat-dialog-container', 'It can be undone in one step');
    await screen.page.keyboard.press('Escape');
    await screen.sees('.index', 'Lamp oil');
    await screen.page.locator('.index a ::-p-text(Lamp oil)').click();
    await screen.sees('ee-entry-findings', 'No one offers Lamp oil');
    await saved();
  });

  it('offers the first quest that a diver may have; accepted once, counted, handed in', async () => {
    await screen.page.keyboard.press('p');
    await screen.sees('.verdict', 'Copy agrees with truth');
    // Air for as long as the walk takes, however slow the machine.
    await screen.poke('grant', 'inBell', { Seat: 'north' });
    await screen.sees(`${lines()} .offer`, 'First Descent');
    await screen.sees(`${lines()} [data-rewards]`, '40 Standing, 10 Scrip');
    await screen.page.keyboard.press('n');
    await screen.sees(`${lines()} .offer`, 'New quest');
    await screen.page.keyboard.press('n');
    await screen.lacks(`${lines()} .offer`);
    await put(MANIFEST);
    await screen.page.locator(offered('Ask for work')).click();
    await screen.sees(`${lines()} .offer`, 'The Manifest');
    await screen.page.keyboard.press('o');
    await screen.sees(`${lines()} [data-quest="theManifest"]`, 'Reach the wreck');
    // Into the wreck and out of it again, before what nests there has come; the pages further off are counted from outside.
    await put('475, 420');
    await put('60, 200');
    await screen.sees(`${lines()} [data-quest="theManifest"]`, 'Pages in hand 1/3');
    await screen.poke('countGoal', 'theManifest', { Amount: '2', Seat: 'north' });
    await screen.sees(`${lines()} [data-quest="theManifest"]`, 'Return to: Chart-keeper');
    await put(MANIFEST);
    await screen.page.locator(offered('Ask for work')).click();
    await screen.sees(`${seat('north')} [data-attribute="scrip"]`, /\d\d/);
    await screen.sees('ee-trace li', 'north has done “The Manifest”');
    // What comes next is offered at once; the quest itself never again.
    await screen.sees(`${lines()} .offer`, 'Quiet Hull');
    await screen.page.keyboard.press('o');
    await screen.sees(`${lines()} [data-quest="quietHull"]`, /\d+ s/);
    await screen.poke('hurt', 'suit', { Amount: '1', Seat: 'north' });
    await screen.lacks(`${lines()} [data-quest="quietHull"]`);
    await screen.sees('ee-trace li', 'north fails in “Quiet Hull”');
  });

  it('shares six lampreys in the crew, and gives a daily one back', async () => {
    const asked = async (title: string) => {
      await screen.page.locator(offered('Ask for work')).click();
      await screen.sees(`${lines()} .offer`, title);
      await screen.page.keyboard.press('o');
      await screen.lacks(`${lines()} .offer`);
    };
    await asked('Clear the Slipway');
    await screen.poke('countGoal', 'clearTheSlipway', { Amount: '2', Seat: 'north' });
    await screen.sees(`${lines()} [data-quest="clearTheSlipway"]`, '2/6');
    await asked('Kelp for the lamps');
    await screen.page.locator(`${seat('north')} [data-quests]`).click();
    await screen.sees('ee-quest-window', 'The Manifest done');
    await screen.click('button', 'Give up Kelp for the lamps');
    await screen.sees('ee-quest-window', 'Kelp for the lamps given up');
    await screen.page.locator('ee-quest-window button ::-p-text(close)').click();
    await asked('Kelp for the lamps');
    await screen.poke('finishQuest', 'dailyKelp', { Seat: 'north' });
    await screen.page.locator(offered('Ask for work')).click();
    await screen.sees(`${seat('north')} [role="alert"]`, /Come back in \d+/);
    await screen.poke('passTime');
    await asked('Kelp for the lamps');
  });

  it('has all of it after the server was killed, and on the sheet of the player', async () => {
    const scrip = await screen.text(`${seat('north')} [data-attribute="scrip"] .mono`).catch(() => '');
    await screen.sees('.kept', /kept up to tick \d+/);
    await workbench.kill();
    await screen.sees('[role="alert"]', 'lost');
    await workbench.serve();
    await screen.sees(`${lines()} [data-quest="clearTheSlipway"]`, '2/6');
    await screen.sees(`${lines()} [data-quest="dailyKelp"]`, '0/3');
    if (scrip !== '') await screen.sees(`${seat('north')} [data-attribute="scrip"]`, scrip);
    await screen.click('button', 'Leave it');
    await screen.click('link', 'Rulebook');
    await screen.click('link', 'Players');
    await screen.page.locator('.index a ::-p-text(north)').click();
    await screen.sees('.sheet h1', 'north');
    await screen.sees('[data-part="quests"]', 'The Manifest, times done');
  });

  it('puts a player right, refuses what the rules do not give, resets a part, and takes it back', async () => {
    const scrip = 'input[aria-label="Scrip"]';
    await screen.fill(scrip, '123');
    await screen.sees('.done', 'Scrip: 123');
    await screen.fill('input[aria-label="Standing, level"]', '21');
    await screen.sees('.refusal', '1 to 20 is expected, and this is 21');
    await screen.holds(scrip, '123');
    await screen.click('button', 'Reset Quests');
    await screen.sees('.done', 'Quests reset');
    await screen.lacks('[data-part="quests"]');
    await screen.page.locator('.sheet .tools button ::-p-text(Undo)').click();
    await screen.sees('[data-part="quests"]', 'The Manifest, times done');
    await screen.page.reload();
    await screen.holds(scrip, '123');
    await screen.page.locator('.index a ::-p-text(anchor)').click();
    await screen.sees('.sheet h1', 'anchor');
    await screen.sees('[data-part="tracks"]', 'Standing, level');
  });

  it('shows what an edit of the rules would take from saved players, before it does', async () => {
    await screen.click('link', 'Levels');
    await screen.sees('[data-way]', 'level 10');
    await screen.edit('levels', '6');
    await screen.sees('.banner', /3 saved players would lose something|saved players would lose something/);
    await screen.sees('.banner', 'Standing, level');
    await screen.click('button', 'Take the edit back');
    await screen.sees('[data-way]', 'to level 10');
    await saved();
    await screen.edit('levels', '6');
    await screen.sees('.banner', 'would lose something');
    await screen.click('button', 'Take it from them');
    await saved();
    await screen.click('link', 'Players');
    await screen.page.locator('.index a ::-p-text(anchor)').click();
    await screen.sees('.sheet h1', 'anchor');
  });
});
