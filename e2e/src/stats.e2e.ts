import type { Screen } from './screen.js';
import { eachWalk } from './suite.js';
import { entryOf, Trial } from './trial.js';
import type { Workbench } from './workbench.js';

describe('Stats and effects', () => {
  let workbench: Workbench;
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ workbench, screen, trial } = walk));

  const id = 'input[aria-label="Id"]';
  const chip = (name: string) => screen.click('button', name);

  it('are written from nothing, names picked and no id typed', async () => {
    await screen.visit('/');
    await screen.page.locator('input[aria-label="Name of a new ruleset"]').fill('Empty Quay');
    await screen.click('button', 'Begin it');
    await screen.sees('h1', 'No attribute yet');
    const written = new Trial(workbench, /^\/r\/([^/]+)/.exec(new URL(screen.page.url()).pathname)![1]);
    await screen.click('button', 'Begin the first attribute');
    await screen.holds(id, 'newAttribute');
    await screen.fill('.title', 'Lung capacity');
    await screen.holds(id, 'lungCapacity');
    await screen.pick('ee-choose button[aria-label="kind: pool"]', 'stat');
    await screen.edit('base', '90');
    await screen.click('button', 'make a player who does');
    await screen.sees('ee-carriers', '☑ Player');
    await chip('+ attribute');
    await screen.holds(id, 'newAttribute');
    await screen.fill('.title', 'Breath rate');
    await screen.holds(id, 'breathRate');
    await screen.pick('ee-choose button[aria-label="kind: pool"]', 'stat');
    await screen.edit('base', '14');
    await screen.tap('ee-carriers button');
    await screen.sees('ee-carriers', '☑ Player');
    await chip('+ attribute');
    await screen.holds(id, 'newAttribute');
    await screen.fill('.title', 'Oxygen');
    await screen.holds(id, 'oxygen');
    await screen.tap('ee-carriers button');
    await screen.sees('ee-carriers', '☑ Player');
    await screen.edit('maximum', 'lung c');
    await screen.sees('[aria-label="Spec"]', 'from 0 to lung capacity');
    // One after the other: each clause that comes moves the chips below it.
    for (const [clause, shown] of [
      ['refill', '[aria-label^="refill a second"]'],
      ['pause after a loss', '[aria-label^="pause after a loss: "]'],
      ['whole numbers', '[aria-label^="whole numbers: "]'],
      ['resistance', '[aria-label^="what gets through: "]'],
      ['threshold', 'ee-threshold:nth-of-type(1)'],
      ['threshold', 'ee-threshold:nth-of-type(2)'],
    ]) {
      await chip(clause);
      await screen.page.waitForSelector(shown);
    }
    await screen.edit('refill a second', 'breath');
    await screen.sees('[aria-label="Spec"]', 'refills breath rate a second');
    await screen.edit('pause after a loss', '3');
    await screen.edit('what gets through', 'event.asked * 0.5');
    await screen.edit('seen by', 'the crew');
    // What follows: being told, and being filled again.
    await screen.pick('ee-threshold:nth-of-type(1) ee-then .chip', 'show or sound something');
    await screen.edit('text', 'Out of air');
    await screen.pick('ee-threshold:nth-of-type(2) ee-choose button', 'at most');
    await screen.edit('to', '20');
    await screen.pick('ee-threshold:nth-of-type(2) ee-then .chip', 'raise a pool');
    // A stat is not raised: the first that can be is the pool itself.
    await screen.sees('ee-threshold', 'raise oxygen by 1 for self');
    await screen.saved();
    const { attributes, actors } = await written.stored();
    expect(attributes.map((a) => a.id)).toEqual(['lungCapacity', 'breathRate', 'oxygen']);
    expect(attributes[2]).toEqual(
      jasmine.objectContaining({
        max: 'lungCapacity',
        refill: { rate: 'breathRate', pause: '3s' },
        whole: true,
        taken: 'event.asked * 0.5',
        see: 'team',
        thresholds: [
          { id: 'out', end: 'empty', enter: [{ do: 'flourish', text: 'Out of air' }] },
          { id: 'edge', to: 20, enter: [{ do: 'heal', attribute: 'oxygen', amount: 1 }] },
        ],
      }),
    );
    expect(actors.length).toBe(1);
    await screen.sees('.reading', 'Point at the chart');
  });

  it('keep what was refused with its reason, also while another is looked at', async () => {
    await screen.visit(trial.at('attributes', 'oxygen'));
    await screen.sees('h2', 'What it comes to');
    await screen.edit('start', '500');
    await screen.sees('.refusal', 'The start 500 is above the maximum 90.');
    await screen.entry('Suit');
    await screen.holds('.title', 'Suit');
    await screen.sees('.index .badge.refused', '“500” is not taken: The start 500 is above the maximum 90.');
    await screen.entry('Oxygen');
    await screen.holds('ee-part input[aria-label="start"]', '500');
    await screen.sees('.refusal', 'The start 500 is above the maximum 90.');
    await screen.page.focus('ee-part input[aria-label="start"]');
    await screen.page.keyboard.press('Escape');
    await screen.sees('ee-part', 'full');
    await screen.lacks('.index .badge.refused');
    // Chosen by the mouse alone, from the list that opens.
    await screen.choose('seen by', 'the server alone');
    await screen.sees('[aria-label="Spec"]', 'Seen by the server alone');
    await screen.saved();
  });

  it('are tried out with pins that are dragged, and tell what was lost', async () => {
    await screen.visit(trial.at('attributes', 'oxygen'));
    await screen.sees('.pin', 'in bell 20 s');
    /** Adds a pin, and waits until it is the one that is open. */
    const add = async (label: string) => {
      const there = (await screen.page.$$('.pin')).length;
      await screen.pick('.top .tools .act', label);
      await screen.page.waitForFunction(
        (n: number) => document.querySelectorAll('.pin').length === n + 1 && document.querySelector('.pin.chosen') !== null,
        {},
        there,
      );
      await screen.page.waitForSelector('ee-pin-editor ee-part');
    };
    await add('lose some');
    await screen.edit('moment', '2', 'ee-pin-editor');
    await screen.edit('amount', '30', 'ee-pin-editor');
    await screen.sees('.pin', 'lose 30 oxygen 2 s');
    await add('an effect');
    await screen.edit('moment', '4', 'ee-pin-editor');
    await screen.edit('effect', 'silt', 'ee-pin-editor');
    await screen.sees('.pin', 'silt 4 s');
    await add('maximum + 20');
    await screen.edit('moment', '6', 'ee-pin-editor');
    await screen.sees('.pin', 'lung capacity = lungCapacity + 20 6 s');
    await add('fill it');
    await screen.edit('moment', '8', 'ee-pin-editor');
    await screen.sees('.pin', /gain lungCapacity oxygen 8 s .* over-heal lost/);
    await screen.sees('tbody', 'Over-heal, lost');
    await screen.sees('.bar', 'Silt ran out');
    // From 2 s to about 10 s: an eighth of the axis.
    const handle = await screen.page.waitForSelector('.pin[aria-label="lose 30 oxygen"]');
    const box = (await handle!.boundingBox())!;
    const width = await screen.page.$eval('ee-pins .rows', (e) => e.clientWidth);
    await screen.page.mouse.move(box.x + 6, box.y + 8);
    await screen.page.mouse.down();
    await screen.page.mouse.move(box.x + 6 + (width * 8) / 60, box.y + 8, { steps: 6 });
    await screen.page.mouse.up();
    await screen.sees('.pin', /lose 30 oxygen (9\.9|10|10\.1) s/);
    await screen.click('button', 'compare following');
    await screen.page.waitForFunction(() => document.querySelector('canvas')?.getAttribute('aria-label')?.startsWith('keep:'));
    await screen.click('button', 'itself');
    await screen.saved();
    expect((await trial.stored())['situations'].at(-1)!['pins']).toHaveSize(6);
  });

  it('show each stacking mode as instances with their own ends', async () => {
    await screen.visit(trial.at('effects', 'slipstream'));
    await screen.sees('.bar', 'Slipstream ran out');
    const bars = () => screen.page.$$eval('.bar', (all) => all.map((e) => (e as HTMLElement).title));
    expect(await bars()).toEqual(['Slipstream, 2 s to 8 s, ran out', 'Slipstream, 4 s to 10 s, ran out']);
    const stack = async (way: string, title: string) => {
      await screen.pick('ee-choose button[aria-label^="stacking"]', way);
      await screen.page.waitForFunction((t: string) => document.querySelector<HTMLElement>('.bar')?.title === t, {}, title);
    };
    await stack('begins the time anew', 'Slipstream, 2 s to 10 s, ran out');
    await screen.edit('most', '2');
    await screen.page.waitForFunction(() => document.querySelector<HTMLElement>('.bar')?.innerText.includes('×2'));
    await stack('adds its time', 'Slipstream, 2 s to 14 s, ran out');
    await stack('is refused', 'Slipstream, 2 s to 8 s, ran out');
    expect((await bars()).length).toBe(1);
    await screen.sees('details', /What happened/);
    await screen.entry('Bubble');
    await screen.sees('.bar', 'Bubble used up');
    await screen.sees('tbody tr', 'then lose 20 suit 14 · 100');
    await screen.entry('Winded');
    await screen.sees('.bar', 'Winded removed');
    await screen.saved();
  });

  it('are renamed everywhere in one step, also over a restart, and back', async () => {
    await screen.visit(trial.at('attributes', 'finSpeed'));
    await screen.holds(id, 'finSpeed');
    const said = async (name: string) => JSON.stringify(await trial.stored()).split(new RegExp(`\\b${name}\\b`)).length - 1;
    const before = await said('finSpeed');
    expect(before).toBeGreaterThan(5);
    await screen.fill(id, 'suit');
    await screen.sees('[role="alert"]', 'suit is taken by another entry of this chapter.');
    await screen.fill(id, 'swimSpeed');
    await screen.sees('ee-id', 'formerly finSpeed');
    await screen.saved();
    expect([await said('finSpeed'), await said('swimSpeed')]).toEqual([1, before]);
    await workbench.restart();
    await screen.page.reload();
    await screen.holds(id, 'swimSpeed');
    await screen.fill(id, 'finSpeed');
    await screen.sees('ee-id', 'formerly swimSpeed');
    await screen.holds(id, 'finSpeed');
    await screen.saved();
  });

  it('list where they are used before they are deleted, and lead there', async () => {
    await screen.visit(trial.at('attributes', 'finSpeed'));
    await screen.holds(id, 'finSpeed');
    await screen.click('button', 'Delete');
    await screen.sees('.refusal', /Fin speed is used in \d+ places and stays: .*Slipstream effect, modifiers 1 attribute/);
    await screen.tap('.refusal ::-p-text(Slipstream)');
    await screen.holds(id, 'slipstream');
  });

  it('say what looks like a mistake, and mend it', async () => {
    await screen.visit(trial.at('effects', 'slipstream'));
    await screen.edit('amount', '-140');
    await screen.sees('.finding', '-140 % takes more than all of fin speed away');
    await screen.sees('header .findings', '1 finding');
    await screen.tap('header .findings');
    await screen.sees('mat-dialog-content', /Slipstream ?Effects -140 % takes more than all/);
    await screen.tap('mat-dialog-content ::-p-text(Make it -100 %)');
    await screen.sees('header .findings', '0 findings');
    await screen.page.keyboard.press('Escape');
    await screen.lacks('mat-dialog-content');
    await screen.sees('[aria-label="Spec"]', 'changes by -100 %');
  });

  it('go out as a table and come in again, all or nothing', async () => {
    await screen.visit(trial.at('attributes'));
    await screen.sees('.index', 'Oxygen');
    await screen.click('button', 'table …');
    await screen.takeIn('bad.csv', 'id,start\r\nfinSpeed,140\r\ntorchPower,"1,5"\r\n');
    await screen.sees('mat-dialog-content', 'Nothing was taken from bad.csv: 1 mistake.');
    await screen.sees('mat-dialog-content tr', '3 2 start Write decimals with a point: 1.5.');
    await screen.takeIn('good.csv', 'id,start\r\nfinSpeed,140\r\ntorchPower,1.5\r\n');
    await screen.sees('mat-dialog-content', 'good.csv is sound: 2 changed.');
    await screen.click('button', 'Take it');
    await screen.sees('mat-dialog-content', 'Taken from good.csv');
    await screen.page.keyboard.press('Escape');
    await screen.sees('[role="status"]', 'saved · rev 2');
    const stored = await trial.stored();
    expect(['finSpeed', 'torchPower'].map((name) => entryOf(stored, 'attributes', name)['start'])).toEqual([140, 1.5]);
  });

  it('need no scrolling at 1280 by 800, the longest of the demo included', async () => {
    await screen.visit(trial.at('attributes', 'oxygen'));
    await screen.sees('h2', 'What it comes to');
    await screen.page.waitForFunction(() => document.querySelectorAll('ee-threshold ee-part').length > 4);
    const over = await screen.page.$eval('.spec', (e) => e.scrollHeight - e.clientHeight);
    expect(over).toBe(0);
    expect(await screen.page.evaluate(() => document.documentElement.scrollHeight - document.documentElement.clientHeight)).toBe(0);
  });
});
