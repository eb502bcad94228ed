import { withWorkbench } from './suite.js';
import { Screen, type Workbench } from './workbench.js';

const seat = (name: string) => `[aria-label="Seat ${name}"]`;
const value = (name: string, attribute: string) => `${seat(name)} [data-attribute="${attribute}"]`;

describe('Playtest', () => {
  let workbench: Workbench;
  let screen: Screen;
  let room = '';
  let southLink = '';
  withWorkbench((started, signedIn) => {
    workbench = started;
    screen = signedIn;
  });
  afterEach(() => expect(screen.complaints.splice(0)).toEqual([]));

  const pods = (within: string) => screen.page.$eval(`${within} canvas`, (e) => Number((e as HTMLCanvasElement).dataset['pickups']));
  const poke = async (kind: string, what: string, amount: string, on: string) => {
    await screen.page.keyboard.press('k');
    await screen.page.locator('select[aria-label="What to do"]').fill(kind);
    await screen.page.waitForFunction(
      (w: string) =>
        [...document.querySelectorAll('select[aria-label="What it is about"] option')].some((o) => (o as HTMLOptionElement).value === w),
      {},
      what,
    );
    await screen.page.select('select[aria-label="What it is about"]', what);
    if (amount !== '') await screen.page.locator('input[aria-label="Amount"]').fill(amount);
    await screen.page.select('select[aria-label="Seat"]', on);
    await screen.click('button', 'Do it');
    await screen.page.keyboard.press('Escape');
    await screen.lacks('ee-pokes');
  };

  it('opens a room with two seats of two crews by one key', async () => {
    await screen.page.locator('ul li a').click();
    await screen.sees('[aria-label="Spec"]', 'A pool');
    await screen.page.keyboard.press('p');
    await screen.sees(seat('north'), /north crew Petrel you drive/);
    await screen.sees(seat('south'), /south crew Gannet drive/);
    await screen.sees(`${seat('north')} .verdict`, 'Copy agrees with truth.');
    room = screen.page.url();
  });

  it('moves the driven seat with the keyboard, into a pod that is gone at once for both', async () => {
    const before = await pods(seat('south'));
    await screen.page.keyboard.down('d');
    await screen.sees(value('north', 'finSpeed'), '168');
    await screen.page.keyboard.up('d');
    await screen.page.waitForFunction(
      (s: string, n: number) => [...document.querySelectorAll<HTMLCanvasElement>(s)].every((c) => Number(c.dataset['pickups']) < n),
      {},
      'canvas',
      before,
    );
    await screen.sees('ee-trace li', /Slipstream begins on north, for 6 s because north takes slipstream pod/);
  });

  it('counts a second slipstream, ends each on its own clock, and returns to exactly 120', async () => {
    await screen.sees(value('north', 'finSpeed'), /^120$/);
    // Two, a second apart, from one form: however slow the machine is, both are on together.
    await screen.poke('spawn', 'slipstreamPod', { Seat: 'north' }, async () => {
      await screen.click('button', 'Do it');
      await new Promise((next) => setTimeout(next, 1000));
    });
    await screen.sees(value('north', 'finSpeed'), '216');
    await screen.sees(value('north', 'finSpeed'), '168');
    await screen.sees(value('north', 'finSpeed'), /^120$/);
  });

  it('uses sonar ping, shows its cooldown to its owner, and refuses it early with the time left', async () => {
    await screen.page.keyboard.press('1');
    await screen.sees(`${seat('north')} [data-ability="sonarPing"]`, /7\.\d s/);
    await screen.sees(`${seat('south')} [data-ability="sonarPing"]`, 'ready');
    await screen.page.keyboard.press('1');
    await screen.sees(`${seat('north')} [role="alert"]`, /Sonar ping is cooling down: ready in [67](\.\d)? s\./);
    // It is north's: neither the other seat nor the truth repeats it as theirs.
    for (const elsewhere of [seat('south'), '[aria-label="Truth"]']) expect(await screen.page.$(`${elsewhere} [role="alert"]`)).toBeNull();
  });

  it('says why a value is what it is, back to the input that began it', async () => {
    await poke('spawn', 'siltPod', '', 'north');
    await screen.sees(value('north', 'finSpeed'), '60');
    await screen.page.locator(`${seat('north')} h2 button ::-p-text(why)`).click();
    await screen.sees('ee-why .line', /^clamp\(\(\(120 \+ 0\) × \(1 \+ 0\) × 0\.5\), 0, 600\) = 60$/);
    await screen.sees('ee-why td', 'Silt');
    await screen.sees('ee-why td', /[0-3]\.\d s left/);
    await screen.sees('ee-why ol li', /Silt begins on north, for 3 s, because north takes silt pod/);
    await screen.sees('ee-why .line', /× 1\), 0, 600\) = 120$/);
    await screen.sees('ee-why ol li', /Silt runs out on north, because Silt begins on north, for 3 s, because north takes silt pod/);
    // What walked into the first pod was a key held down.
    await screen.sees('ee-why ol li', /Slipstream .* because north takes slipstream pod, because north asks: move 1 0/);
    await screen.page.keyboard.press('Escape');
    await screen.lacks('ee-why');
  }, 30_000);

  it('tells south nothing of north’s oxygen, and says so', async () => {
    await screen.sees(`${seat('south')} .verdict`, /Copy agrees with truth\. .*Not told: north’s oxygen/);
  });

  it('takes an edit of fin speed at the next tick, and nobody is thrown out', async () => {
    await screen.click('link', 'Rulebook');
    await screen.sees('.index', 'Fin speed');
    // The room runs on while its author is elsewhere.
    const before = Number(/tick (\d+)/.exec(await screen.text('footer'))![1]);
    await screen.page.waitForFunction(
      (n: number) => Number(/tick (\d+)/.exec(document.querySelector('footer')!.textContent!)?.[1]) > n + 5,
      {},
      before,
    );
    await screen.page.locator('::-p-aria([role="link"][name="Fin speed stat"])').click();
    await screen.sees('h2', 'What becomes of it');
    await screen.edit('base', '150');
    await screen.sees('[role="status"]', 'saved · rev 2');
    await screen.click('link', 'Playtest');
    await screen.sees(value('north', 'finSpeed'), '150');
    expect(screen.page.url()).toBe(room);
  });

  it('takes an edit while the room is on the screen', async () => {
    const other = new Screen(await workbench.browser.newPage());
    await other.page.goto(room.replace(/playtest.*/, 'rulebook/attributes/finSpeed'));
    await other.edit('base', '180');
    await other.sees('[role="status"]', 'saved · rev 3');
    await screen.page.bringToFront();
    await screen.sees(value('north', 'finSpeed'), '180');
    await screen.sees(value('south', 'finSpeed'), '180');
    await other.page.close();
  });

  it('lets somebody drive south from another browser by the join link; both screens agree', async () => {
    const answer = await screen.page.evaluate(
      async (id: string) => (await (await fetch(`/api/rooms/${id}`)).json()) as { seats: { join: string }[] },
      room.split('/').at(-1)!,
    );
    southLink = workbench.url + answer.seats[1].join;
    const elsewhere = await workbench.browser.createBrowserContext();
    const guest = new Screen(await elsewhere.newPage());
    await guest.page.goto(southLink);
    await guest.sees('header', /south crew Gannet/);
    await screen.sees(seat('south'), 'from another browser');
    await guest.page.bringToFront();
    await guest.page.keyboard.press('1');
    await guest.sees('[data-ability="sonarPing"]', /[67]\.\d s/);
    await screen.page.bringToFront();
    await screen.sees(`${seat('south')} [data-ability="sonarPing"]`, /[567]\.\d s/);
    await poke('give', 'scrip', '9', 'south');
    await screen.sees(value('south', 'scrip'), '9');
    await guest.page.bringToFront();
    await guest.sees('[data-attribute="scrip"]', '9');
    // A guest has a seat, not the workbench.
    expect(await guest.page.evaluate(async () => (await fetch('/api/rulesets')).status)).toBe(401);
    expect(guest.complaints).toEqual([]);
    await elsewhere.close();
  });

  it('is there again after kill -9: the edits, and what each player had', async () => {
    await screen.page.bringToFront();
    await poke('set', 'scrip', '42', 'north');
    await screen.sees(value('north', 'scrip'), '42');
    await poke('hurt', 'suit', '70', 'north');
    await screen.sees(value('north', 'suit'), /^[3-8]\d$/);
    // Stored within half a second of the change: the database says so, not a clock.
    await screen.page.waitForFunction((s: string) => Number(document.querySelector(s)?.textContent) >= 40, {}, value('north', 'suit'));
    await workbench.kill();
    await screen.sees('[role="alert"]', 'The connection to the room is lost');
    await workbench.serve();
    await screen.sees(value('north', 'scrip'), '42');
    // Looked at first: it refills while the rest is read.
    const suit = Number(await screen.text(value('north', 'suit')));
    await screen.sees(value('north', 'finSpeed'), '180');
    await screen.sees(value('south', 'scrip'), /^9$/);
    expect(suit).toBeGreaterThanOrEqual(30);
    expect(suit).toBeLessThan(100);
    await screen.page.reload();
    await screen.sees(value('north', 'scrip'), '42');
  });
});
