import { withWorkbench } from './suite.js';
import type { Screen, Workbench } from './workbench.js';

const seat = (name: string) => `[aria-label="Seat ${name}"]`;
const value = (name: string, attribute: string) => `${seat(name)} [data-attribute="${attribute}"]`;
const cast = (name: string) => `${seat(name)} [aria-label="Cast"]`;
const choose = (label: string) => `ee-choose button[aria-label^="${label}: "]`;

describe('Abilities', () => {
  let workbench: Workbench;
  let screen: Screen;
  withWorkbench((started, signedIn) => {
    workbench = started;
    screen = signedIn;
  });
  afterEach(() => expect(screen.complaints.splice(0)).toEqual([]));

  const chip = (name: string) => screen.page.locator(`::-p-xpath(//ee-clauses//button[normalize-space(.)="${name}"])`).click();
  const entry = (label: string) => screen.page.locator(`.index a ::-p-text(${label})`).click();
  const saved = () => screen.sees('[role="status"]', /saved/);
  const poke = (...what: Parameters<Screen['poke']>) => screen.poke(...what);
  /** Puts the pointer over a point of a seat's arena. */
  const pointAt = async (name: string, x: number, y: number) => {
    const box = (await (await screen.page.waitForSelector(`${seat(name)} canvas`))!.boundingBox())!;
    await screen.page.mouse.move(box.x + (x * box.width) / 960, box.y + (y * box.width) / 960);
  };
  const toPlaytest = async () => {
    await screen.click('link', 'Playtest');
    await screen.sees(seat('north'), /north crew Petrel/);
  };
  const toRulebook = async (tab: string) => {
    await screen.click('link', 'Rulebook');
    await screen.click('link', tab);
  };

  it('are written as sentences, from nothing', async () => {
    await screen.page.locator('ul li a').click();
    await screen.sees('[aria-label="Spec"]', 'A pool');
    await screen.click('link', 'Abilities');
    await screen.page.locator('.new .chip ::-p-text(+ ability)').click();
    await screen.holds('.title', 'New ability');
    await screen.fill('.title', 'Arc torch');
    await screen.sees('.index a.here', 'Arc torch');
    await chip('cast');
    await screen.edit('cast time', 'torch sweep to strike');
    await screen.edit('haste', 'handling');
    await chip('cost');
    await screen.edit('amount', '25');
    await screen.edit('what it costs', 'stamina');
    await screen.edit('when it is paid', 'when the cast is over');
    await chip('broken by');
    await screen.pick(choose('aim'), 'into a cone');
    await screen.edit('range', '140');
    await screen.edit('angle', '40');
    await screen.pick(choose('delivery'), 'by projectiles');
    await screen.edit('how many', '5');
    await chip('when it hits');
    await screen.sees('ee-sentence', 'For each that it hits, as the target:');
    await screen.page
      .locator(
        '::-p-xpath(//ee-sentence[contains(., "For each that it hits")]/following-sibling::ee-then[1]//button[normalize-space(.)="+ action"])',
      )
      .click();
    await screen.page.locator('.mat-mdc-menu-item ::-p-text(lower a pool)').click();
    await screen.sees('ee-sentence', 'lower oxygen by 1 for the target');
    await screen.lacks('.mat-mdc-menu-panel');
    await screen.page.locator('ee-carriers [role="checkbox"] ::-p-text(Diver)').click();
    await screen.sees('ee-sentence', 'Cast for torch sweep to strike, played at its own rate and divided by handling, standing still');
    await screen.sees('ee-evidence td', '25 stamina, after 1.8 s, when the cast is over');
    await screen.sees('ee-ability-sweep h2', 'As handling goes from 0.5 to 2');
    await saved();
    // It is as it was written after the server was killed and the page loaded anew.
    await workbench.kill();
    await workbench.serve();
    await screen.page.reload();
    await screen.sees('ee-sentence', 'Cast for torch sweep to strike, played at its own rate and divided by handling, standing still');
    await screen.page.locator('ee-carriers [role="checkbox"] ::-p-text(Diver)').click();
    await saved();
  });

  it('change on the strip when one word does', async () => {
    await entry('Cutting torch');
    await screen.sees('ee-evidence td', 'nothing is lost');
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
    await saved();
  });

  it('are told by a tooltip in a box, with a finding where it does not fit', async () => {
    await screen.edit('box lines', '2');
    await screen.sees('.finding', 'The tooltip of Cutting torch takes 3 lines of 34 characters, and its box has 2.');
    await screen.page.locator('.finding button').click();
    await screen.lacks('.finding');
    await screen.edit('tooltip text', 'Burns for {torchPowr}');
    await screen.sees('ee-sentence [role="alert"]', 'Nothing is called torchPowr here. Did you mean torchPower?');
    await screen.page.keyboard.press('Escape');
    await screen.lacks('ee-part input');
  });

  it('take time on a bar, and break with the reason: no stamina, no cooldown', async () => {
    await screen.page.keyboard.press('p');
    await screen.sees(`${seat('north')} .verdict`, 'Copy agrees with truth.');
    await pointAt('north', 300, 140);
    await screen.page.keyboard.press('2');
    await screen.sees(cast('north'), /Cutting torch 1\.\d s/);
    await screen.page.keyboard.down('s');
    await screen.sees(cast('north'), 'north’s cutting torch is broken by moving');
    await screen.page.keyboard.up('s');
    await screen.sees(value('north', 'stamina'), '100');
    await screen.sees(`${seat('north')} [data-ability="cuttingTorch"]`, 'ready');
    await screen.sees('ee-trace li.refused', 'north’s cutting torch is broken by moving');
  });

  it('fail visibly where they can’t be paid for in the end', async () => {
    await poke('set', 'stamina', { Amount: '2' }, async () => {
      // The keys are the seat's again once the form has let go of them.
      await screen.page.evaluate(() => (document.activeElement as HTMLElement).blur());
      await screen.page.keyboard.press('2');
      await screen.sees(cast('north'), /Cutting torch 1\.\d s/);
    });
    await screen.sees(cast('north'), /is broken: it needs 25 stamina, and there is/);
    await poke('set', 'stamina', { Amount: '100' });
  });

  it('are refused in the author’s words', async () => {
    await screen.page.keyboard.press('6');
    await screen.sees(`${seat('north')} [role="alert"]`, 'Second wind: You have air enough.');
  });

  it('land where they were aimed, after their delay, and pull as long as they are held', async () => {
    await pointAt('north', 200, 300);
    await screen.page.keyboard.press('5');
    await screen.sees('ee-trace li', 'north uses depth charge');
    await screen.sees('ee-trace li', /north’s depth charge hits nobody/);
    await pointAt('north', 300, 250);
    await screen.page.keyboard.press('4');
    await screen.sees(cast('north'), /Tow line [12]\.\d s/);
    await screen.page.keyboard.press('x');
    await screen.sees(cast('north'), 'north’s tow line is broken on purpose');
  });

  it('tell today’s numbers, which change with what is on their bearer', async () => {
    await screen.page.keyboard.press('y');
    await screen.click('tab', 'Abilities');
    await screen.sees('[aria-label="Tooltip of Cutting torch"]', 'After 1.8 s five sparks fly, each of which burns for 18.');
    await poke('set', 'handling', { Amount: '2' });
    await screen.page.keyboard.press('y');
    await screen.click('tab', 'Abilities');
    await screen.sees('[aria-label="Tooltip of Cutting torch"]', 'After 0.9 s five sparks fly');
    await screen.page.keyboard.press('Escape');
  });

  it('stand beside states, to which an author adds one without touching code', async () => {
    await toRulebook('Actors');
    await screen.page.locator('.new .chip ::-p-text(+ state)').click();
    await screen.holds('.title', 'New state');
    await screen.fill('.title', 'Tethered');
    await screen.sees('.index a.here', 'Tethered');
    await screen.page.locator('button[aria-label="Take out: for a time"]').click();
    await screen.page.locator('[role="checkbox"] ::-p-text(begin an ability)').click();
    await chip('on an event');
    await screen.pick(choose('event'), 'a status begins');
    await screen.edit('status', 'winded');
    await screen.sees('ee-state-evidence tr.here', /Tethered – yes on its event/);
    await saved();
    await toPlaytest();
    await screen.page.keyboard.press('y');
    await screen.click('tab', 'States');
    await screen.sees('[aria-label="States"] li', 'Tethered');
    await screen.page.keyboard.press('Escape');
    await poke('enter', 'tethered');
    await screen.sees(`${seat('north')} .doing`, 'tethered');
    const place = () => screen.page.$eval(`${seat('north')} canvas`, (e) => (e as HTMLCanvasElement).dataset['ahead']);
    await screen.page.keyboard.down('d');
    expect(await place()).toBe('0');
    await screen.page.keyboard.up('d');
    await poke('grant', 'winded');
    await screen.lacks(`${seat('north')} .doing`);
    await screen.page.keyboard.press('y');
    await screen.click('tab', 'States');
    await screen.sees('[aria-label="Transitions"] li', /tethered → \w+, by an event/);
    await screen.page.keyboard.press('Escape');
    await poke('withdraw', 'winded');
  });

  it('are expected at once by their own seat, dotted until the server has said so', async () => {
    await screen.page.select('select[aria-label="Delay of north"]', '500');
    await screen.page.keyboard.down('s');
    await screen.page.waitForFunction(
      (s: string) => Number(document.querySelector<HTMLCanvasElement>(s)!.dataset['ahead']) > 20,
      {},
      `${seat('north')} canvas`,
    );
    await screen.page.keyboard.up('s');
    await screen.page.waitForFunction(
      (s: string) => document.querySelector<HTMLCanvasElement>(s)!.dataset['ahead'] === '0',
      {},
      `${seat('north')} canvas`,
    );
    await screen.page.keyboard.press('6');
    await screen.sees(cast('north'), 'Second wind, not confirmed yet');
    await screen.sees(`${seat('north')} [data-ability="secondWind"]`, 'taken back');
    await screen.page.select('select[aria-label="Delay of north"]', '0');
  });

  it('fell a lamprey, which says who did it, and comes back', async () => {
    await poke('summon', 'lamprey', { Where: '300, 200' });
    await screen.sees('ee-trace li', 'Lamprey begins bite');
    await pointAt('north', 200, 160);
    // Each time one is in store it is thrown: two hits fell it, and some may miss.
    const falls = () => screen.page.$$eval('ee-trace li', (all) => all.some((e) => (e as HTMLElement).innerText.includes('Lamprey falls')));
    for (let i = 0; i < 8 && !(await falls()); i++) {
      await screen.sees(`${seat('north')} [data-ability="harpoon"]`, /[12] of 2/);
      await screen.page.keyboard.press('3');
      await screen.sees('ee-trace li', /north uses harpoon/);
    }
    await screen.sees('ee-trace li', /Lamprey falls, by north/);
    await screen.sees(value('north', 'foesFelled'), '1');
    await screen.sees('ee-trace li', 'Lamprey comes back');
    await poke('fell');
    await screen.sees(`${seat('north')} .doing`, 'down');
    await screen.sees('ee-trace li', 'north comes back');
  });

  it('run among foes with four seats, eight times as fast', async () => {
    await screen.page.goto(screen.page.url().replace(/playtest.*/, 'playtest'));
    await screen.click('button', 'Play with four seats');
    await screen.sees(seat('west'), 'west');
    await poke('summon', 'lamprey', { Where: '300, 150' });
    await poke('summon', 'lamprey', { Where: '700, 400' });
    await poke('summon', 'angler', { Where: '420, 240' });
    await screen.page.select('select[aria-label="Speed"]', '8');
    await screen.sees('ee-trace li', /(north|south|east|west) falls, by/);
    await screen.sees('ee-trace li', /(north|south|east|west) comes back/);
    await screen.page.select('select[aria-label="Speed"]', '0');
    const tick = () => screen.text('.truth h2 .mono');
    await screen.sees('select[aria-label="Speed"] option:checked', 'paused');
    // The choice is shown at once; the room stands still when the server has heard of it.
    await screen.until('the room stands still', async () => {
      const stood = await tick();
      await new Promise((done) => setTimeout(done, 1000));
      return (await tick()) === stood;
    });
    await screen.sees('ee-trace li', /falls/);
  });
});
