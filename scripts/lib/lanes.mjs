// Runs the parts of the test beside each other, and counts what they say of their tests.
import { spawn } from 'node:child_process';
import { stripVTControlCharacters } from 'node:util';
import { ROOT, say, Stop } from './run.mjs';

/**
 * @typedef {{ title: string, after?: string }} Named `after` is the title of what has to have gone well before
 * @typedef {Named & { command: string, args: string[], cwd?: string, env?: Record<string, string>, wide?: boolean }} Part
 *   a wide one takes all lanes: it shares its work out by itself, between as many processes as there are lanes
 * @typedef {Named & { work: () => Promise<void> }} Preparation what tests nothing, and others need
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

/** So much of what a part that failed printed is told once more in the end, where whoever looks at a long output looks first. */
const RETOLD_LINES = 120;

/** The end of what a part printed, without the dots that a runner makes. */
function retold(text) {
  const lines = stripVTControlCharacters(text)
    .split('\n')
    .filter((line) => !/^[.\s]*$/.test(line));
  return lines.slice(-RETOLD_LINES).join('\n');
}

/** Does one part; returns what it printed, and what it comes to. */
async function outcomeOf(part) {
  if (!part.work) {
    const { code, text } = await capture(part);
    return { text: text.trimEnd(), count: judge(code, text) };
  }
  try {
    await part.work();
    return { text: '', count: { passed: 0, failed: 0 } };
  } catch (error) {
    return { text: error instanceof Stop ? error.message : error.stack, count: { passed: 0, failed: 1 } };
  }
}

/**
 * Runs parts, so many at once, in their order, but none before what it comes after; shows what each printed when it has ended,
 * and in the end once more what those printed that failed.
 * What comes after something that failed is not run.
 * @param {readonly (Part | Preparation)[]} parts
 * @param {{ lanes: number, running: Set<string>, ended: () => boolean, counted: (count: Count) => void }} how `running` holds
 *   the titles of those that run, `ended` says whether the whole was ended before its time, `counted` is told of each part's tests
 */
export async function runInLanes(parts, { lanes, running, ended, counted }) {
  const open = new Set(parts.map(({ title }) => title));
  const failed = new Set();
  const failures = [];
  const run = async (part) => {
    const began = performance.now();
    say(`${part.title} …`);
    running.add(part.title);
    const { text, count } = await outcomeOf(part);
    if (ended()) return;
    running.delete(part.title);
    open.delete(part.title);
    if (count.failed > 0) {
      failed.add(part.title);
      failures.push(`── ${part.title} has failed\n${retold(text)}\n`);
    }
    const seconds = Math.round((performance.now() - began) / 1000);
    const sum = part.work ? (count.failed > 0 ? 'failed' : 'done') : `${count.passed} passed, ${count.failed} failed`;
    say(`\n── ${part.title}\n${text && `${text}\n`}${part.title}: ${sum}, in ${seconds} s\n`);
    counted(count);
  };
  const skipped = ({ title, after }) => {
    if (!failed.has(after)) return false;
    // What comes after this one in turn is not run either.
    failed.add(title);
    say(`${title} is not run: it comes after ${after}, which did not go well.`);
    return true;
  };
  let waiting = parts.filter(({ wide }) => !wide);
  const busy = new Set();
  while (!ended()) {
    waiting = waiting.filter((part) => !skipped(part));
    const at = busy.size < lanes ? waiting.findIndex(({ after }) => !open.has(after)) : -1;
    if (at >= 0) {
      const [part] = waiting.splice(at, 1);
      const work = run(part).finally(() => busy.delete(work));
      busy.add(work);
    } else if (busy.size > 0) await Promise.race(busy);
    else break;
  }
  for (const part of parts)
    if (part.wide && !ended() && !skipped(part)) await run({ ...part, args: [...part.args, `--parallel=${lanes}`] });
  if (parts.length > 1) for (const failure of failures) say(failure);
}
