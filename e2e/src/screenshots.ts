import { fileURLToPath } from 'node:url';
import { Screen, Workbench } from './workbench.js';

const FOLDER = fileURLToPath(new URL('../../docs/screenshots/', import.meta.url));
const workbench = await Workbench.start();
try {
  const screen = await workbench.signIn();
  const { page } = screen;
  const take = async (name: string) => {
    await page.mouse.move(0, 0);
    await page.evaluate('document.fonts.ready.then(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))))');
    await page.screenshot({ path: `${FOLDER}${name}.png` as `${string}.png` });
  };
  await screen.sees('li', 'Brinewick Salvage');
  await take('rulesets');
  await page.locator('ul li a').click();
  await screen.sees('h2', 'What it comes to');
  await screen.drawnAs(50.925, false);
  await screen.edit('refill a second', 'has(inBell) ? breathRate * 1.2 : -2');
  await screen.drawnAs(37.9, true);
  await screen.sees('[role="status"]', /saved/);
  await take('rulebook-stat');
  await page.locator('.index a ::-p-text(Suit)').click();
  await screen.sees('.pin', 'bubble 8 s');
  await screen.edit('refill a second', '6');
  await screen.sees('ee-evidence td', '19.7 s');
  await page.focus('.plot');
  for (let i = 0; i < 36; i++) await page.keyboard.press('ArrowRight');
  await screen.sees('.reading', 'At 18.0 s');
  await page.waitForFunction(() => document.querySelector<HTMLElement>('canvas')?.dataset['drawn']?.endsWith(' ghost'));
  await take('rulebook-pins');
  for (const [chapter, name] of [
    ['Effects', 'rulebook-effect'],
    ['Abilities', 'rulebook-ability'],
  ]) {
    await screen.click('link', chapter);
    await screen.sees('[aria-label="Evidence"] h2', 'What it comes to');
    if (chapter === 'Effects') {
      await page.locator('.index a ::-p-text(Keen eye)').click();
      await screen.sees('.bar', 'Keen eye');
      await screen.sees('.finding', 'Nobody speaks of Keen eye');
    }
    await page.waitForSelector('canvas[data-drawn]');
    await take(name);
  }
  await page.keyboard.press('p');
  await screen.sees('.verdict', 'Copy agrees with truth. Not told');
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
    await page.select('select[aria-label="What to do"]', what);
    await page.waitForSelector(`select[aria-label="What it is about"] option[value="${about}"]`);
    await page.select('select[aria-label="What it is about"]', about);
    await page.select('select[aria-label="From whom"]', from);
    await screen.click('button', 'Do it');
  };
  await page.keyboard.press('k');
  await page.waitForSelector('ee-pokes');
  await poke('apply', 'bubble', '');
  await poke('apply', 'slipstream', '');
  await poke('apply', 'silt', 'south');
  await page.locator('[aria-label="Seat north"] h2 button ::-p-text(why)').click();
  await page.locator('ee-why ul button ::-p-text(Fin speed)').click();
  await screen.sees('ee-why td', 'from south');
  await take('playtest-why');
  await page.keyboard.press('Escape');
  const join = (await page.evaluate(
    `fetch('/api/rooms/' + location.pathname.split('/').at(-1)).then((r) => r.json()).then((room) => room.seats[1].join)`,
  )) as string;
  const guest = new Screen(await workbench.browser.newPage());
  await guest.page.setViewport({ width: 390, height: 780, isMobile: true, hasTouch: true, deviceScaleFactor: 1 });
  await guest.page.goto(workbench.url + join);
  await guest.sees('header', 'south');
  await guest.page.waitForSelector('[data-attribute="oxygen"]');
  await guest.page.screenshot({ path: `${FOLDER}join-phone.png` });
} finally {
  await workbench.stop();
}
