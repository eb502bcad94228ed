import { readFile } from 'node:fs/promises';
import { readRulesetText, storeChanges, storeSnapshot } from '@eager-ember/core';
import type { Client } from './client.js';
import { Room } from './room.js';

/** Two seconds of a room at 20 ticks a second. */
const TICKS = 40;
let isWarm = false;

/**
 * Does once in a process what rooms do, before anybody is in one: code that runs for the first time takes several times as
 * long, and the first to wake a room would hold up all others for it.
 */
export async function warmUp(demoFile: string | undefined): Promise<void> {
  if (isWarm || demoFile === undefined) return;
  isWarm = true;
  // Without the file there is nothing to do it with, and nothing is lost by that but time.
  const text = await readFile(demoFile, 'utf8').catch(() => undefined);
  const rules = text === undefined ? undefined : readRulesetText(text).rules;
  if (!rules) return;
  const seats = ['north', 'south'].map((name) => ({ name, team: null }));
  const client = (seat: string | undefined): Client => ({
    seat,
    drives: seat !== undefined,
    link: undefined,
    send: () => undefined,
    dismiss: () => undefined,
    congested: false,
  });
  const room = new Room('warm-up', { rules, rulesetId: '', revision: 1 }, 1, seats, new Map());
  for (const one of [client(undefined), ...seats.map(({ name }) => client(name))]) room.connect(one);
  const { world: before } = room.snapshot();
  for (let tick = 0; tick < TICKS; tick++) room.tick();
  const { world: after } = room.snapshot();
  storeChanges(before, after);
  storeSnapshot(after);
}
