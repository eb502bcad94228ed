import { Worker } from 'node:worker_threads';
import { readFileSync } from 'node:fs';
import { compileRuleset, openTable, PLANS, rollOf, type Rules, seatsTable, World } from '@eager-ember/core';
import { Workbench } from '../../e2e/src/workbench.js';
import { compare, median, rounded, type Row } from './measure.js';

const [ENTRIES, CALLS, GAMES] = [10, 200_000, 1000];
const brinewick = JSON.parse(readFileSync(new URL('../../examples/brinewick.json', import.meta.url), 'utf8')) as object;

/** One table of ten entries, with or without a streak breaker. */
function rulesWith(streak: boolean): Rules {
  return compileRuleset({
    format: 'eager-ember/ruleset',
    version: 2,
    name: 'Rolls',
    tickRate: 20,
    attributes: Array.from({ length: ENTRIES }, (_, i) => ({ id: `thing${i}`, label: `Thing ${i}`, kind: 'counter' })),
    actors: [{ id: 'diver', label: 'Diver', kind: 'player', attributes: [] }],
    loot: [
      {
        id: 'haul',
        label: 'Haul',
        entries: Array.from({ length: ENTRIES }, (_, i) => ({ id: `thing${i}`, weight: 1 + ((i * 7) % 5), gives: `thing${i}` })),
        ...(streak && { streak: { entry: 'thing0', after: 20, adds: 2 } }),
      },
    ],
  });
}

/** The core's rolls on a table, beside the barest loop that comes to the same: a counter, a hash, a look along the sums. */
export function lootRolls(): readonly Row[] {
  return [false, true].map((streak): Row => {
    const rules = rulesWith(streak);
    const world = World.start(rules, 7);
    world.step([{ kind: 'join', args: { seat: 'diver' } }]);
    const player = seatsTable.in(world).cells.actor[0];
    const opener = { parties: { owner: player, source: player, target: player }, whose: player, streaks: player };
    const found = new Map<string, number>();
    let sum = 0;
    const sums = Array.from({ length: ENTRIES }, (_, i) => (sum += 1 + ((i * 7) % 5)));
    const counts = new Int32Array(ENTRIES);
    let counter = 0;
    let last = '';
    const { one, other } = compare(
      () => openTable(world, 0, opener, (_table, drop) => void (last = drop.id)),
      () => {
        const drawn = rollOf(7, 12345, player, counter++) * sum;
        let at = 0;
        while (sums[at] <= drawn) at++;
        counts[at]++;
      },
      9,
      CALLS,
    );
    found.set(last, counts[0]);
    return {
      what: `one roll of a loot table of ${ENTRIES} entries${streak ? ' with a streak breaker, whose weights move' : ''}`,
      value: rounded(one * 1000),
      reference: rounded(other * 1000),
      unit: 'ns',
      referenceIs: 'a bare counter, hash and look along the sums',
      ratio: `${(other / one).toFixed(2)} of the speed of the bare loop, ${(1 / one).toFixed(1)} million rolls a second`,
      reach: streak ? 'none set' : 'half the speed',
    };
  });
}

const WORK = `
  const { parentPort, workerData } = require('node:worker_threads');
  import(workerData.core).then(({ compileRuleset, EconomyGames, PLANS }) => {
    const rules = compileRuleset(workerData.document);
    const games = PLANS.map((plan) => new EconomyGames(rules, plan));
    games.forEach((one) => one.play(1));
    parentPort.on('message', ({ plan, from, to }) => {
      let days = 0;
      for (let seed = from; seed <= to; seed++) days += games[plan].play(seed).days;
      parentPort.postMessage(days);
    });
    parentPort.postMessage(0);
  });
`;

/** A thousand games of the demo's economy, on two cores. */
export async function economyGames(): Promise<Row> {
  const core = import.meta.resolve('@eager-ember/core');
  const workers = [0, 1].map(() => new Worker(WORK, { eval: true, workerData: { core, document: brinewick } }));
  const answer = (worker: Worker) => new Promise<number>((done) => worker.once('message', done));
  await Promise.all(workers.map(answer));
  const times: number[] = [];
  let days = 0;
  for (const plan of PLANS.keys()) {
    const began = performance.now();
    const played = workers.map((worker, i) => {
      const told = answer(worker);
      worker.postMessage({ plan, from: 1 + (i * GAMES) / 2, to: ((i + 1) * GAMES) / 2 });
      return told;
    });
    days += (await Promise.all(played)).reduce((sum, one) => sum + one, 0);
    times.push((performance.now() - began) / 1000);
  }
  await Promise.all(workers.map((worker) => worker.terminate()));
  // The same ticks in a world where nothing is traded: two a day.
  const rules = compileRuleset(brinewick);
  const world = World.start(rules, 1);
  world.step([{ kind: 'join', args: { seat: 'diver' } }]);
  const began = performance.now();
  for (let n = 0; n < 5000; n++) world.step();
  const tick = (performance.now() - began) / 5000;
  return {
    what: `a thousand games of the demo’s economy of up to 60 days, in two workers`,
    value: rounded(median([...times])),
    reference: rounded((2 * (days / PLANS.length) * tick) / 2000),
    unit: 's',
    referenceIs: 'two ticks of the demo with one diver for each of those days, shared by two cores',
    ratio: `${times.map((time, i) => `${PLANS[i].label} ${time.toFixed(1)} s`).join(', ')}; ${Math.round(days / PLANS.length / 1000)} days a game on average`,
    reach: 'under 5 s',
  };
}

/** The same in the page: how long it takes there, and how long the page's thread is ever held. */
export async function gamesInPage(): Promise<Row> {
  const workbench = await Workbench.start();
  try {
    const screen = await workbench.screen();
    await screen.visit('/');
    await screen.page.locator('ul li a').click();
    await screen.sees('h2', 'What it comes to');
    await screen.click('link', 'Economy');
    await screen.sees('h2', 'On paper');
    await screen.page.evaluate(`
      globalThis.measure = { worst: 0, last: performance.now() };
      const channel = new MessageChannel();
      channel.port1.onmessage = () => {
        const now = performance.now();
        measure.worst = Math.max(measure.worst, now - measure.last);
        measure.last = now;
        channel.port2.postMessage(0);
      };
      channel.port2.postMessage(0);
    `);
    const idle = (await screen.page.evaluate(
      `measure.worst = 0; new Promise((done) => setTimeout(() => done(measure.worst), 1500))`,
    )) as number;
    const began = performance.now();
    await screen.page.evaluate('measure.worst = 0');
    await screen.click('button', 'play');
    await screen.sees('[data-plan="upgradeFirst"]', '1000');
    await screen.lacks('progress');
    const took = (performance.now() - began) / 1000;
    const worst = (await screen.page.evaluate('measure.worst')) as number;
    return {
      what: 'longest hold of the page’s thread while three thousand games are played',
      value: rounded(worst),
      reference: rounded(idle),
      unit: 'ms',
      referenceIs: 'the same while nothing happens',
      ratio: `${took.toFixed(1)} s for three plans, ${(took / PLANS.length).toFixed(1)} s a thousand`,
      reach: 'never blocked; the core itself holds it 0 ms, it runs in workers',
    };
  } finally {
    await workbench.stop();
  }
}
