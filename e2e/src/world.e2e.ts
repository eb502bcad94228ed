import { type Screen, seat, value } from './screen.js';
import { eachWalk } from './suite.js';
import { entryOf, type Trial } from './trial.js';
import type { Workbench } from './workbench.js';

const around = (name: string) => `${seat(name)} ee-around`;
const thing = (label: string) => `ee-arena-map [aria-label^="${label}, "]`;
const chosen = '[aria-label="Chosen"]';

describe('The world around a player', () => {
  let workbench: Workbench;
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ workbench, screen, trial } = walk));

  const middleOf = async (selector: string) => {
    const box = (await (await screen.page.waitForSelector(selector))!.boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const focus = async (label: string) => {
    await screen.page.waitForSelector(thing(label));
    await screen.page.$eval(thing(label), (e) => (e as HTMLElement).focus());
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
    await screen.visit(trial.at('arena'));
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
    await screen.takeBack();
    await screen.until('there are two crates', async () => (await page.$$(thing('Supply crate'))).length === 2);
    await screen.takeBack(2);
    await page.waitForSelector(`${thing('Supply crate')}[aria-label$="at 300, 250"]`);
    await screen.saved();
  });

  it('says as a sentence what is other about one, and shows how far it reaches', async () => {
    const { page } = screen;
    await screen.visit(trial.at('arena'));
    await focus('Night quartermaster');
    await screen.sees(chosen, /This one is called Night quartermaster/);
    await screen.sees(chosen, /For rest and refill this one asks 60 scrip/);
    await page.waitForSelector(`${thing('Night quartermaster')} circle.reach`);
    await screen.edit('price of rest and refill', '50');
    await screen.sees(chosen, /asks 50 scrip/);
    await screen.tap(`${chosen} .chip ::-p-text(time of rest and refill)`);
    await screen.sees(chosen, /Its rest and refill takes 8 s/);
    await screen.tap('.palette button ::-p-text(Cold current)');
    await page.waitForSelector('.palette .here');
    const ground = (await (await page.waitForSelector('ee-arena-map svg'))!.boundingBox())!;
    await page.mouse.click(ground.x + ground.width * 0.75, ground.y + ground.height * 0.6);
    await screen.sees(chosen, /A circle with a radius of 50/);
    await page.keyboard.press('Delete');
    await screen.sees(chosen, 'The arena');
    await screen.saved();
    await workbench.restart();
    await page.reload();
    await focus('Night quartermaster');
    await screen.sees(chosen, /asks 50 scrip/);
  });

  it('tells in wiring who announces an event and who waits for it, each with the way there', async () => {
    await screen.visit(trial.at('wiring'));
    await screen.tap('.index button ::-p-text(a zone is entered)');
    await screen.sees('ee-wires', /Diving bell a zone, by itself/);
    await screen.sees('ee-wires', /First in the wreck/);
    await screen.sees('[aria-label="Wires"]', 'No loose ends');
    await screen.tap('.index button ::-p-text(an actor falls)');
    await screen.sees('ee-wires', /The core itself/);
    await screen.click('link', 'Bounty on lampreys');
    await screen.holds('.title', 'Bounty on lampreys');
    await screen.sees('[aria-label="Evidence"]', 'an actor falls (lamprey)');
  });

  it('finds before anyone plays what was broken on purpose', async () => {
    const { page } = screen;
    await screen.visit(trial.at('pickups', 'copperToken'));
    await screen.holds('.title', 'Copper token');
    await screen.edit('who may take it', 'oxygen > 500');
    await screen.sees('ee-entry-findings', 'Nobody can ever take copper token: “oxygen > 500” holds for no kind of actor.');
    await screen.sees('[aria-label="Evidence"]', 'nobody, ever');
    await screen.takeBack();
    await screen.lacks('ee-entry-findings .finding');
    // A reaction that waits for what nothing places any more hangs loose.
    await screen.tap('.index a ::-p-text(Bounty on lampreys)');
    await screen.pick('ee-choose button[aria-label^="event: "]', 'a pickup is taken');
    await screen.edit('pickup', 'air canister');
    await screen.saved();
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
    await screen.tap('.index button ::-p-text(a pickup is taken)');
    await screen.sees('ee-wires li.loose', /Only Air canister could announce it/);
    await screen.takeBack(4);
    await screen.sees('[aria-label="Wires"]', 'No loose ends');
    await screen.saved();
  });

  /** Plays a room with north beside the first crate, its lid open. */
  const atTheCrate = async () => {
    await trial.harmless();
    const room = await trial.room();
    await screen.play(room);
    await moveTo('265, 250');
    await screen.sees(around('north'), /E Open the crate Supply crate/);
    await screen.page.keyboard.press('e');
    await screen.sees(`${around('north')} .box`, /Brass fittings \d/);
    return room;
  };
  /** What is in the open crate, without the time that is left. */
  const contents = async (of: Screen, where: string) => (await of.text(where)).replace(/ [\d.]+ s/, '');

  it('opens a chest in two windows of two browsers: what one takes is gone from both', async () => {
    const { joins } = await atTheCrate();
    const other = await workbench.stranger();
    await other.visit(joins['south']);
    await other.sees('header', 'south');
    await moveTo('335, 250', 'south');
    await other.sees('ee-around', /Open the crate/);
    await other.page.keyboard.press('e');
    await other.sees('ee-around .box', /Brass fittings \d/);
    expect(await contents(screen, `${around('north')} .box`)).toBe(await contents(other, 'ee-around .box'));
    await other.tap('ee-around li button');
    await other.sees('ee-around .box', /^(?!.*Brass)/);
    await screen.sees(`${around('north')} .box`, /^(?!.*Brass)/);
    await screen.sees(value('south', 'brassFittings'), /[123]/);
  });

  it('has in the chest after a kill what was left in it, and closes it for who walks off', async () => {
    await atTheCrate();
    await screen.tap(`${around('north')} li button`);
    await screen.sees(`${around('north')} .box`, /^(?!.*Brass)/);
    const left = await contents(screen, `${around('north')} .box`);
    await screen.roomIsStored();
    await workbench.restart();
    await screen.page.reload();
    await screen.sees(`${around('north')} .box`, left);
    await moveTo('200, 380');
    await screen.lacks(`${around('north')} .box`);
    await moveTo('265, 250');
    await screen.sees(around('north'), /E Open the crate Supply crate/);
    await screen.page.keyboard.press('e');
    await screen.sees(`${around('north')} .box`, left);
    await screen.page.keyboard.press('q');
    await screen.lacks(`${around('north')} .box`);
  });

  it('refuses who is too poor in the author’s words, and takes nothing', async () => {
    await trial.harmless();
    await screen.play(await trial.room());
    await screen.poke('set', 'scrip', { Amount: '10', Seat: 'north' });
    await moveTo('100, 470');
    await screen.sees(around('north'), /E Rest and refill, 40 scrip Quartermaster/);
    await screen.seesPass(`${seat('north')} .refusal`, 'Forty scrip a night. The sea is free.', () => screen.page.keyboard.press('e'));
    await screen.sees(value('north', 'scrip'), /^10$/);
  });

  it('rests who pays while the other waits, and ends when they walk off', async () => {
    await trial.harmless();
    // Long enough for a slow machine to be walked off from.
    await trial.edit((document) => (entryOf(document, 'interactions', 'rest')['busy'] = '600s'));
    await screen.play(await trial.room());
    await screen.poke('set', 'scrip', { Amount: '81', Seat: 'north' });
    await screen.poke('set', 'suit', { Amount: '20', Seat: 'north' });
    await moveTo('100, 470');
    await moveTo('60, 430', 'south');
    await screen.sees(around('north'), /E Rest and refill, 40 scrip Quartermaster/);
    const veiled = screen.page.waitForSelector(`${seat('north')} .veil`);
    await screen.page.keyboard.press('e');
    await veiled;
    await screen.sees(`${around('north')} .visit`, /Quartermaster rest and refill, \d/);
    await screen.sees(value('north', 'scrip'), /^41$/);
    await screen.sees(around('south'), /busy, \d/);
    await screen.sees(value('north', 'suit'), /^100$/);
    await moveTo('200, 380');
    await screen.lacks(`${around('north')} .visit`);
    await screen.sees('ee-trace', 'rest and refill ends: its visitor walked off');
  });

  it('speaks, offers a choice, and shows every seat the same line', async () => {
    await trial.harmless();
    // Its lines stay for as long as a slow machine needs to show them.
    await trial.edit((document) => {
      const { lines } = entryOf(document, 'dialogues', 'aboutTheWreck') as unknown as { lines: { id: string; for: string }[] };
      for (const line of lines) line.for = line.id === 'offer' ? '600s' : '2s';
    });
    await screen.play(await trial.room());
    await moveTo('230, 100');
    await moveTo('330, 140', 'south');
    const everywhere = (words: RegExp, act: () => Promise<void>) =>
      screen.seesPass(around('north'), words, () => screen.seesPass(around('south'), words, act));
    await everywhere(/Chart-keeper “You want the freight in the wreck/, () => screen.page.keyboard.press('e'));
    await screen.sees(around('north'), /7 Mark it\. 8 We find it ourselves\./);
    await everywhere(/Then mind the lampreys/, () => screen.page.keyboard.press('8'));
  });

  it('gives what is taken to its taker, keeps a page for the other, and says who may not take what', async () => {
    await trial.harmless();
    await screen.play(await trial.room());
    await screen.poke('spawn', 'glowKelp', { Seat: 'south' });
    await screen.sees('ee-trace', /south takes glow-kelp/);
    await screen.sees(`${seat('south')} [data-track="standing"]`, /Standing 1 [4-9] of 60/);
    await moveTo('600, 225', 'south');
    await screen.sees(value('south', 'pagesFound'), /^1$/);
    await moveTo('600, 225');
    await screen.sees(value('north', 'pagesFound'), /^1$/);
    await screen.poke('summon', 'lamprey', { Where: '860, 200', Seat: 'south' });
    await showing('refusals');
    await screen.sees('ee-trace', /Air canister is not for Lamprey: “oxygen < lungCapacity” does not hold\./);
  });

  it('brings three lampreys when a diver comes to their nest', async () => {
    await trial.harmless();
    await screen.play(await trial.room());
    await moveTo('420, 470', 'south');
    await screen.sees('ee-trace li', 'Lamprey nest makes 3, time 1');
  });
});
