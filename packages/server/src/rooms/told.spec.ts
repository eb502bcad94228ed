import { actorOfSeat, compileRuleset, encodeMessage, World } from '@eager-ember/core';
import { Audit } from '../../../core/src/testing/audit.js';
import { GUARDED_SEATS, guardedRuleset } from '../../../core/src/testing/guarded.js';
import type { Client } from './client.js';
import { Room } from './room.js';

/** Plays a random ruleset in a room, and returns what its seats were sent that they should not have been. */
function audited(seed: number, ticks: number): { faults: string[]; told: number } {
  const guarded = guardedRuleset(seed);
  const rules = compileRuleset(guarded.ruleset);
  // Seats have all the same kind of actor where nobody says otherwise; here each has come with its own.
  const world = World.start(rules, seed);
  world.step(guarded.joining);
  const edited = { ...guarded.ruleset, name: 'Edited', achievements: [], reactions: [] };
  const faults: string[] = [];
  // Crews stay what they are here: two and two.
  // A room tells everybody what time it is.
  const isNow = (value: number) => Math.abs(value - Date.now() / 1000) < 86_400;
  const audit = new Audit(guarded, (seat) => seat >> 1, isNow);
  const rows = GUARDED_SEATS.map((name) => world.actors.rowOf(actorOfSeat(world, name)));
  const client = (seat: string | undefined, hear: (bytes: Uint8Array) => void): Client => ({
    seat,
    drives: seat !== undefined,
    link: seat,
    send: hear,
    congested: false,
    dismiss: () => undefined,
  });
  const seats = GUARDED_SEATS.map((name) => ({ name, team: null }));
  const room = new Room('slate-heron', { rules, rulesetId: 'one', revision: 1 }, seed, seats, new Map(), world, [
    { player: GUARDED_SEATS[0], reason: `/attributes/${guarded.tokens[0].word}: a number is expected` },
  ]);
  const truth = client(undefined, () => undefined);
  const clients = GUARDED_SEATS.map((name, seat) =>
    client(name, (bytes) => faults.push(...audit.faults(seat, bytes).map((fault) => `tick ${room.tickNumber}, to ${name}: ${fault}`))),
  );
  for (const one of [truth, ...clients]) room.connect(one);
  let n = 0;
  for (let tick = 0; tick < ticks; tick++) {
    for (const { kind, args } of guarded.commands()) {
      const seat = GUARDED_SEATS.findIndex((name) => name === args['seat']);
      if (kind === 'poke')
        room.poke(truth, { t: 'poke', seat: GUARDED_SEATS[seat], from: String(args['from']), action: args['action'] as never });
      else if ((args['input'] as { do: string }).do !== 'switch') {
        const problem = room.input(clients[seat], ++n, args['input']);
        if (problem !== undefined) clients[seat].send(encodeMessage({ t: 'error', message: problem, final: false }));
      }
    }
    // What the author edits while they play is told to them as all else is.
    if (tick === Math.floor(ticks / 2)) room.edited({ rules: compileRuleset(edited), rulesetId: 'one', revision: 2 });
    room.tick();
    clients.forEach((one, seat) => room.answer(one, { t: 'abilities', row: rows[seat] }));
  }
  return { faults, told: audit.rightly.reduce((sum, set) => sum + set.size, 0) };
}

describe('What a room sends to its seats', () => {
  it('is nothing that they may not know, byte for byte', () => {
    let told = 0;
    for (let seed = 1; seed <= 8; seed++) {
      const result = audited(seed * 7919, 80);
      told += result.told;
      expect(result.faults.slice(0, 5)).withContext(`ruleset ${seed}`).toEqual([]);
    }
    expect(told).toBeGreaterThan(30);
  });
});
