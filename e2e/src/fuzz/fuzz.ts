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
import { enter, type Log, megabytes, opened } from './target.js';

/** How much is sent, and drawn from which seed. */
export interface Fuzz {
  readonly messages: number;
  readonly bodies: number;
  readonly rulesets: number;
  readonly seed: number;
}

/** What a server was like during one part of it. */
export interface PartReport {
  readonly name: string;
  /** How long the other room was at most without a frame, in milliseconds. */
  readonly longestSilence: number;
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

/** Somebody in a room that nobody touches, who looks at how long each frame is in coming. */
class Watcher {
  private last = performance.now();
  private silence = 0;
  private watching = true;

  static async of(server: Running, fault: (text: string) => void): Promise<Watcher> {
    const { room, seats } = await opened(server, demo(), 4);
    const socket = await enter(server, room, seats[0]);
    if (!socket) throw new Error('the room to be watched could not be entered');
    const watcher = new Watcher();
    socket.on('message', () => watcher.heard());
    socket.on('close', () => watcher.watching && fault('the room that nobody touched was closed'));
    await once(socket, 'message');
    return watcher;
  }

  private heard(): void {
    this.silence = this.silenceUntilNow();
    this.last = performance.now();
  }

  private silenceUntilNow(): number {
    return Math.max(this.silence, performance.now() - this.last);
  }

  begin(): void {
    this.last = performance.now();
    this.silence = 0;
  }

  end(): number {
    return this.silenceUntilNow();
  }

  leave(): void {
    this.watching = false;
  }
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
  const server = await Running.on(cluster.url, await freePort());
  const draw = drawn(seed);
  const faults: string[] = [];
  const fault = (text: string) => void faults.push(text);
  const parts: PartReport[] = [];
  let died = false;
  server.process.once('exit', () => (died = true));
  try {
    // First what keeps this process busy, so that frames are not late for want of somebody to hear them.
    const sound = playHere(rulesets, draw, { fault, reached: () => undefined });
    note(`${rulesets} rulesets read, ${sound.length} of them sound and played`);
    const target = await opened(server, demo(), 4);
    const watcher = await Watcher.of(server, fault);
    const during = async (name: string, work: (log: Log) => Promise<void>) => {
      const memory = [megabytes(server)];
      watcher.begin();
      const reached = (share: number) => {
        while (!died && memory.length < 5 && share >= memory.length / 4) memory.push(megabytes(server));
      };
      await work({ fault, reached });
      if (died) fault(`the server died of ${name}`);
      const part = { name, longestSilence: watcher.end(), memory };
      parts.push(part);
      note(`${name}: no frame elsewhere for ${Math.round(part.longestSilence)} ms at most; memory ${memory.join(', ')} MB`);
    };
    await during(`${messages} messages`, (log) => sendMessages(server, target, messages, draw, log));
    await during(`${bodies} bodies`, (log) => sendBodies(server, target, bodies, draw, log));
    await during(`${sound.length} spoiled rooms`, (log) => playInRooms(server, sound, log));
    watcher.leave();
    if (!died && (await fetch(`${server.url}/healthz`)).status !== 200) fault('the server does not answer any more');
    return { faults, played: sound.length, parts };
  } finally {
    if (!died) {
      const gone = once(server.process, 'exit');
      server.process.kill('SIGTERM');
      await gone;
    }
    cluster.stop('immediate');
    rmSync(home, { recursive: true, force: true, maxRetries: 10, retryDelay: 200 });
  }
}
