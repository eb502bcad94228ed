import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import type { Running } from '../served.js';
import { demo } from '../trial.js';
import { enter, opened } from './target.js';

/** A process that does nothing but say so as often as a room sends frames. */
const BARE = 'setInterval(() => process.stdout.write("."), 50)';

/** What the thread of the server that ticks rooms has done since it began, in milliseconds. */
interface Thread {
  /** It had a core and worked. */
  readonly worked: number;
  /** It had work, and waited for a core. */
  readonly waited: number;
}

/** Linux counts both for each thread, in nanoseconds; the first thread of a process has its number. */
function threadOf(pid: number): Thread {
  const [worked, waited] = readFileSync(`/proc/${pid}/task/${pid}/schedstat`, 'utf8').split(' ', 2);
  return { worked: Number(worked) / 1e6, waited: Number(waited) / 1e6 };
}

/** For how long this machine's cores have been taken away by what it runs on, all cores together, in milliseconds. */
function stolen(): number {
  const [, , , , , , , , hundredths] = readFileSync('/proc/stat', 'utf8').split(/\s+/, 9);
  return Number(hundredths) * 10;
}

/** How long a room was once without a frame, and what was the reason. In milliseconds. */
export interface Silence extends Thread {
  readonly lasted: number;
  /** The longest that a bare process beside it, which has nothing to do, was not heard at that time: the machine's part. */
  readonly bare: number;
  /** How long cores of the machine were taken away from it meanwhile; what a thread has worked may be that as well. */
  readonly stolen: number;
}

const NONE: Silence = { lasted: 0, worked: 0, waited: 0, bare: 0, stolen: 0 };

/** Somebody in a room that nobody touches, who looks at how long each frame is in coming. */
export class Watcher {
  private frameAt = performance.now();
  private thread: Thread;
  private stolen = stolen();
  private bareAt = performance.now();
  /** The longest that the bare process was not heard since the last frame. */
  private bare = 0;
  private longest = NONE;
  private hardest = NONE;
  private watching = true;
  private readonly process: ChildProcess;

  private constructor(private readonly server: number) {
    this.thread = threadOf(server);
    this.process = spawn(process.execPath, ['-e', BARE], { stdio: ['ignore', 'pipe', 'inherit'] });
    this.process.stdout!.on('data', () => {
      this.bare = this.bareGap();
      this.bareAt = performance.now();
    });
  }

  static async of(server: Running, fault: (text: string) => void): Promise<Watcher> {
    const { room, seats } = await opened(server, demo(), 4);
    const socket = await enter(server, room, seats[0]);
    if (!socket) throw new Error('the room to be watched could not be entered');
    const watcher = new Watcher(server.process.pid!);
    socket.on('message', () => watcher.heard());
    socket.on('close', () => watcher.watching && fault('the room that nobody touched was closed'));
    await Promise.all([once(socket, 'message'), once(watcher.process.stdout!, 'data')]);
    return watcher;
  }

  private bareGap(): number {
    return Math.max(this.bare, performance.now() - this.bareAt);
  }

  private heard(): void {
    const [now, thread, taken] = [performance.now(), threadOf(this.server), stolen()];
    const silence = {
      lasted: now - this.frameAt,
      worked: thread.worked - this.thread.worked,
      waited: thread.waited - this.thread.waited,
      bare: this.bareGap(),
      stolen: taken - this.stolen,
    };
    if (silence.lasted > this.longest.lasted) this.longest = silence;
    if (silence.worked > this.hardest.worked) this.hardest = silence;
    this.frameAt = now;
    this.thread = thread;
    this.stolen = taken;
    this.bare = 0;
  }

  begin(): void {
    this.heard();
    this.longest = this.hardest = NONE;
  }

  /** The longest silence since it began, and the one in which the server worked for longest. */
  end(): { readonly longest: Silence; readonly hardest: Silence } {
    this.heard();
    return { longest: this.longest, hardest: this.hardest };
  }

  leave(): void {
    this.watching = false;
    this.process.kill('SIGKILL');
  }
}
