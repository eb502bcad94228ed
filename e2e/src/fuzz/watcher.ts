import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import type { Running } from '../served.js';
import { demo } from '../trial.js';
import { enter, opened } from './target.js';

/** A process that does nothing but say so as often as a room sends frames. */
const BARE = 'setInterval(() => process.stdout.write("."), 50)';

/** How long it was between two signs of life, at most and lately. */
class Gaps {
  private last = performance.now();
  longest = 0;
  /** The longest since it was asked last. */
  private recent = 0;

  heard(): number {
    const gap = performance.now() - this.last;
    this.last += gap;
    this.recent = Math.max(this.recent, gap);
    this.longest = Math.max(this.longest, gap);
    return gap;
  }

  /** The longest of late, what is under way included. */
  takeRecent(): number {
    const recent = Math.max(this.recent, performance.now() - this.last);
    this.recent = 0;
    return recent;
  }

  begin(): void {
    this.last = performance.now();
    this.longest = this.recent = 0;
  }
}

/** How long a room was without a frame. In milliseconds. */
export interface Silence {
  readonly longest: number;
  /** The same of a bare process beside it, which has nothing to do: what of it is the machine's. */
  readonly bare: number;
  /** The longest that it was silent beyond what the bare process was at that time: what of it is the server's. */
  readonly own: number;
}

/** Somebody in a room that nobody touches, who looks at how long each frame is in coming. */
export class Watcher {
  private readonly room = new Gaps();
  private readonly bare = new Gaps();
  private own = 0;
  private watching = true;
  private readonly process: ChildProcess;

  private constructor() {
    this.process = spawn(process.execPath, ['-e', BARE], { stdio: ['ignore', 'pipe', 'inherit'] });
    this.process.stdout!.on('data', () => this.bare.heard());
  }

  static async of(server: Running, fault: (text: string) => void): Promise<Watcher> {
    const { room, seats } = await opened(server, demo(), 4);
    const socket = await enter(server, room, seats[0]);
    if (!socket) throw new Error('the room to be watched could not be entered');
    const watcher = new Watcher();
    socket.on('message', () => watcher.heard());
    socket.on('close', () => watcher.watching && fault('the room that nobody touched was closed'));
    await Promise.all([once(socket, 'message'), once(watcher.process.stdout!, 'data')]);
    return watcher;
  }

  private heard(): void {
    this.own = Math.max(this.own, this.room.heard() - this.bare.takeRecent());
  }

  begin(): void {
    this.room.begin();
    this.bare.begin();
    this.own = 0;
  }

  end(): Silence {
    this.heard();
    return { longest: this.room.longest, bare: this.bare.longest, own: this.own };
  }

  leave(): void {
    this.watching = false;
    this.process.kill('SIGKILL');
  }
}
