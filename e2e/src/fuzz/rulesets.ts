import { once } from 'node:events';
import { encodeMessage, readRuleset, readServerMessage, type Rules, World } from '@eager-ember/core';
import { mutated } from '../../../packages/core/src/testing/mutations.js';
import type { Running } from '../served.js';
import { demo } from '../trial.js';
import { enter, type Log, opened } from './target.js';

/** Ticks that a sound ruleset is played for. */
const TICKS = 200;
/** Rooms that play at the same time. */
const ROOMS = 8;
/** How long a room of a spoiled ruleset may take for its ticks before that is a fault. */
const PATIENCE_MS = 120_000;

const spoiled = (seed: number) => mutated(demo(), seed, 2);

function play(rules: Rules, seed: number): void {
  const world = World.start(rules, seed);
  world.step(['north', 'south'].map((seat) => ({ kind: 'join', args: { seat } })));
  for (let tick = 0; tick < TICKS; tick++) world.step([]);
}

/** Reads spoiled rulesets, and plays those that are sound all the same. Returns their seeds. */
export function playHere(count: number, draw: () => number, log: Log): number[] {
  const sound: number[] = [];
  for (let n = 0; n < count; n++) {
    const seed = Math.floor(draw() * 2 ** 31);
    try {
      const { rules, problems } = readRuleset(spoiled(seed));
      if (problems.some(({ message }) => message.includes('a mistake of ours'))) log.fault(`ruleset ${seed}: ${problems[0].message}`);
      if (!rules) continue;
      play(rules, seed);
      sound.push(seed);
    } catch (error) {
      log.fault(`ruleset ${seed}: ${String((error as Error).stack).slice(0, 400)}`);
    }
  }
  return sound;
}

/** Plays a spoiled ruleset in a room of the server's, somebody in its seat, until so many frames have come. */
async function playThere(server: Running, seed: number): Promise<void> {
  const { room, seats } = await opened(server, spoiled(seed), 1);
  const socket = await enter(server, room, seats[0]);
  if (!socket) throw new Error('its seat could not be taken');
  let frames = 0;
  let dismissed = '';
  const enough = new AbortController();
  socket.on('message', (data: Buffer) => {
    const heard = readServerMessage(new Uint8Array(data));
    if ('frame' in heard) {
      const [frame] = heard.frame as readonly number[];
      socket.send(encodeMessage({ t: 'ack', frame }));
      if (++frames === TICKS) enough.abort();
    } else if (heard.message.t === 'error' && heard.message.final) dismissed = heard.message.message;
  });
  const late = AbortSignal.timeout(PATIENCE_MS);
  await once(socket, 'close', { signal: AbortSignal.any([enough.signal, late]) }).catch(() => undefined);
  socket.terminate();
  if (frames < TICKS) throw new Error(`its room sent ${frames} frames, and then ${dismissed || 'nothing'}`);
  const gone = await fetch(`${server.url}/api/rooms/${room}`, { method: 'DELETE', headers: server.headers });
  if (!gone.ok) throw new Error(`its room could not be closed: ${gone.status} ${await gone.text()}`);
}

/** Plays spoiled rulesets that are sound in rooms of the server's, a few at a time. */
export async function playInRooms(server: Running, seeds: readonly number[], log: Log): Promise<void> {
  const waiting = [...seeds];
  const one = async () => {
    for (let seed = waiting.pop(); seed !== undefined; seed = waiting.pop()) {
      await playThere(server, seed).catch((error: unknown) => log.fault(`ruleset ${seed}: ${String(error)}`));
      log.reached(1 - waiting.length / seeds.length);
    }
  };
  await Promise.all(Array.from({ length: ROOMS }, one));
}
