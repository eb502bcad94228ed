import { type Screen, seat, value } from './screen.js';
import { eachWalk } from './suite.js';
import { entryOf, type Trial } from './trial.js';
import type { Workbench } from './workbench.js';

describe('Playtest', () => {
  let workbench: Workbench;
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ workbench, screen, trial } = walk));

  const pods = (within: string) => screen.page.$eval(`${within} canvas`, (e) => Number((e as HTMLCanvasElement).dataset['pickups']));

  it('opens a room with two seats of two crews by one key', async () => {
    await screen.visit(trial.at('attributes', 'oxygen'));
    await screen.sees('[aria-label="Spec"]', 'A pool');
    await screen.page.keyboard.press('p');
    await screen.sees(seat('north'), /north crew Petrel you drive/);
    await screen.sees(seat('south'), /south crew Gannet drive/);
    await screen.sees(`${seat('north')} .verdict`, 'Copy agrees with truth.');
    // It tells south nothing of north's oxygen, and says so.
    await screen.sees(`${seat('south')} .verdict`, /Copy agrees with truth\. .*Not told: north’s oxygen/);
  });

  it('moves the driven seat with the keyboard, into a pod that is gone at once for both', async () => {
    await screen.play(await trial.room());
    const before = await pods(seat('south'));
    await screen.page.keyboard.down('d');
    await screen.sees('ee-trace li', /Slipstream begins on north, for 6 s because north takes slipstream pod/);
    await screen.page.keyboard.up('d');
    await screen.page.waitForFunction(
      (s: string, n: number) => [...document.querySelectorAll<HTMLCanvasElement>(s)].every((c) => Number(c.dataset['pickups']) < n),
      {},
      'canvas',
      before,
    );
  });

  it('counts a second slipstream, ends each on its own clock, and returns to exactly 120', async () => {
    // Long enough apart for a slow machine to show what holds in between.
    await trial.edit((document) => (entryOf(document, 'effects', 'slipstream')['lasts'] = '14s'));
    await screen.play(await trial.room());
    await screen.poke('spawn', 'slipstreamPod', { Seat: 'north' });
    await screen.sees(value('north', 'finSpeed'), '168');
    await screen.sees(`${seat('north')} [data-effect="Slipstream"]`, /Slipstream \d\.\d s/);
    await screen.poke('spawn', 'slipstreamPod', { Seat: 'north' });
    await screen.sees(value('north', 'finSpeed'), '216');
    await screen.sees(value('north', 'finSpeed'), '168');
    await screen.pace(8);
    await screen.sees(value('north', 'finSpeed'), /^120$/);
  });

  it('uses sonar ping, shows its cooldown to its owner, and refuses it early with the time left', async () => {
    await screen.play(await trial.room());
    await screen.seesPass(`${seat('north')} [role="alert"]`, /Sonar ping is cooling down: ready in [78](\.\d)? s\./, async () => {
      await screen.page.keyboard.press('1');
      await screen.page.keyboard.press('1');
    });
    await screen.sees('ee-trace li.refused', 'Sonar ping is cooling down');
    await screen.sees(`${seat('north')} [data-ability="sonarPing"]`, /\d\.\d s/);
    await screen.sees(`${seat('south')} [data-ability="sonarPing"]`, 'ready');
    // It is north's: neither the other seat nor the truth repeats it as theirs.
    for (const elsewhere of [seat('south'), '[aria-label="Truth"]']) expect(await screen.page.$(`${elsewhere} [role="alert"]`)).toBeNull();
  });

  it('says why a value is what it is, back to the input that began it', async () => {
    await trial.edit((document) => (entryOf(document, 'effects', 'silt')['lasts'] = '20s'));
    await screen.play(await trial.room());
    await screen.page.keyboard.down('d');
    await screen.sees('ee-trace li', 'north takes slipstream pod');
    await screen.page.keyboard.up('d');
    await screen.pace(8);
    await screen.sees(value('north', 'finSpeed'), /^120$/);
    await screen.pace(1);
    await screen.poke('spawn', 'siltPod', { Seat: 'north' });
    await screen.tap(`${seat('north')} h2 button ::-p-text(why)`);
    await screen.tap('ee-why ul button ::-p-text(Fin speed)');
    await screen.sees('ee-why .line', /^clamp\(\(\(120 \+ 0\) × \(1 \+ 0\) × 0\.5\), 0, 600\) = 60$/);
    await screen.sees('ee-why td', 'Silt');
    await screen.sees('ee-why td', /\d\.\d s left/);
    await screen.pace(8);
    // What walked into the first pod was a key held down.
    await screen.sees('ee-why ol li', /Slipstream .* because north takes slipstream pod, because north asks: move 1 0/);
    await screen.sees('ee-why .line', /× 1\), 0, 600\) = 120$/);
    await screen.sees('ee-why ol li', /Silt runs out on north, because Silt begins on north, for 20 s, because north takes silt pod/);
    await screen.page.keyboard.press('Escape');
    await screen.lacks('ee-why');
  });

  it('takes edits of fin speed at the next tick, on the page and from elsewhere, and nobody is thrown out', async () => {
    const room = await trial.room();
    await screen.play(room);
    await screen.click('link', 'Rulebook');
    await screen.sees('.index', 'Fin speed');
    // The room runs on while its author is elsewhere.
    const before = Number(/tick (\d+)/.exec(await screen.text('footer'))![1]);
    await screen.page.waitForFunction(
      (n: number) => Number(/tick (\d+)/.exec(document.querySelector('footer')!.textContent!)?.[1]) > n + 5,
      {},
      before,
    );
    await screen.tap('::-p-aria([role="link"][name="Fin speed stat"])');
    await screen.sees('h2', 'What becomes of it');
    await screen.edit('base', '150');
    await screen.sees('[role="status"]', 'saved · rev 2');
    await screen.click('link', 'Playtest');
    await screen.sees(value('north', 'finSpeed'), '150');
    expect(new URL(screen.page.url()).pathname).toBe(room.path);
    const other = await workbench.screen();
    await other.visit(trial.at('attributes', 'finSpeed'));
    await other.edit('base', '180');
    await other.sees('[role="status"]', 'saved · rev 3');
    await screen.page.bringToFront();
    await screen.sees(value('north', 'finSpeed'), '180');
    await screen.sees(value('south', 'finSpeed'), '180');
  });

  it('lets somebody drive south from another browser by the join link; both screens agree', async () => {
    const room = await trial.room();
    await screen.play(room);
    const guest = await workbench.stranger();
    await guest.visit(room.joins['south']);
    await guest.sees('header', /south crew Gannet/);
    await screen.sees(seat('south'), 'from another browser');
    await guest.page.keyboard.press('1');
    await guest.sees('[data-ability="sonarPing"]', /\d\.\d s/);
    await screen.sees('ee-trace li', 'south uses sonar ping');
    await screen.poke('give', 'scrip', { Amount: '9', Seat: 'south' });
    await screen.sees(value('south', 'scrip'), '9');
    await guest.sees('[data-attribute="scrip"]', '9');
    // A guest has a seat, not the workbench.
    expect(await guest.page.evaluate(async () => (await fetch('/api/rulesets')).status)).toBe(401);
    expect(guest.complaints).toEqual([]);
  });

  it('is there again after kill -9: the edits, and what each player had', async () => {
    await trial.edit((document) => {
      entryOf(document, 'attributes', 'finSpeed')['start'] = 180;
      delete entryOf(document, 'attributes', 'suit')['refill'];
    });
    await screen.play(await trial.room());
    await screen.poke('set', 'scrip', { Amount: '42', Seat: 'north' });
    await screen.poke('set', 'scrip', { Amount: '9', Seat: 'south' });
    await screen.poke('hurt', 'suit', { Amount: '70', Seat: 'north' });
    const allIsThere = async () => {
      await screen.sees(value('north', 'scrip'), /^42$/);
      await screen.sees(value('north', 'suit'), /^30$/);
      await screen.sees(value('south', 'scrip'), /^9$/);
      await screen.sees(value('north', 'finSpeed'), '180');
    };
    await allIsThere();
    await screen.roomIsStored();
    await workbench.kill();
    await screen.sees('[role="alert"]', 'The connection to the room is lost');
    await workbench.serve();
    await screen.sees(`${seat('north')} .verdict`, 'Copy agrees with truth.');
    await allIsThere();
    await screen.page.reload();
    await allIsThere();
  });
});
