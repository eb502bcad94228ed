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
  for (const [chapter, name] of [
    ['Effects', 'rulebook-effect'],
    ['Abilities', 'rulebook-ability'],
  ]) {
    await screen.click('link', chapter);
    await screen.sees('[aria-label="Evidence"] h2', 'What it comes to');
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
