import { fileURLToPath } from 'node:url';
import { demo } from './trial.js';
import { Workbench } from './workbench.js';

const FOLDER = fileURLToPath(new URL('../../docs/screenshots/', import.meta.url));
const workbench = await Workbench.start();
try {
  const screen = await workbench.screen();
  await screen.visit('/');
  const { page } = screen;
  const take = async (name: string) => {
    await page.mouse.move(0, 0);
    // A button that was pressed by key for the picture is not marked in it.
    await page.evaluate(() => document.activeElement instanceof HTMLButtonElement && document.activeElement.blur());
    await page.evaluate('document.fonts.ready.then(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))))');
    await page.screenshot({ path: `${FOLDER}${name}.png` as `${string}.png` });
  };
  await screen.sees('li', 'Brinewick Salvage');
  await page.locator('ul li a').click();
  await screen.sees('h2', 'What it comes to');
  await screen.drawnAs(50.925, false);
  await screen.edit('refill a second', 'has(inBell) ? breathRate * 1.2 : -2');
  await screen.drawnAs(37.9, true);
  await screen.sees('[role="status"]', /saved/);
  await take('rulebook-stat');
  await screen.click('button', 'Undo Ctrl Z');
  await page.locator('.index a ::-p-text(Suit)').click();
  await screen.sees('.pin', 'bubble 8 s');
  await screen.edit('refill a second', '6');
  await screen.sees('ee-evidence td', '19.7 s');
  await page.focus('.plot');
  for (let i = 0; i < 36; i++) await page.keyboard.press('ArrowRight');
  await screen.sees('.reading', 'At 18.0 s');
  await page.waitForFunction(() => document.querySelector<HTMLElement>('canvas')?.dataset['drawn']?.endsWith(' ghost'));
  await screen.click('button', 'Undo Ctrl Z');
  for (const [chapter, name] of [
    ['Effects', 'rulebook-effect'],
    ['Abilities', 'rulebook-ability'],
  ]) {
    await screen.click('link', chapter);
    await screen.sees('[aria-label="Evidence"] h2', 'What it comes to');
    if (chapter === 'Effects') {
      await page.locator('.index a ::-p-text(Keen eye)').click();
      await screen.sees('.bar', 'Keen eye');
    }
    if (chapter === 'Abilities') {
      await page.locator('.index a ::-p-text(Cutting torch)').click();
      await screen.sees('ee-ability-sweep h2', 'As handling goes from 0.5 to 2');
    }
    await page.waitForSelector('canvas[data-drawn]');
    if (chapter === 'Abilities') await take(name);
  }
  await screen.click('link', 'Actors');
  await page.locator('.index a ::-p-text(Lamprey)').click();
  await screen.sees('ee-evidence td', 'after 2.15 s');
  await page.waitForSelector('canvas[data-drawn]');
  await take('rulebook-actor');
  await screen.click('link', 'World');
  await page.locator('.index a ::-p-text(Rest and refill)').click();
  await screen.sees('ee-evidence td', 'busy with trial for another 7 s');
  await page.waitForSelector('canvas[data-drawn]');
  await screen.click('link', 'Levels');
  await screen.sees('[data-way]', 'level 10');
  await take('rulebook-levels');
  await screen.click('link', 'Skills');
  await screen.click('button', 'Walk it');
  for (const [i, node] of ['deepBreath', 'deepBreath', 'calm', 'hotFlame', 'steadyHand', 'hotFlame', 'longFins', 'salvor'].entries()) {
    await page.locator(`ee-tree-plan [data-node="${node}"]`).click();
    if (i < 7) await screen.sees('[data-points]', `${i + 1} spent`);
  }
  await screen.sees('[data-says]', 'Salvor needs');
  await take('rulebook-skills');
  await screen.click('link', 'Quests');
  await page.locator('.index a ::-p-text(The Manifest)').click();
  await screen.sees('ee-quest-path', 'Three pages');
  await screen.click('button', 'accept');
  for (const goal of ['wreck', 'pages', 'pages']) await screen.click('button', `Count one for ${goal}`);
  await screen.sees('[data-goal="pages"]', '2/3');
  await take('rulebook-quests');
  await screen.click('link', 'Loot');
  await page.locator('.index a ::-p-text(Strongbox)').click();
  await screen.sees('[data-until]', 'by the 16th');
  await screen.click('button', 'sample a million');
  await screen.sees('[data-sample]', 'A sampled million agrees');
  await take('rulebook-loot');
  await screen.click('link', 'Economy');
  await page.locator('.index a ::-p-text(Slip)').click();
  await screen.sees('h2', 'On paper');
  await screen.click('button', 'play');
  await screen.sees('[data-plan="upgradeFirst"]', '1000');
  await screen.lacks('progress');
  await screen.edit('upkeep', '7 * tier');
  await screen.sees('[data-plan="upgradeFirst"] + .change', 'on the same luck');
  await screen.lacks('progress');
  await take('rulebook-economy');
  await screen.click('button', 'Undo Ctrl Z');
  await screen.click('link', 'Players');
  await page.locator('.index a ::-p-text(cutter)').click();
  await screen.sees('.sheet h1', 'cutter');
  await take('players');
  await screen.click('link', 'Arena');
  await page.waitForSelector('ee-arena-map .item');
  await page.$eval('ee-arena-map [aria-label^="Night quartermaster, "]', (e) => (e as HTMLElement).focus());
  await screen.sees('[aria-label="Chosen"]', 'this one asks 60 scrip');
  await take('arena');
  // A wire that hangs loose: the zone that a reaction waits for is placed nowhere.
  await page.$eval('ee-arena-map [aria-label^="The wreck, "]', (e) => (e as HTMLElement).focus());
  await page.keyboard.press('Delete');
  await screen.lacks('ee-arena-map [aria-label^="The wreck, "]');
  await screen.click('link', 'Wiring');
  await screen.sees('[aria-label="Loose ends"]', 'First in the wreck');
  await page.locator('.index button ::-p-text(a zone is entered)').click();
  await take('wiring');
  await screen.click('button', 'Undo Ctrl Z');
  await screen.sees('[aria-label="Wires"]', 'No loose ends');
  // What is wanted, and an edit that breaks it.
  await screen.click('link', 'Abilities');
  await page.locator('.index a ::-p-text(Bite)').click();
  await screen.sees('[aria-label="Evidence"] h2', 'What it comes to');
  await screen.edit('amount', '90');
  await screen.sees('header .failing', `3 of ${demo()['checks'].length} fail`);
  await screen.tap('header .failing');
  await screen.sees('ee-check-story .wrong', 'expected 91, found 10');
  await page.waitForSelector('ee-check-story canvas[data-drawn]');
  await screen.sees('ee-covered li', 'Stats');
  await take('checks');
  await screen.click('button', 'Undo Ctrl Z');
  await screen.lacks('header .failing');
  await screen.click('link', 'Rulebook');
  await page.keyboard.press('p');
  await screen.sees('.verdict', /Copy agrees with truth\. .*Not told/);
  await page.keyboard.down('d');
  await screen.sees('[aria-label="Seat north"] [data-attribute="finSpeed"]', '168');
  await page.keyboard.up('d');
  await page.keyboard.down('s');
  await screen.sees('[aria-label="Seat north"] [data-effect]', /Slipstream 5\.[0-4]/);
  await page.keyboard.up('s');
  await page.keyboard.press('1');
  await screen.sees('[aria-label="Seat north"] [data-ability="sonarPing"]', /7\.\d s/);
  await page.keyboard.press('1');
  await screen.sees('[aria-label="Seat north"] [role="alert"]', 'cooling down');
  await take('playtest');
  const poke = async (what: string, about: string, from: string) => {
    await page.waitForSelector(`select[aria-label="What to do"] option[value="${what}"]`);
    await page.select('select[aria-label="What to do"]', what);
    await page.waitForSelector(`select[aria-label="What it is about"] option[value="${about}"]`);
    await page.select('select[aria-label="What it is about"]', about);
    await page.select('select[aria-label="From whom"]', from);
    await screen.click('button', 'Do it');
  };
  await screen.poke('place', undefined, { Where: '880, 270', Seat: 'north' });
  for (const [what, amount] of [
    ['brassFittings', '7'],
    ['tidePearls', '1'],
    ['scrip', '80'],
  ])
    await screen.poke('give', what, { Amount: amount, Seat: 'north' });
  await page.keyboard.press('m');
  await screen.click('button', 'Sell all brass fittings');
  await screen.click('button', 'Buy slip');
  await screen.sees('[data-offer="slip"]', 'tier 1 of 3');
  await screen.poke('endDay', undefined, { Seat: 'north' });
  await screen.sees('table[aria-label="Statement of day 1"]', 'Upkeep: Slip');
  await take('playtest-statement');
  await page.keyboard.press('m');
  await screen.lacks('ee-money-window section');
  await screen.poke('place', undefined, { Where: '265, 250', Seat: 'north' });
  await screen.poke('place', undefined, { Where: '230, 100', Seat: 'south' });
  await screen.sees('[aria-label="Seat south"] ee-around', 'Ask the way');
  await page.keyboard.press('e');
  await screen.sees('[aria-label="Seat north"] ee-around', 'take all');
  await take('playtest-container');
  await page.keyboard.press('q');
  await screen.poke('place', undefined, { Where: '820, 400', Seat: 'south' });
  await screen.poke('place', undefined, { Where: '330, 180', Seat: 'north' });
  await page.keyboard.press('k');
  await page.waitForSelector('ee-pokes');
  await poke('apply', 'bubble', '');
  await poke('apply', 'slipstream', '');
  await poke('apply', 'silt', 'south');
  await page.locator('[aria-label="Seat north"] h2 button ::-p-text(why)').click();
  await page.locator('ee-why ul button ::-p-text(Fin speed)').click();
  await screen.sees('ee-why td', 'from south');
  await take('playtest-why');
  await page.locator('[aria-label="Close why"]').click();
  const summon = async (actor: string, where: string) => {
    await page.waitForSelector('select[aria-label="What to do"] option[value="summon"]');
    await page.select('select[aria-label="What to do"]', 'summon');
    await page.waitForSelector(`select[aria-label="What it is about"] option[value="${actor}"]`);
    await page.select('select[aria-label="What it is about"]', actor);
    await page.locator('input[aria-label="Where"]').fill(where);
    await screen.click('button', 'Do it');
  };
  await poke('heal', 'suit', '');
  await summon('lamprey', '360, 330');
  await summon('angler', '560, 250');
  await page.keyboard.press('Escape');
  await screen.lacks('ee-pokes');
  await screen.sees('ee-trace li', 'Lamprey begins bite');
  const box = (await (await page.waitForSelector('[aria-label="Seat north"] canvas'))!.boundingBox())!;
  await page.mouse.move(box.x + (480 * box.width) / 960, box.y + (250 * box.width) / 960);
  await page.keyboard.press('5');
  await screen.sees('ee-trace li', 'north uses depth charge');
  await page.keyboard.press('3');
  await page.waitForFunction(() => Number(document.querySelector<HTMLCanvasElement>('.truth canvas')!.dataset['flying']) > 0);
  await page.screenshot({ path: `${FOLDER}playtest-fight.png` });
  await page.keyboard.press('y');
  await screen.click('tab', 'Abilities');
  await screen.sees('[aria-label="Tooltip of Cutting torch"]', 'After');
  await screen.click('tab', 'States');
  await screen.sees('[aria-label="Transitions"] li', 'casting');
  await page.keyboard.press('Escape');
  const join = (await page.evaluate(
    `fetch('/api/rooms/' + location.pathname.split('/').at(-1)).then((r) => r.json()).then((room) => room.seats[1].join)`,
  )) as string;
  const guest = await workbench.stranger();
  await guest.page.setViewport({ width: 390, height: 780, isMobile: true, hasTouch: true, deviceScaleFactor: 1 });
  await guest.visit(join);
  await guest.sees('header', 'south');
  await guest.page.waitForSelector('[data-attribute="oxygen"]');
  await guest.page.screenshot({ path: `${FOLDER}join-phone.png` });
  // A hole in the money, and the shortest story that shows it.
  const holed = demo();
  const then = [{ do: 'give', attribute: 'scrip', amount: 10 }];
  holed['reactions'].push({ id: 'welcomeBack', label: 'Welcome back', on: { on: 'seatTaken', where: 'done(firstDescent)' }, then });
  const trial = await workbench.trial(holed);
  await screen.visit(trial.at('hunts', 'noScripFromNowhere'));
  await screen.click('button', 'Run for 60 s');
  await screen.sees('ee-hunt-result .steps', 'the game is restarted');
  await screen.sees('ee-story-view', 'because');
  await page.$eval('ee-may-line', (e) => e.scrollIntoView({ block: 'start' }));
  await take('hunts');
} finally {
  await workbench.stop();
}
