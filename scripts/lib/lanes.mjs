// Runs the parts of the test beside each other, and counts what they say of their tests.
import { spawn } from 'node:child_process';
import { stripVTControlCharacters } from 'node:util';
import { ROOT, say } from './run.mjs';

/**
 * @typedef {{ name: string, title: string, command: string, args: string[], cwd?: string, env?: Record<string, string> }} Part
 * @typedef {{ passed: number, failed: number }} Count
 */

/** Runs a command; returns what it printed and its exit code. */
function capture({ command, args, cwd = ROOT, env = {} }) {
  return new Promise((done) => {
    const child = spawn(command, args, { cwd, env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] });
    let text = '';
    for (const stream of [child.stdout, child.stderr]) stream.setEncoding('utf8').on('data', (part) => (text += part));
    child.on('close', (code) => done({ code, text }));
    child.on('error', (error) => done({ code: 1, text: String(error) }));
  });
}

/**
 * What a runner said of its tests: jasmine's `108 specs, 2 failures`, karma's `Executed 90 of 108 (2 FAILED)`.
 * @returns {Count | undefined}
 */
function countIn(text) {
  const jasmine = [...text.matchAll(/(\d+) specs?, (\d+) failures?/g)].at(-1);
  if (jasmine) return { passed: Number(jasmine[1]) - Number(jasmine[2]), failed: Number(jasmine[2]) };
  const karma = [...text.matchAll(/Executed (\d+) of \d+(?: \((\d+) FAILED\))?/g)].at(-1);
  if (karma) return { passed: Number(karma[1]) - Number(karma[2] ?? 0), failed: Number(karma[2] ?? 0) };
  return undefined;
}

/**
 * What a part comes to. A runner that fails without a failed test (a suite that could not start, a broken hook) has failed all the same.
 * @returns {Count}
 */
export function judge(code, coloured) {
  // Colour codes stand between the words that are looked for.
  const counted = countIn(stripVTControlCharacters(coloured)) ?? { passed: code === 0 ? 1 : 0, failed: 0 };
  return code !== 0 && counted.failed === 0 ? { ...counted, failed: 1 } : counted;
}

/**
 * Runs parts, so many at once, in their order; shows what each printed when it has ended.
 * @param {readonly Part[]} parts
 * @param {{ lanes: number, running: Set<string>, ended: () => boolean, counted: (count: Count) => void }} how `running` holds
 *   the titles of those that run, `ended` says whether the whole was ended before its time, `counted` is told of each part's tests
 */
export async function runInLanes(parts, { lanes, running, ended, counted }) {
  const waiting = [...parts];
  const lane = async () => {
    for (let part = waiting.shift(); part && !ended(); part = waiting.shift()) {
      const began = performance.now();
      say(`${part.title} …`);
      running.add(part.title);
      const { code, text } = await capture(part);
      if (ended()) return;
      running.delete(part.title);
      const count = judge(code, text);
      const seconds = Math.round((performance.now() - began) / 1000);
      say(`\n── ${part.title}\n${text.trimEnd()}\n${part.title}: ${count.passed} passed, ${count.failed} failed, in ${seconds} s\n`);
      counted(count);
    }
  };
  await Promise.all(Array.from({ length: Math.min(lanes, parts.length) }, lane));
}
