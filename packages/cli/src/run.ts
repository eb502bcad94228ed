import {
  jsonWords,
  readJson,
  checkScript,
  type Problem,
  readRulesetText,
  type RunRecord,
  runScript,
  type Script,
  type Rules,
  valuesBySeat,
  type World,
} from '@eager-ember/core';
import { inLines, readText } from './files.js';

/** Longest game that is played at once, in ticks: ten hours at 20 a second. */
const MOST_TICKS = 720_000;

interface Options {
  /** Milliseconds to play. */
  readonly until: number;
  readonly seed: number;
  /** Milliseconds between samples. */
  readonly every?: number;
  readonly json?: boolean;
}

function fail(file: string, problems: readonly Problem[] | string): number {
  process.stderr.write(typeof problems === 'string' ? `${problems}\n` : `${file}:\n${inLines(problems)}`);
  return 2;
}

function readScript(file: string, rules: Rules): { script?: Script; problems: readonly Problem[] | string } {
  const { text, problem } = readText(file);
  if (text === undefined) return { problems: problem };
  const { value, wrong } = { value: undefined, ...readJson(text) };
  return wrong ? { problems: [{ path: '', message: jsonWords(wrong) }] } : checkScript(rules, value);
}

/** `ember run`: plays a script and returns the exit code. Nothing is printed on stdout unless both files are sound. */
export function run(file: string, scriptFile: string, options: Options): number {
  const { text, problem } = readText(file);
  if (text === undefined) return fail(file, problem);
  const { rules, problems } = readRulesetText(text);
  if (!rules) return fail(file, problems);
  const { script, problems: scriptProblems } = readScript(scriptFile, rules);
  if (!script) return fail(scriptFile, scriptProblems);
  const ticks = (ms: number) => Math.ceil((ms * rules.tickRate) / 1000 - 1e-9);
  if (ticks(options.until) > MOST_TICKS) return fail(file, `A run has at most ${MOST_TICKS} ticks.`);

  const lines: string[] = [];
  const write = (line: string) => {
    lines.push(line);
    if (lines.length >= 1000) process.stdout.write(lines.splice(0).join('\n') + '\n');
  };
  const tell = options.json ? (record: RunRecord) => write(JSON.stringify(asJson(record))) : (record: RunRecord) => write(asText(record));
  const world = runScript(
    rules,
    script,
    {
      until: ticks(options.until),
      seed: options.seed,
      ...(options.every === undefined ? {} : { every: Math.max(1, ticks(options.every)) }),
    },
    tell,
  );
  write(JSON.stringify(finish(world, script)));
  process.stdout.write(lines.join('\n') + '\n');
  return 0;
}

function asJson(record: RunRecord): unknown {
  if ('sample' in record) return record;
  const { event, text, t } = record;
  const { name, serial, cause, who, by, data } = event;
  return { t, event: name, serial, cause, ...(who && { subject: who }), ...(by && { source: by }), ...data, text };
}

function asText(record: RunRecord): string {
  return 'sample' in record ? `${record.t.toFixed(2)}  ${JSON.stringify(record.sample)}` : `${record.t.toFixed(2)}  ${record.text}`;
}

function finish(world: World, script: Script): unknown {
  return { t: world.tick / world.rules.tickRate, final: valuesBySeat(world, script), hash: world.hash() };
}
