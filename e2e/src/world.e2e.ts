import { withWorkbench } from './suite.js';
import type { Screen, Workbench } from './workbench.js';

const seat = (name: string) => `[aria-label="Seat ${name}"]`;
const around = (name: string) => `${seat(name)} ee-around`;
const value = (name: string, attribute: string) => `${seat(name)} [data-attribute="${attribute}"]`;
const thing = (label: string) => `ee-arena-map [aria-label^="${label}, "]`;
const chosen = '[aria-label="Chosen"]';

describe('The world around a player', () => {
  let workbench: Workbench;
  let screen: Screen;
  let other: Screen;
  withWorkbench((started, signedIn) => {
    workbench = started;
    screen = signedIn;
  });
  afterEach(() => expect(screen.complaints.splice(0)).toEqual([]));

  const saved = () => screen.sees('[role="status"]', /saved/);
  const middleOf = async (selector: string, of = screen) => {
    const box = (await (await of.page.waitForSelector(selector))!.boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const focus = async (label: string) => {
    await screen.page.waitForSelector(thing(label));
    await screen.page.$eval(thing(label), (e) => (e as unknown as HTMLElement).focus());
  };
  const moveTo = (where: string, name = 'north') => screen.poke('place', undefined, { Where: where, Seat: name });
  /** What the trace shows: what happened, refusals, or everything. */
  const showing = (what: string) =>
    screen.page.$$eval(
      'ee-trace select',
      (all, wanted) => {
        const [, box] = all as HTMLSelectElement[];
        box.value = wanted;
        box.dispatchEvent(new Event('change'));
      },
      what,
    );

  it('is set up by hand: dragged, moved by keys, copied, undone', async () => {
    const { page } = screen;
    await page.locator('ul li a').click();
    await screen.sees('[aria-label="Spec"]', 'A pool');
    await screen.click('link', 'Arena');
    const from = await middleOf(`${thing('Supply crate')} .body`);
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + 40, from.y + 20, { steps: 4 });
    await page.mouse.up();
    await screen.sees(chosen, /A supply crate at 350, 275/);
    await page.keyboard.press('ArrowLeft');
    await screen.sees(chosen, /at 345, 275/);
    await page.keyboard.down('Control');
    await page.keyboard.press('d');
    await page.keyboard.up('Control');
    await screen.sees(chosen, /at 375, 305/);
    await screen.until('there are three crates', async () => (await page.$$(thing('Supply crate'))).length === 3);
    await screen.click('button', 'Undo Ctrl Z');
    await screen.until('there are two crates', async () => (await page.$$(thing('Supply crate'))).length === 2);
    await screen.click('button', 'Undo Ctrl Z');
    await screen.click('button', 'Undo Ctrl Z');
    await page.waitForSelector(`${thing('Supply crate')}[aria-label$="at 300, 250"]`);
    await saved();
  });

  it('says as a sentence what is other about one, and shows how far it reaches', async () => {
    const { page } = screen;
    await focus('Night quartermaster');
    await screen.sees(chosen, /This one is called Night quartermaster/);
    await screen.sees(chosen, /For rest and refill this one asks 60 scrip/);
    await page.waitForSelector(`${thing('Night quartermaster')} circle.reach`);
    await screen.edit('price of rest and refill', '50');
    await screen.sees(chosen, /asks 50 scrip/);
    await page.locator(`${chosen} .chip ::-p-text(time of rest and refill)`).click();
    await screen.sees(chosen, /Its rest and refill takes 8 s/);
    await page.locator('.palette button ::-p-text(Cold current)').click();
    await page.waitForSelector('.palette .here');
    const ground = (await (await page.waitForSelector('ee-arena-map svg'))!.boundingBox())!;
    await page.mouse.click(ground.x + ground.width * 0.75, ground.y + ground.height * 0.6);
    await screen.sees(chosen, /A circle with a radius of 50/);
    await page.keyboard.press('Delete');
    await screen.sees(chosen, 'The arena');
    await saved();
    await workbench.kill();
    await workbench.serve();
    await page.reload();
    await focus('Night quartermaster');
    await screen.sees(chosen, /asks 50 scrip/);
  });

  it('tells in wiring who announces an event and who waits for it, each with the way there', async () => {
    await screen.click('link', 'Wiring');
    await screen.page.locator('.index button ::-p-text(a zone is entered)').click();
    await screen.sees('ee-wires', /Diving bell a zone, by itself/);
    await screen.sees('ee-wires', /First in the wreck/);
    await screen.sees('[aria-label="Wires"]', 'No loose ends');
    await screen.page.locator('.index button ::-p-text(an actor falls)').click();
    await screen.sees('ee-wires', /The core itself/);
    await screen.click('link', 'Bounty on lampreys');
    await screen.holds('.title', 'Bounty on lampreys');
    await screen.sees('[aria-label="Evidence"]', 'an actor falls (lamprey)');
  });

  it('finds before anyone plays what was broken on purpose', async () => {
    const { page } = screen;
    await page.locator('.index a ::-p-text(Copper token)').click();
    await screen.holds('.title', 'Copper token');
    await screen.edit('who may take it', 'oxygen > 500');
    await screen.sees('ee-entry-findings', 'Nobody can ever take copper token: “oxygen > 500” holds for no kind of actor.');
    await screen.sees('[aria-label="Evidence"]', 'nobody, ever');
    await screen.click('button', 'Undo Ctrl Z');
    await screen.lacks('ee-entry-findings .finding');
    // A reaction that waits for what nothing places any more hangs loose.
    await page.locator('.index a ::-p-text(Bounty on lampreys)').click();
    await screen.pick('ee-choose button[aria-label^="event: "]', 'a pickup is taken');
    await screen.edit('pickup', 'air canister');
    await saved();
    await screen.click('link', 'Arena');
    for (let n = 0; n < 2; n++) {
      await focus('Air canister');
      await page.keyboard.press('Delete');
      await screen.until('one is gone', async () => (await page.$$(thing('Air canister'))).length === 1 - n);
    }
    await screen.click('link', 'Wiring');
    await screen.sees(
      '[aria-label="Loose ends"]',
      'Bounty on lampreys waits for this and never hears it: a pickup is taken (air canister).',
    );
    await screen.page.locator('.index button ::-p-text(a pickup is taken)').click();
    await screen.sees('ee-wires li.loose', /Only Air canister could announce it/);
    for (let n = 0; n < 4; n++) await screen.click('button', 'Undo Ctrl Z');
    await screen.sees('[aria-label="Wires"]', 'No loose ends');
    await saved();
  });

  it('opens a chest in two windows of two browsers: what one takes is gone from both', async () => {
    await screen.page.keyboard.press('p');
    await screen.sees('.verdict', 'Copy agrees with truth.');
    // However long all of this takes, nobody runs out of air meanwhile.
    for (const name of ['north', 'south']) await screen.poke('grant', 'inBell', { Seat: name });
    const join = await screen.page.evaluate(async () => {
      const room = location.pathname.split('/').at(-1);
      const { seats } = (await (await fetch(`/api/rooms/${room}`)).json()) as { seats: { join: string }[] };
      return seats[1].join;
    });
    const page = await (await workbench.browser.createBrowserContext()).newPage();
    const { Screen: Kind } = await import('./workbench.js');
    other = new Kind(page);
    await page.goto(workbench.url + join);
    await other.sees('header', 'south');
    await moveTo('265, 250');
    await moveTo('335, 250', 'south');
    await screen.sees(around('north'), /E Open the crate Supply crate/);
    await other.sees('ee-around', /Open the crate/);
    await screen.page.keyboard.press('e');
    await screen.sees(around('north'), /opening/);
    await page.keyboard.press('e');
    await screen.sees(around('north'), /Brass fittings \d/);
    await other.sees('ee-around', /Brass fittings \d/);
    const shown = async (of: Screen, where: string) => (await of.text(where)).replace(/ [\d.]+ s/, '');
    expect(await shown(screen, `${around('north')} .box`)).toBe(await shown(other, 'ee-around .box'));
    await page.locator('ee-around li button').click();
    await screen.until('it is gone from both', async () =>
      (await Promise.all([shown(screen, `${around('north')} .box`), shown(other, 'ee-around .box')])).every(
        (text) => !text.includes('Brass'),
      ),
    );
    await screen.sees(value('south', 'brassFittings'), /[123]/);
  });

  it('has in the chest after a kill what was left in it, and closes it for who walks off', async () => {
    const left = await screen.text(`${around('north')} .box`);
    await new Promise((next) => setTimeout(next, 1200));
    await workbench.kill();
    await workbench.serve();
    await screen.page.reload();
    await screen.sees(`${around('north')} .box`, left);
    await moveTo('200, 380');
    await screen.lacks(`${around('north')} .box`);
    await moveTo('265, 250');
    await screen.page.keyboard.press('e');
    await screen.sees(`${around('north')} .box`, left.includes('Air bottle') ? /Air bottle/ : /Scrip/);
    expect(await screen.text(`${around('north')} .box`)).not.toContain('Brass');
    await screen.page.keyboard.press('q');
    await screen.lacks(`${around('north')} .box`);
    await other.page.close();
  });

  it('refuses who is too poor in the author’s words, rests who pays, and ends when they walk off', async () => {
    await screen.poke('set', 'scrip', { Amount: '10', Seat: 'north' });
    await moveTo('100, 470');
    await screen.sees(around('north'), /E Rest and refill, 40 scrip Quartermaster/);
    await screen.page.keyboard.press('e');
    await screen.sees(`${seat('north')} .refusal`, 'Forty scrip a night. The sea is free.');
    await screen.sees(value('north', 'scrip'), /^10$/);
    await screen.poke('set', 'scrip', { Amount: '81', Seat: 'north' });
    await screen.poke('set', 'suit', { Amount: '20', Seat: 'north' });
    // A visit takes eight seconds: whoever waits beside it stands there before it begins.
    await moveTo('60, 430', 'south');
    await screen.page.keyboard.press('e');
    await screen.sees(`${around('north')} .visit`, /Quartermaster rest and refill, \d/);
    await screen.page.waitForSelector(`${seat('north')} .veil`);
    await screen.sees(value('north', 'scrip'), /^41$/);
    await screen.sees(around('south'), /busy, \d/);
    await screen.sees(value('north', 'suit'), /^100$/);
    await moveTo('200, 380');
    await screen.lacks(`${around('north')} .visit`);
    await screen.sees('ee-trace', 'rest and refill ends: its visitor walked off');
    await moveTo('820, 340', 'south');
  });

  it('speaks, offers a choice, and shows every seat the same line', async () => {
    await moveTo('230, 100');
    await screen.page.keyboard.press('e');
    for (const name of ['north', 'south']) await screen.sees(around(name), /Chart-keeper “You want the freight in the wreck/);
    await screen.sees(around('north'), /7 Mark it\. 8 We find it ourselves\./);
    await screen.page.keyboard.press('8');
    for (const name of ['north', 'south']) await screen.sees(around(name), /Then mind the lampreys/);
  });

  it('lets glow-kelp go unclaimed, keeps a page for the other, and says who may not take what', async () => {
    await screen.page.select('select[aria-label="Speed"]', '4');
    await screen.poke('spawn', 'glowKelp', { Seat: 'south' });
    await screen.sees('ee-trace', /south takes glow-kelp/);
    await screen.sees(`${seat('south')} [data-track="standing"]`, /Standing 1 [4-9] of 60/);
    await moveTo('600, 225', 'south');
    await screen.sees(value('south', 'pagesFound'), /^1$/);
    await moveTo('600, 200');
    await moveTo('600, 225');
    await screen.sees(value('north', 'pagesFound'), /^1$/);
    await screen.poke('summon', 'lamprey', { Where: '860, 200', Seat: 'south' });
    await showing('refusals');
    await screen.sees('ee-trace', /Air canister is not for Lamprey: “oxygen < lungCapacity” does not hold\./);
  });

  it('brings three lampreys when a diver comes to their nest, and again when none is left', async () => {
    await showing('');
    const made = () =>
      screen.page.$$eval('ee-trace li', (all) => all.some((e) => (e as HTMLElement).innerText.includes('Lamprey nest makes 3, time 1')));
    // Whoever has fallen meanwhile comes back at their start: they are brought there again.
    await screen.until('the nest has made three', async () => {
      await moveTo('420, 470', 'south');
      await new Promise((done) => setTimeout(done, 1000));
      return made();
    });
  });
});
