import { once } from 'node:events';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { drawn } from '../../../packages/core/src/testing/mutations.js';
import { startPostgres } from '../../../scripts/lib/postgres.mjs';
import { freePort } from '../../../scripts/lib/run.mjs';
import { Running } from '../served.js';
import { demo } from '../trial.js';
import { sendBodies } from './bodies.js';
import { sendMessages } from './messages.js';
import { playHere, playInRooms } from './rulesets.js';
import { type Log, megabytes, opened } from './target.js';
import { type Silence, Watcher } from './watcher.js';

/** How much is sent, and drawn from which seed. */
export interface Fuzz {
  readonly messages: number;
  readonly bodies: number;
  readonly rulesets: number;
  readonly seed: number;
}

const inWords = ({ lasted, worked, waited, bare, stolen }: Silence) =>
  `${Math.round(lasted)} ms (${Math.round(worked)} worked, ${Math.round(waited)} waited for a core, ${stolen} of cores taken away; a bare process not heard for ${Math.round(bare)})`;

/** The server has this much for what it keeps: had it a leak, it would end. In megabytes. */
const HEAP_MB = 256;

/** What a server was like during one part of it. */
export interface PartReport {
  readonly name: string;
  /** When the other room was without a frame for longest, and when the server worked for longest in between two. */
  readonly longest: Silence;
  readonly hardest: Silence;
  /** The memory of the server before it, after each quarter of it, and so at its end, in megabytes. */
  readonly memory: readonly number[];
}

export interface FuzzReport {
  /** What should not have been; nothing where all is well. */
  readonly faults: readonly string[];
  /** Of the rulesets, how many were sound and were played. */
  readonly played: number;
  readonly parts: readonly PartReport[];
}

/**
 * Sends a server what it should not be sent: spoiled messages to one room, spoiled bodies to all its addresses, and spoiled rulesets,
 * of which those that are sound all the same are played here and in rooms of it. Meanwhile somebody watches another room. Nothing may
 * throw, answer by 500, or hold up that room.
 */
export async function fuzz(
  { messages, bodies, rulesets, seed }: Fuzz,
  note: (text: string) => void = () => undefined,
): Promise<FuzzReport> {
  const home = mkdtempSync(join(tmpdir(), 'ember-fuzz-'));
  chmodSync(home, 0o755);
  const cluster = await startPostgres(home, { durable: false });
  const server = await Running.on(cluster.url, await freePort(), { NODE_OPTIONS: `--max-old-space-size=${HEAP_MB}` });
  const draw = drawn(seed);
  const faults: string[] = [];
  const fault = (text: string) => void faults.push(text);
  const parts: PartReport[] = [];
  let died = false;
  let leave: () => void = () => undefined;
  server.process.once('exit', () => (died = true));
  try {
    // First what keeps this process busy, so that frames are not late for want of somebody to hear them.
    const sound = playHere(rulesets, draw, { fault, reached: () => undefined });
    note(`${rulesets} rulesets read, ${sound.length} of them sound and played`);
    const target = await opened(server, demo(), 4);
    const watcher = await Watcher.of(server, fault);
    leave = () => watcher.leave();
    const during = async (name: string, work: (log: Log) => Promise<void>) => {
      const memory = [megabytes(server)];
      watcher.begin();
      const reached = (share: number) => {
        while (!died && memory.length < 5 && share >= memory.length / 4) memory.push(megabytes(server));
      };
      await work({ fault, reached });
      if (died) fault(`the server died of ${name}`);
      const part = { name, ...watcher.end(), memory };
      parts.push(part);
      note(
        `${name}: no frame elsewhere for ${inWords(part.longest)} at most; the server worked longest in ${inWords(part.hardest)}; memory ${memory.join(', ')} MB`,
      );
    };
    await during(`${messages} messages`, (log) => sendMessages(server, target, messages, draw, log));
    await during(`${bodies} bodies`, (log) => sendBodies(server, target, bodies, draw, log));
    await during(`${sound.length} spoiled rooms`, (log) => playInRooms(server, sound, log));
    if (!died && (await fetch(`${server.url}/healthz`)).status !== 200) fault('the server does not answer any more');
    return { faults, played: sound.length, parts };
  } finally {
    leave();
    if (!died) {
      const gone = once(server.process, 'exit');
      server.process.kill('SIGTERM');
      await gone;
    }
    cluster.stop('immediate');
    rmSync(home, { recursive: true, force: true, maxRetries: 10, retryDelay: 200 });
  }
}
