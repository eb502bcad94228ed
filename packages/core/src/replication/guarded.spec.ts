import * as fc from 'fast-check';
import {
  abilitiesNow,
  actorOfSeat,
  Announcer,
  compileRuleset,
  encodeMessage,
  Publisher,
  type Viewer,
  wireSchemaOf,
  World,
} from '../index.js';
import { Audit } from '../testing/audit.js';
import { GUARDED_SEATS, GUARDED_TICKS, guardedRuleset } from '../testing/guarded.js';

/** Plays a random ruleset, and returns what seats were sent that they should not have been. */
function audited(seed: number, ticks: number): { faults: string[]; told: number; news: Set<string> } {
  const guarded = guardedRuleset(seed);
  const rules = compileRuleset(guarded.ruleset);
  const world = World.start(rules, seed);
  world.step(guarded.joining);
  const rowOf = (seat: number) => world.actors.rowOf(actorOfSeat(world, GUARDED_SEATS[seat]));
  const crewOf = (seat: number) => world.actors.cells.team[rowOf(seat)];
  const audit = new Audit(guarded, crewOf);
  const publisher = new Publisher(world);
  const announcers = GUARDED_SEATS.map(() => new Announcer());
  const acknowledged = GUARDED_SEATS.map(() => 0);
  const heard = GUARDED_SEATS.map(() => 0);
  const faults: string[] = [];
  const news = new Set<string>();
  const send = (seat: number, what: string, bytes: Uint8Array) =>
    faults.push(...audit.faults(seat, bytes).map((fault) => `tick ${world.tick}, ${what} to ${GUARDED_SEATS[seat]}: ${fault}`));
  GUARDED_SEATS.forEach((name, seat) =>
    send(
      seat,
      'welcome',
      encodeMessage({
        t: 'welcome',
        room: 'room',
        ruleset: 'id',
        revision: 1,
        seat: name,
        speed: 1,
        seats: [],
        schema: wireSchemaOf(rules),
      }),
    ),
  );
  for (let tick = 0; tick < ticks; tick++) {
    const events = world.step(guarded.commands());
    publisher.capture();
    GUARDED_SEATS.forEach((name, seat) => {
      const viewer: Viewer = { actor: actorOfSeat(world, name), team: crewOf(seat) };
      send(seat, 'frame', publisher.frameFor(viewer, acknowledged[seat]));
      acknowledged[seat] = publisher.frame;
      for (const item of announcers[seat].tell(world, events, viewer)) {
        send(seat, item.event, encodeMessage({ t: 'news', items: [item] }));
        news.add(item.event);
        if (item.serial !== ++heard[seat] || item.cause >= item.serial)
          faults.push(`tick ${world.tick}, ${item.event} to ${name}: it is number ${item.serial}, after ${item.cause}`);
      }
      const items = [...abilitiesNow(world, viewer.actor, viewer)];
      send(seat, 'abilities', encodeMessage({ t: 'abilities', row: rowOf(seat), tick: world.tick, items }));
    });
  }
  return { faults, told: audit.rightly.reduce((sum, set) => sum + set.size, 0), news };
}

describe('What seats are sent', () => {
  it('is nothing that they may not know, in any ruleset and whatever happens', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1_000_000 }), (seed) => {
        expect(audited(seed, GUARDED_TICKS / 3).faults.slice(0, 5))
          .withContext(`ruleset ${seed}`)
          .toEqual([]);
      }),
      { numRuns: 5 },
    );
  });

  it('is nothing of that where there is much to hear, and others’ to see', () => {
    const news = new Set<string>();
    let told = 0;
    for (let seed = 1; seed <= 12; seed++) {
      const result = audited(seed, GUARDED_TICKS / 2);
      expect(result.faults.slice(0, 5)).withContext(`ruleset ${seed}`).toEqual([]);
      result.news.forEach((name) => news.add(name));
      told += result.told;
    }
    expect(told).toBeGreaterThan(100);
    for (const name of [
      'abilityHit',
      'abilityMissed',
      'abilityRefused',
      'actorDefeated',
      'actorReturned',
      'castBroken',
      'channelEnded',
      'choiceMade',
      'dialogueEnded',
      'effectRefused',
      'goodSold',
      'itemTaken',
      'learnRefused',
      'lineSpoken',
      'lootFound',
      'pickupRefused',
      'pickupTaken',
      'questRefused',
      'tradeRefused',
      'visitRefused',
      'zoneEntered',
      'zoneLeft',
    ])
      expect(news).withContext(name).toContain(name);
  });
});
