import { type Screen, seat, value } from './screen.js';
import { eachWalk } from './suite.js';
import { entryOf, type Trial } from './trial.js';
import type { Workbench } from './workbench.js';

const cast = (name: string) => `${seat(name)} [aria-label="Cast"]`;
const choose = (label: string) => `ee-choose button[aria-label^="${label}: "]`;
const ability = (name: string, id: string) => `${seat(name)} [data-ability="${id}"]`;

describe('Abilities', () => {
  let workbench: Workbench;
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ workbench, screen, trial } = walk));

  /** Adds a clause by the keyboard, wherever its chip has moved to by now. */
  const clause = async (name: string) => {
    const chip = await screen.page.waitForSelector(`::-p-xpath(//ee-clauses//button[normalize-space(.)="${name}"])`);
    await chip!.press('Enter');
  };
  /** Puts the pointer over a point of a seat's arena. */
  const pointAt = async (name: string, x: number, y: number) => {
    const box = (await (await screen.page.waitForSelector(`${seat(name)} canvas`))!.boundingBox())!;
    await screen.page.mouse.move(box.x + (x * box.width) / 960, box.y + (y * box.width) / 960);
  };
  /** Plays the demo with something other, where nobody comes to harm by waiting. */
  const play = async (otherwise: Parameters<Trial['edit']>[0] = () => undefined, seats = 2) => {
    await trial.harmless();
    await trial.edit(otherwise);
    await screen.play(await trial.room(seats));
  };
  const torch = async () => {
    await screen.visit(trial.at('abilities', 'cuttingTorch'));
    await screen.sees('ee-evidence td', 'nothing is lost');
  };

  it('are written as sentences, from nothing', async () => {
    await screen.visit(trial.at('abilities'));
    await screen.tap('.new .chip ::-p-text(+ ability)');
    await screen.holds('.title', 'New ability');
    await screen.fill('.title', 'Arc torch');
    await screen.sees('.index a.here', 'Arc torch');
    await clause('cast');
    await screen.edit('cast time', 'torch sweep to strike');
    await screen.edit('haste', 'handling');
    await clause('cost');
    await screen.edit('amount', '25');
    await screen.edit('what it costs', 'stamina');
    await screen.edit('when it is paid', 'when the cast is over');
    await clause('broken by');
    await screen.pick(choose('aim'), 'into a cone');
    await screen.edit('range', '140');
    await screen.edit('angle', '40');
    await screen.pick(choose('delivery'), 'by projectiles');
    await screen.edit('how many', '5');
    await clause('when it hits');
    await screen.sees('ee-sentence', 'For each that it hits, as the target:');
    await screen.tap(
      '::-p-xpath(//ee-sentence[contains(., "For each that it hits")]/following-sibling::ee-then[1]//button[normalize-space(.)="+ action"])',
    );
    await screen.tap('.mat-mdc-menu-item ::-p-text(lower a pool)');
    await screen.sees('ee-sentence', 'lower oxygen by 1 for the target');
    await screen.lacks('.mat-mdc-menu-panel');
    await screen.tap('ee-carriers [role="checkbox"] ::-p-text(Diver)');
    await screen.sees('ee-sentence', 'Cast for torch sweep to strike, played at its own rate and divided by handling, standing still');
    await screen.sees('ee-evidence td', '25 stamina, after 1.8 s, when the cast is over');
    await screen.sees('ee-ability-sweep h2', 'As handling goes from 0.5 to 2');
    await screen.saved();
    // It is as it was written after the server was killed and the page loaded anew.
    await workbench.restart();
    await screen.page.reload();
    await screen.sees('ee-sentence', 'Cast for torch sweep to strike, played at its own rate and divided by handling, standing still');
  });

  it('change on the strip when one word does', async () => {
    await torch();
    const [casts, cools] = ['.bar.cast', '.bar.cooldown'];
    const left = (bar: string) =>
      screen.page.$eval(`ee-ability-strip .lane:not(.ghost) ${bar}`, (e) => Number.parseFloat((e as HTMLElement).style.left));
    expect(await left(cools)).toBeGreaterThan(await left(casts));
    await screen.edit('when it is paid', 'as it begins');
    await screen.sees('ee-evidence td', '25 stamina and the cooldown lost');
    await screen.sees('ee-evidence td', '25 stamina, when the cast begins');
    expect(await left(cools)).toBe(await left(casts));
    await screen.sees('.finding', 'Tools keeps the others waiting for 1 s, and casting cutting torch takes up to 3.6 s');
    await screen.undo();
    await screen.sees('ee-evidence td', 'nothing is lost');
    await screen.saved();
  });

  it('are told by a tooltip in a box, with a finding where it does not fit', async () => {
    await torch();
    await screen.edit('box lines', '2');
    await screen.sees('.finding', 'The tooltip of Cutting torch takes 3 lines of 34 characters, and its box has 2.');
    await screen.tap('.finding button');
    await screen.lacks('.finding');
    await screen.edit('tooltip text', 'Burns for {torchPowr}');
    await screen.sees('ee-sentence [role="alert"]', 'Nothing is called torchPowr here. Did you mean torchPower?');
    await screen.page.keyboard.press('Escape');
    await screen.lacks('ee-part input');
  });

  it('take time on a bar, and break with the reason: no stamina, no cooldown', async () => {
    await play((document) => (entryOf(document, 'abilities', 'cuttingTorch')['cast'] = { time: '60s' }));
    await pointAt('north', 300, 140);
    await screen.page.keyboard.press('2');
    await screen.sees(cast('north'), /Cutting torch \d\d\.\d s/);
    await screen.seesPass(cast('north'), 'north’s cutting torch is broken by moving', async () => {
      await screen.page.keyboard.down('s');
      await screen.sees('ee-trace li.refused', 'north’s cutting torch is broken by moving');
    });
    await screen.page.keyboard.up('s');
    await screen.sees(value('north', 'stamina'), '100');
    await screen.sees(ability('north', 'cuttingTorch'), 'ready');
  });

  it('fail visibly where they can’t be paid for in the end', async () => {
    await play((document) => {
      entryOf(document, 'abilities', 'cuttingTorch')['cast'] = { time: '12s' };
      delete entryOf(document, 'attributes', 'stamina')['refill'];
    });
    await pointAt('north', 300, 140);
    await screen.seesPass(cast('north'), /is broken: it needs 25 stamina, and there is 2\b/, () =>
      screen.poke('set', 'stamina', { Amount: '2' }, async () => {
        // The keys are the seat's again once the form has let go of them.
        await screen.page.evaluate(() => (document.activeElement as HTMLElement).blur());
        await screen.page.keyboard.press('2');
        await screen.sees(cast('north'), /Cutting torch \d+\.\d s/);
      }),
    );
    await screen.sees(value('north', 'stamina'), /^2$/);
  });

  it('are refused in the author’s words', async () => {
    await play();
    await screen.seesPass(`${seat('north')} [role="alert"]`, 'Second wind: You have air enough.', () => screen.page.keyboard.press('6'));
  });

  it('land where they were aimed, after their delay, and pull as long as they are held', async () => {
    await play((document) => {
      const channel = entryOf(document, 'abilities', 'towLine')['channel'] as { lasts: string };
      channel.lasts = '60s';
    });
    await pointAt('north', 200, 300);
    await screen.page.keyboard.press('5');
    await screen.sees('ee-trace li', 'north uses depth charge');
    await screen.sees('ee-trace li', /north’s depth charge hits nobody/);
    await pointAt('north', 300, 250);
    await screen.page.keyboard.press('4');
    await screen.sees(cast('north'), /Tow line \d\d\.\d s/);
    await screen.seesPass(cast('north'), 'north’s tow line is broken on purpose', () => screen.page.keyboard.press('x'));
  });

  it('tell today’s numbers, which change with what is on their bearer', async () => {
    await play();
    await screen.page.keyboard.press('y');
    await screen.click('tab', 'Abilities');
    await screen.sees('[aria-label="Tooltip of Cutting torch"]', 'After 1.8 s five sparks fly, each of which burns for 18.');
    await screen.poke('set', 'handling', { Amount: '2' });
    await screen.page.keyboard.press('y');
    await screen.click('tab', 'Abilities');
    await screen.sees('[aria-label="Tooltip of Cutting torch"]', 'After 0.9 s five sparks fly');
  });

  it('stand beside states, to which an author adds one without touching code', async () => {
    const states = async () => {
      await screen.page.keyboard.press('y');
      await screen.click('tab', 'States');
    };
    await trial.harmless();
    await screen.visit(trial.at('actors'));
    await screen.tap('.new .chip ::-p-text(+ state)');
    await screen.holds('.title', 'New state');
    await screen.fill('.title', 'Tethered');
    await screen.sees('.index a.here', 'Tethered');
    await screen.tap('button[aria-label="Take out: for a time"]');
    // What stands below moves up: what is clicked next has to have come to rest.
    await screen.lacks('button[aria-label="Take out: for a time"]');
    await screen.tap('[role="checkbox"] ::-p-text(begin an ability)');
    await screen.sees('[role="checkbox"][aria-checked="true"]', 'begin an ability');
    await clause('on an event');
    await screen.pick(choose('event'), 'a status begins');
    await screen.edit('status', 'winded');
    await screen.sees('ee-state-evidence tr.here', /Tethered – yes on its event/);
    await screen.saved();
    await screen.play(await trial.room());
    await states();
    await screen.sees('[aria-label="States"] li', 'Tethered');
    await screen.page.keyboard.press('Escape');
    await screen.poke('enter', 'tethered');
    await screen.sees(`${seat('north')} .doing`, 'tethered');
    const ahead = () => screen.page.$eval(`${seat('north')} canvas`, (e) => (e as HTMLCanvasElement).dataset['ahead']);
    await screen.page.keyboard.down('d');
    expect(await ahead()).toBe('0');
    await screen.page.keyboard.up('d');
    await screen.poke('grant', 'winded');
    await screen.lacks(`${seat('north')} .doing`);
    await states();
    await screen.sees('[aria-label="Transitions"] li', /tethered → \w+, by an event/);
  });

  it('are expected at once by their own seat, dotted until the server has said so', async () => {
    const canvas = `${seat('north')} canvas`;
    await play();
    await screen.page.select('select[aria-label="Delay of north"]', '500');
    await screen.page.keyboard.down('s');
    await screen.page.waitForFunction(
      (s: string) => Number(document.querySelector<HTMLCanvasElement>(s)!.dataset['ahead']) > 20,
      {},
      canvas,
    );
    await screen.page.keyboard.up('s');
    await screen.page.waitForFunction((s: string) => document.querySelector<HTMLCanvasElement>(s)!.dataset['ahead'] === '0', {}, canvas);
    await screen.seesPass(ability('north', 'secondWind'), 'taken back', () =>
      screen.seesPass(cast('north'), 'Second wind, not confirmed yet', () => screen.page.keyboard.press('6')),
    );
  });

  it('fell a lamprey, which says who did it, and comes back', async () => {
    await play();
    await screen.poke('summon', 'lamprey', { Where: '300, 200' });
    await screen.sees('ee-trace li', 'Lamprey begins bite');
    await pointAt('north', 200, 160);
    // Each time one is in store it is thrown: two hits fell it, and some may miss.
    const falls = () => screen.page.$$eval('ee-trace li', (all) => all.some((e) => (e as HTMLElement).innerText.includes('Lamprey falls')));
    for (let i = 0; i < 8 && !(await falls()); i++) {
      await screen.sees(ability('north', 'harpoon'), /[12] of 2/);
      await screen.page.keyboard.press('3');
      await screen.sees('ee-trace li', /north uses harpoon/);
    }
    await screen.sees('ee-trace li', /Lamprey falls, by north/);
    await screen.sees(value('north', 'foesFelled'), '1');
    await screen.pace(8);
    await screen.sees('ee-trace li', 'Lamprey comes back');
  });

  it('are out of reach for who is down, until they come back', async () => {
    await play();
    await screen.seesPass(`${seat('north')} .doing`, 'down', () => screen.poke('fell'));
    await screen.pace(8);
    await screen.sees('ee-trace li', 'north comes back');
    await screen.lacks(`${seat('north')} .doing`);
  });

  it('run among foes with four seats, eight times as fast, and stand still when told to', async () => {
    const room = await trial.room(4);
    await screen.play(room);
    await screen.sees(seat('west'), 'west');
    await screen.poke('summon', 'lamprey', { Where: '300, 150' });
    await screen.poke('summon', 'lamprey', { Where: '700, 400' });
    await screen.poke('summon', 'angler', { Where: '420, 240' });
    await screen.pace(8);
    await screen.sees('ee-trace li', /(north|south|east|west) falls, by/);
    await screen.sees('ee-trace li', /(north|south|east|west) comes back/);
    const other = await workbench.screen();
    await other.visit(room.path);
    await other.sees('select[aria-label="Speed"] option:checked', '×8');
    await screen.page.bringToFront();
    await screen.pace(0);
    // The other page shows it when the server has said so: from then on no tick comes.
    await other.page.bringToFront();
    await other.sees('select[aria-label="Speed"] option:checked', 'paused');
    const stopped = await other.text('.truth h2 .mono');
    await screen.page.bringToFront();
    await screen.sees('.truth h2 .mono', new RegExp(`^${stopped}$`));
  });
});
