import { readFile } from 'node:fs/promises';
import { readRulesetText, storeChanges, storeSnapshot } from '@eager-ember/core';
import type { Client } from './client.js';
import type { DraftingDesk } from '../drafts/desk.js';
import { Room } from './room.js';

/** How often the thread that reads rulesets has read one before anybody waits for it. */
const READINGS = 3;

/** Nobody waits for it: it is in a thread of its own, which starts with the first job. */
async function warmUpDesk(desk: DraftingDesk, document: unknown): Promise<void> {
  try {
    for (let n = 0; n < READINGS; n++) await desk.check(document);
  } catch {
    // It was closed meanwhile; whoever asks it something is told so.
  }
}

/** Two seconds of a room at 20 ticks a second. */
const TICKS = 40;
let isWarm = false;

/**
 * Does once in a process what rooms do, before anybody is in one: code that runs for the first time takes several times as
 * long, and the first to wake a room would hold up all others for it.
 */
export async function warmUp(demoFile: string | undefined, desk: DraftingDesk): Promise<void> {
  if (isWarm || demoFile === undefined) return;
  isWarm = true;
  // Without the file there is nothing to do it with, and nothing is lost by that but time.
  const text = await readFile(demoFile, 'utf8').catch(() => undefined);
  const rules = text === undefined ? undefined : readRulesetText(text).rules;
  if (!rules) return;
  void warmUpDesk(desk, rules.document);
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
