import type { Screen } from '../../e2e/src/screen.js';
import { Workbench } from '../../e2e/src/workbench.js';
import { rounded, type Row } from './measure.js';

const SECONDS = 10;

/** What share of a core a page takes: of its own process, in all its threads. */
async function shareOf({ page }: Screen): Promise<number> {
  const devTools = await page.createCDPSession();
  await devTools.send('Performance.enable');
  const used = async () => (await devTools.send('Performance.getMetrics')).metrics.find(({ name }) => name === 'ProcessTime')!.value;
  const before = await used();
  await new Promise((done) => setTimeout(done, SECONDS * 1000));
  const share = ((await used()) - before) / SECONDS;
  await devTools.detach();
  return share;
}

/** What it takes to watch a room of two seats in which nobody moves. */
export async function watching(): Promise<Row> {
  const workbench = await Workbench.start();
  try {
    const bare = await workbench.stranger();
    await bare.page.evaluate(`setInterval(() => (document.body.textContent = String(performance.now())), 50)`);
    const reference = await shareOf(bare);
    const screen = await workbench.screen();
    await screen.play(await (await workbench.trial()).room(2));
    const share = await shareOf(screen);
    return {
      what: 'Playtest of the demo, two seats beside the truth, nobody moves: the page’s process',
      value: rounded(share * 100),
      reference: rounded(reference * 100),
      unit: '% of one core',
      referenceIs: 'an empty page that writes one number twenty times a second',
      ratio: `${(share / reference).toFixed(1)}x`,
      reach: 'none set',
    };
  } finally {
    await workbench.stop();
  }
}
