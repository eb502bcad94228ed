import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { median, rounded, type Row } from './measure.js';

const BIN = fileURLToPath(new URL('../../packages/cli/bin/ember.cjs', import.meta.url));
const DEMO = fileURLToPath(new URL('../../examples/brinewick.json', import.meta.url));
const SCRIPT = fileURLToPath(new URL('../../examples/two-pods.script.json', import.meta.url));
const ROUNDS = 15;

const ASKED: readonly (readonly [string, readonly string[]])[] = [
  ['ember --version', ['--version']],
  ['ember validate of the demo', ['validate', DEMO]],
  ['ember findings of the demo', ['findings', DEMO]],
  ['ember run of 5 s of the demo', ['run', DEMO, '--script', SCRIPT, '--until', '5s']],
];

function milliseconds(args: readonly string[]): number {
  const began = performance.now();
  const { status } = spawnSync(process.execPath, args, { stdio: 'ignore' });
  if (status !== 0) throw new Error(`${args.join(' ')} ended with ${status}`);
  return performance.now() - began;
}

/** What the command line takes from its start to its end, beside a Node that does nothing; they are run in turn. */
export function commandLine(): readonly Row[] {
  return ASKED.map(([what, args]): Row => {
    const times: [number[], number[]] = [[], []];
    for (let round = 0; round < ROUNDS; round++) {
      times[0].push(milliseconds([BIN, ...args]));
      times[1].push(milliseconds(['-e', '0']));
    }
    const [value, reference] = times.map(median);
    return {
      what,
      value: rounded(value),
      reference: rounded(reference),
      unit: 'ms',
      referenceIs: 'node -e 0',
      ratio: `${rounded(value - reference)} ms more`,
      reach: '400 ms more',
    };
  });
}
