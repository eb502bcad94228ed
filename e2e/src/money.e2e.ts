import { withWorkbench } from './suite.js';
import { Screen, type Workbench } from './workbench.js';

const seat = (name: string) => `[aria-label="Seat ${name}"]`;
const BROKER = '880, 270';

describe('Loot and money', () => {
  let workbench: Workbench;
  let screen: Screen;
  withWorkbench((started, signedIn) => {
    workbench = started;
    screen = signedIn;
  });
  afterEach(() => expect(screen.complaints.splice(0)).toEqual([]));

  const saved = () => screen.sees('[role="status"]', /saved/);
  const undo = () => screen.click('button', 'Undo Ctrl Z');
  const chance = (line: string, words: string | RegExp) => screen.sees(`[data-chance="${line}"]`, words);
  const value = (name: string, attribute: string) => `${seat(name)} [data-attribute="${attribute}"]`;
  const put = (where: string, name = 'north') => screen.poke('place', undefined, { Where: where, Seat: name });
  const give = (attribute: string, amount: string, name = 'north') => screen.poke('give', attribute, { Amount: amount, Seat: name });
  const money = (name: string) => `${seat(name)} ee-money-window`;

  it('shows real chances beside weights: a lone entry is certain, and more entries mean less of each', async () => {
    await screen.page.locator('ul li a').click();
    await screen.sees('[aria-label="Spec"]', 'A pool');
    await screen.click('link', 'Loot');
    await screen.page.locator('.index a ::-p-text(Lamprey)').click();
    await chance('brass', '25 %');
    await chance('pearl', '2 %');
    for (const line of ['piece of cut glass', 'tide-pearl', 'glow-kelp', 'nothing']) {
      await screen.click('button', `Take out ${line}`);
      // The lines below move up: what is clicked next has to have come to rest.
      await screen.lacks(`[aria-label="Take out ${line}"]`);
    }
    await screen.edit('weight of loose brass', '0.01');
    await chance('brass', '100 %');
    await screen.sees('ee-entry-findings', 'Weights are shares');
    await screen.click('button', 'Add nothing, weight 1');
    await chance('brass', '0.99 %');
    for (let n = 0; n < 6; n++) await undo();
    await chance('brass', '25 %');
    await saved();
  });

  it('follows a nested table, a range, two rolls, what is always there, and a condition on standing', async () => {
    await screen.click('button', 'nested table');
    await screen.page.waitForSelector('[data-chance="angler"]');
    await chance('angler', '0.99 %');
    await undo();
    await screen.edit('rolls', '2');
    await screen.sees('[data-thing="nothing"]', '30.3 %');
    await screen.edit('quantity of loose brass', '1 to 3');
    await screen.sees('ee-loot-odds li', /loose brass 1$/);
    await screen.click('button', '+ if: condition for tide-pearl');
    await screen.edit('condition of tide-pearl', 'level(standing) >= 3');
    await chance('pearl', '0 %');
    await screen.fill('input[aria-label="For one with standing"]', '3');
    await chance('pearl', '2 %');
    await screen.click('button', 'always');
    await screen.page.waitForSelector('[data-line] .chance');
    for (let n = 0; n < 5; n++) await undo();
    await saved();
  });

  it('says how many openings it takes, agrees with a sample of the real core, and cuts the tail with a streak breaker', async () => {
    await screen.page.locator('.index a ::-p-text(Strongbox)').click();
    await screen.sees(
      '[data-until]',
      'Half of players have one by the 16th, nine in ten by the 25th, ninety-nine in a hundred by the 28th.',
    );
    await screen.click('button', 'sample a million');
    await screen.sees('[data-sample]', /sampled openings|A sampled million/);
    await screen.sees('[data-sample]', /A sampled million agrees: largest difference/);
    await screen.click('button', 'Take out: streak breaker');
    await screen.sees('[data-until]', /by the 16th, nine in ten by the 52nd, ninety-nine in a hundred by the 103rd/);
    await screen.sees('[data-until]', 'Before: 16, 25, 28.');
    await undo();
    await screen.sees('[data-until]', '28th');
    await saved();
  });

  it('takes loot tables in from CSV, as a whole or not at all', async () => {
    await screen.click('button', 'CSV …');
    const read = (text: string) =>
      screen.page.$eval(
        'mat-dialog-container input[type="file"]',
        (e, content) => {
          const files = new DataTransfer();
          files.items.add(new File([content], 'loot.csv', { type: 'text/csv' }));
          (e as HTMLInputElement).files = files.files;
          e.dispatchEvent(new Event('change'));
        },
        text,
      );
    await read('table,entry,weight,kind,what\nwreckage,splinter,1,gives,scrp\n');
    await screen.sees('mat-dialog-container', 'scrip');
    await read('table,title,entry,weight,kind,what\nwreckage,Wreckage,splinter,1,gives,scrip\nwreckage,,nothing,3,,\n');
    await screen.sees('mat-dialog-container', '1 new');
    await screen.click('button', 'Take it');
    await screen.sees('mat-dialog-container', 'It can be undone in one step');
    await screen.page.keyboard.press('Escape');
    await screen.lacks('mat-dialog-container');
    await screen.page.locator('.index a ::-p-text(Wreckage)').click();
    await chance('splinter', '25 %');
    await undo();
    await saved();
  });

  it('plays a thousand games of each plan in workers, can be stopped, and compares on the same luck', async () => {
    await screen.click('link', 'Economy');
    await screen.sees('dl', 'about 75 scrip at middling prices');
    await screen.click('button', 'play');
    await screen.click('button', 'stop');
    await screen.click('button', 'play');
    await screen.sees('[data-plan="upgradeFirst"]', '1000', 80_000);
    await screen.lacks('progress');
    await screen.sees('[data-plan="hold"]', /Hold 2\d\.\d ± 0\.\d/);
    await screen.page.locator('.index a ::-p-text(Bunks)').click();
    await screen.sees('ee-offer-sentences', 'Whoever has it pays');
    await screen.edit('upkeep', '7 * tier');
    await screen.sees('[data-change]', /than before, on the same luck: \d+\.\d\d ± \d\.\d\d days longer/);
    await screen.click('button', 'stop').catch(() => undefined);
    await undo();
    await saved();
  }, 120_000);

  it('drops what falls for the one who felled it, and says in the trace which roll gave what', async () => {
    await screen.page.keyboard.press('p');
    await screen.sees(`${seat('north')} .verdict`, 'Copy agrees with truth.');
    await put('480, 200', 'south');
    await put('300, 200');
    await screen.poke('drop', 'strongbox', { Seat: 'north' });
    await screen.sees('ee-trace li', /Strongbox for north: \d+ × scrip \(always there\)/);
    await screen.sees('ee-trace li', /Strongbox for north: .*\(roll 1 of 2, chance \d+(\.\d)? %\)/);
    await screen.sees(value('north', 'scrip'), /[1-9]/);
    await screen.sees(value('south', 'scrip'), /\b0$/);
  });

  it('sells one, all, and nothing that it has not; buys a tier in one step; ends the day with a statement', async () => {
    await put(BROKER);
    await give('brassFittings', '5');
    await screen.page.keyboard.press('m');
    await screen.sees(`${money('north')} [data-good="brassFittings"]`, /you have [5-9]/);
    await screen.click('button', 'Sell one brass fittings');
    await screen.sees(`${money('north')} [data-good="brassFittings"]`, /you have [4-8]/);
    await screen.click('button', 'Sell all brass fittings');
    await screen.sees(`${money('north')} [data-good="brassFittings"]`, 'you have 0');
    await screen.click('button', 'Sell one brass fittings');
    await screen.sees(`${seat('north')} .refusal`, 'It takes 1 brass fittings: you have 0.');
    await give('scrip', '100');
    await screen.click('button', 'Buy winch');
    await screen.sees(`${seat('north')} .refusal`, 'A winch needs a slip to stand on.');
    await screen.click('button', 'Buy slip');
    await screen.sees(`${money('north')} [data-offer="slip"]`, 'tier 1 of 3');
    await screen.sees(`${money('north')} [data-offer="slip"]`, '120 scrip, then 12 a day');
    await screen.page.locator(`${money('north')} .head button ::-p-text(end the day)`).click();
    await screen.sees(`${money('north')} .head`, '1 of 2 would end it');
    await screen.poke('endDay', undefined, { Seat: 'north' });
    await screen.sees(
      `${money('north')} table[aria-label="Statement of day 1"]`,
      /Opening 0 .*Brass fittings × 2 \+\d+ .*Slip −60 Upkeep: Slip −6 Closing \d+ a gain of \+\d+/,
    );
    await screen.sees(`${money('north')} .head`, 'Day 2');
  });

  it('gives the last one to one of two browsers, and keeps all of it over a kill and a restart', async () => {
    await put(BROKER, 'south');
    for (const name of ['north', 'south']) await screen.poke('set', 'scrip', { Amount: '200', Seat: name });
    await screen.click('button', 'Buy keen lens');
    await screen.sees(`${money('north')} [data-offer="lens"]`, 'There is none left.');
    const join = await screen.page.evaluate(async () => {
      const id = location.pathname.split('/').at(-1);
      return ((await (await fetch(`/api/rooms/${id}`)).json()) as { seats: { name: string; join: string }[] }).seats.find(
        ({ name }) => name === 'south',
      )!.join;
    });
    const context = await workbench.browser.createBrowserContext();
    const other = new Screen(await context.newPage());
    await other.page.goto(workbench.url + join);
    await other.page.waitForSelector('[data-money]');
    await other.page.keyboard.press('m');
    await other.sees('ee-money-window [data-offer="lens"]', 'There is none left.');
    await other.click('button', 'Buy keen lens');
    await other.sees('.refusal', 'There is none left.');
    await other.sees('ee-money-window [data-purse]', '200 scrip');
    await context.close();
    await screen.sees(`${money('north')} [data-purse]`, '170 scrip');
    const stored = await screen.page.evaluate(() => Number(/kept up to tick (\d+)/.exec(document.body.innerText)![1]));
    await screen.page.waitForFunction(
      (tick: number) => Number(/kept up to tick (\d+)/.exec(document.body.innerText)?.[1] ?? 0) > tick + 20,
      {},
      stored,
    );
    await workbench.kill();
    await workbench.serve();
    await screen.page.reload();
    await screen.sees(`${seat('north')} .verdict`, 'Copy agrees with truth.');
    await screen.page.keyboard.press('m');
    await screen.sees(`${money('north')} [data-purse]`, '170 scrip');
    await screen.sees(`${money('north')} [data-offer="slip"]`, 'tier 1 of 3');
    await screen.sees(`${money('north')} table[aria-label="Statement of day 1"]`, 'Upkeep: Slip −6');
  }, 90_000);

  it('ruins who can’t pay and does not sell, and ends the game at the goal', async () => {
    await screen.poke('set', 'scrip', { Amount: '3', Seat: 'north' });
    await screen.poke('endDay', undefined, { Seat: 'north' });
    await screen.sees(`${money('north')} .refusal`, /You owe 3: sell within \d+ s/);
    await give('tidePearls', '1');
    await screen.click('button', 'Sell all tide-pearls');
    await screen.sees(`${money('north')} .head`, 'Day 3');
    await screen.sees(`${money('north')} table[aria-label="Statement of day 2"]`, /Tide-pearls \+\d+/);
    await give('scrip', '2000');
    await give('brassFittings', '20');
    for (const offer of ['slip', 'slip', 'bunks', 'bunks', 'bunks', 'winch', 'winch', 'winch'])
      await screen.click('button', `Buy ${offer}`);
    await screen.sees(`${money('north')} .over`, 'The goal was reached on day 3.');
    await screen.click('button', 'Buy keen lens');
    await screen.sees(`${seat('north')} .refusal`, 'You have reached the goal: the books are closed.');
  });
});
