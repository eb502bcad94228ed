import { Workbench } from './workbench.js';
const workbench = await Workbench.start();
try {
  const screen = await workbench.screen();
  await screen.visit('/');
  const { page } = screen;
  page.on('pageerror', (m) => console.log('pageerror', String(m)));
  const shot = (name: string) => page.screenshot({ path: `/tmp/${name}.png` as `${string}.png` });
  await screen.sees('li', 'Brinewick Salvage');
  await page.locator('ul li a').click();
  await screen.sees('h2', 'What it comes to');
  const id = /\/r\/([^/]+)/.exec(page.url())![1];
  const see = async (check: string, name: string) => {
    await screen.visit(`/r/${id}/checks/${check}`);
    await screen.sees('ee-check-story h2', 'What happened');
    await new Promise((d) => setTimeout(d, 900));
    await shot(name);
  };
  await see('windedOnce', 'ck1');
  await see('harmLeaves', 'ck2');
  await see('harpoonsFell', 'ck3');
  await see('startAboveIsRefused', 'ck4');
  await screen.visit(`/r/${id}/rulebook/abilities/bite`);
  await screen.sees('h2', 'What it comes to');
  await new Promise((d) => setTimeout(d, 2500));
  await page.evaluate(`
    window.log = [];
    addEventListener('keydown', (e) => { if (e.key === 'Enter') window.at = performance.now(); }, true);
    let last = '';
    new MutationObserver(() => { const now = document.querySelector('header .failing')?.textContent ?? ''; if (now !== last) { last = now; window.log.push(now.trim() + ' after ' + Math.round(performance.now() - window.at)); } }).observe(document.querySelector('header'), { subtree: true, childList: true, characterData: true });
  `);
  for (const n of ['90', '9', '90', '9', '90', '9', '90', '9']) {
    await screen.edit('amount', n);
    await new Promise((d) => setTimeout(d, 1800));
  }
  console.log(await page.evaluate('window.log.join("\\n")'));
} catch (e) {
  console.log(String(e));
} finally {
  await workbench.stop();
}
process.exit(0);
