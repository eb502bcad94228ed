import { type Screen, seat, value } from './screen.js';
import { eachWalk } from './suite.js';
import type { Trial } from './trial.js';
import type { Workbench } from './workbench.js';

const BROKER = '880, 270';
const money = (name: string) => `${seat(name)} ee-money-window`;
const offer = (name: string, id: string) => `${money(name)} [data-offer="${id}"]`;
const statement = (name: string, day: number) => `${money(name)} table[aria-label="Statement of day ${day}"]`;

describe('Loot', () => {
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ screen, trial } = walk));

  const chance = (line: string, words: string | RegExp) => screen.sees(`[data-chance="${line}"]`, words);
  const open = async (table: string) => {
    await screen.visit(trial.at('loot'));
    await screen.entry(table);
  };

  it('shows real chances beside weights: a lone entry is certain, and more entries mean less of each', async () => {
    await open('Lamprey');
    await chance('brass', '25 %');
    await chance('pearl', '2 %');
    for (const line of ['piece of cut glass', 'tide-pearl', 'glow-kelp', 'nothing']) {
      await screen.click('button', `Take out ${line}`);
      await screen.lacks(`[aria-label="Take out ${line}"]`);
    }
    await screen.edit('weight of loose brass', '0.01');
    await chance('brass', '100 %');
    await screen.sees('ee-entry-findings', 'Weights are shares');
    await screen.click('button', 'Add nothing, weight 1');
    await chance('brass', '0.99 %');
    await screen.takeBack(6);
    await chance('brass', '25 %');
    await screen.saved();
  });

  it('follows a nested table, a range, two rolls, what is always there, and a condition on standing', async () => {
    await open('Lamprey');
    await screen.click('button', 'nested table');
    await screen.page.waitForSelector('[data-chance="angler"]');
    await chance('angler', '0.99 %');
    await screen.takeBack();
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
    await screen.saved();
  });

  it('says how many openings it takes, agrees with a sample of the real core, and cuts the tail with a streak breaker', async () => {
    await open('Strongbox');
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
    await screen.takeBack();
    await screen.sees('[data-until]', '28th');
    await screen.saved();
  });

  it('is taken in from CSV, as a whole or not at all', async () => {
    await open('Lamprey');
    await screen.click('button', 'CSV …');
    await screen.takeIn('loot.csv', 'table,entry,weight,kind,what\nwreckage,splinter,1,gives,scrp\n');
    await screen.sees('mat-dialog-container', 'scrip');
    await screen.takeIn(
      'loot.csv',
      'table,title,entry,weight,kind,what\nwreckage,Wreckage,splinter,1,gives,scrip\nwreckage,,nothing,3,,\n',
    );
    await screen.sees('mat-dialog-container', '1 new');
    await screen.click('button', 'Take it');
    await screen.sees('mat-dialog-container', 'It can be undone in one step');
    await screen.page.keyboard.press('Escape');
    await screen.lacks('mat-dialog-container');
    await screen.entry('Wreckage');
    await chance('splinter', '25 %');
    await screen.takeBack();
    await screen.saved();
  });

  it('drops for the one who felled it, and the trace says which roll gave what', async () => {
    await trial.harmless();
    await screen.play(await trial.room());
    await screen.poke('drop', 'strongbox', { Seat: 'north' });
    await screen.sees('ee-trace li', /Strongbox for north: \d+ × scrip \(always there\)/);
    await screen.sees('ee-trace li', /Strongbox for north: .*\(roll 1 of 2, chance \d+(\.\d)? %\)/);
    await screen.sees(value('north', 'scrip'), /[1-9]/);
    await screen.sees(value('south', 'scrip'), /\b0$/);
  });
});

describe('Money', () => {
  let workbench: Workbench;
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ workbench, screen, trial } = walk));

  const put = (where: string, name = 'north') => screen.poke('place', undefined, { Where: where, Seat: name });
  const give = (attribute: string, amount: string, name = 'north') => screen.poke('give', attribute, { Amount: amount, Seat: name });
  /** Plays a room with north at the broker's, the money window open. */
  const atTheBroker = async (scrip: string) => {
    await trial.harmless();
    const room = await trial.room();
    await screen.play(room);
    await put(BROKER);
    await give('scrip', scrip);
    await screen.page.keyboard.press('m');
    await screen.sees(`${money('north')} [data-purse]`, `${scrip} scrip`);
    return room;
  };
  const refuses = (what: string, words: string | RegExp) =>
    screen.seesPass(`${seat('north')} .refusal`, words, () => screen.click('button', what));

  it('plays a thousand games of each plan in workers, can be stopped, and compares on the same luck', async () => {
    // Short games: what is shown of them is the same.
    await trial.edit(({ economy }) => (economy.goal.if = 'tier(slip) >= 2'));
    await screen.visit(trial.at('markets'));
    await screen.sees('dl', 'about 75 scrip at middling prices');
    await screen.click('button', 'play');
    await screen.click('button', 'stop');
    // Where some games were over by then, it says that they are played again.
    await screen.tap('ee-economy-outcomes .tools ::-p-text(play)');
    // One after the other: each takes a while on a slow machine.
    for (const plan of ['sellAtOnce', 'hold', 'upgradeFirst']) await screen.sees(`[data-plan="${plan}"]`, '1000');
    await screen.lacks('progress');
    await screen.sees('[data-plan="hold"]', /Hold \d+\.\d ± 0\.\d/);
    await screen.entry('Bunks');
    await screen.sees('ee-offer-sentences', 'Whoever has it pays');
    await screen.edit('upkeep', '7 * tier');
    await screen.sees('[data-change]', /than before, on the same luck: \d+\.\d\d ± \d\.\d\d days longer/);
  });

  it('sells one, all, and nothing that there is not', async () => {
    await atTheBroker('1');
    await give('brassFittings', '5');
    await screen.sees(`${money('north')} [data-good="brassFittings"]`, 'you have 5');
    await screen.click('button', 'Sell one brass fittings');
    await screen.sees(`${money('north')} [data-good="brassFittings"]`, 'you have 4');
    await screen.click('button', 'Sell all brass fittings');
    await screen.sees(`${money('north')} [data-good="brassFittings"]`, 'you have 0');
    await refuses('Sell one brass fittings', 'It takes 1 brass fittings: you have 0.');
  });

  it('buys a tier in one step, and ends the day with a statement', async () => {
    await atTheBroker('100');
    await refuses('Buy winch', 'A winch needs a slip to stand on.');
    await screen.click('button', 'Buy slip');
    await screen.sees(offer('north', 'slip'), 'tier 1 of 3');
    await screen.sees(offer('north', 'slip'), '120 scrip, then 12 a day');
    await screen.tap(`${money('north')} .head button ::-p-text(end the day)`);
    await screen.sees(`${money('north')} .head`, '1 of 2 would end it');
    await screen.poke('endDay', undefined, { Seat: 'north' });
    await screen.sees(statement('north', 1), /Opening 0 .*Slip −60 Upkeep: Slip −6 Closing 34 a gain of \+34/);
    await screen.sees(`${money('north')} .head`, 'Day 2');
  });

  it('gives the last one to one of two browsers', async () => {
    const room = await atTheBroker('200');
    await put(BROKER, 'south');
    await give('scrip', '200', 'south');
    await screen.click('button', 'Buy keen lens');
    await screen.sees(offer('north', 'lens'), 'There is none left.');
    const other = await workbench.stranger();
    await other.visit(room.joins['south']);
    await other.page.waitForSelector('[data-money]');
    await other.page.keyboard.press('m');
    await other.sees('ee-money-window [data-offer="lens"]', 'There is none left.');
    await other.seesPass('.refusal', 'There is none left.', () => other.click('button', 'Buy keen lens'));
    await other.sees('ee-money-window [data-purse]', '200 scrip');
    await screen.sees(`${money('north')} [data-purse]`, '170 scrip');
  });

  it('has all of it after the server was killed', async () => {
    await atTheBroker('170');
    await screen.click('button', 'Buy slip');
    await screen.sees(offer('north', 'slip'), 'tier 1 of 3');
    await screen.poke('endDay', undefined, { Seat: 'north' });
    await screen.sees(statement('north', 1), 'Upkeep: Slip −6');
    await screen.roomIsStored();
    await workbench.restart();
    await screen.page.reload();
    await screen.sees(`${seat('north')} .verdict`, 'Copy agrees with truth.');
    await screen.page.keyboard.press('m');
    await screen.sees(`${money('north')} [data-purse]`, '104 scrip');
    await screen.sees(offer('north', 'slip'), 'tier 1 of 3');
    await screen.sees(statement('north', 1), 'Upkeep: Slip −6');
  });

  it('gives who can’t pay a last chance to sell', async () => {
    // Long enough for a slow machine.
    await trial.edit(({ economy }) => (economy.ruin.lastChance = '600s'));
    await atTheBroker('63');
    await screen.click('button', 'Buy slip');
    await screen.sees(`${money('north')} [data-purse]`, '3 scrip');
    await screen.poke('endDay', undefined, { Seat: 'north' });
    await screen.sees(`${money('north')} .refusal`, /You owe 3: sell within \d+ s/);
    await give('tidePearls', '1');
    await screen.sees(`${money('north')} [data-good="tidePearls"]`, 'you have 1');
    await screen.click('button', 'Sell all tide-pearls');
    await screen.sees(`${money('north')} .head`, 'Day 2');
    await screen.sees(statement('north', 1), /Tide-pearls \+\d+/);
  });

  it('ends the game at the goal', async () => {
    await atTheBroker('3000');
    await give('brassFittings', '20');
    for (const [id, tiers] of [
      ['slip', 3],
      ['bunks', 3],
      ['winch', 3],
    ] as const)
      for (let tier = 1; tier <= tiers; tier++) {
        // What is bought moves what stands below it: by the keyboard it is met all the same.
        await screen.press('button', `Buy ${id}`);
        if (!(id === 'winch' && tier === tiers)) await screen.sees(offer('north', id), `tier ${tier} of 3`);
      }
    await screen.sees(`${money('north')} .over`, 'The goal was reached on day 1.');
    await refuses('Buy keen lens', 'You have reached the goal: the books are closed.');
  });
});
