import { watch, writeFileSync } from 'node:fs';
import { basename, dirname } from 'node:path';
import {
  type CheckRan,
  type CheckResult,
  checksOf,
  coverageOf,
  type EntryCoverage,
  isCalled,
  jsonWords,
  KeptResults,
  MOST_CHECKS_RUN,
  readJson,
  RulesetCompiler,
  type Rules,
  sharing,
} from '@eager-ember/core';
import { inLines, readText } from './files.js';
import { hasFailed, huntAll, type Hunted, huntsInWords, huntsMeant, linesOf } from './hunts.js';

interface Options {
  readonly junit?: string;
  readonly only?: string;
  readonly seed?: number;
  readonly json?: boolean;
  readonly watch?: boolean;
  readonly coverage?: boolean;
  /** Milliseconds to hunt for; no hunts where nothing is said. */
  readonly hunt?: number;
}

interface Ran extends CheckRan {
  readonly ms: number;
}

/** After a file has changed, others may be about to change as well: editors write in more than one go. */
const SETTLES_MS = 20;

/** What is read and run again and again, as a file is saved: only what an edit can have changed is. */
class Reader {
  private readonly compiler = new RulesetCompiler();
  private readonly kept: KeptResults;
  private before: unknown;

  constructor(private readonly options: Options) {
    this.kept = new KeptResults(options.seed);
  }

  read(value: unknown) {
    return this.compiler.read((this.before = sharing(this.before, value)));
  }

  run(rules: Rules): readonly Ran[] {
    const took = new Map<CheckRan['check'], number>();
    let began = performance.now();
    const ran = ({ check }: CheckRan) => {
      const now = performance.now();
      took.set(check, now - began);
      began = now;
    };
    const parts = this.kept.run(rules, { isMeant: (check) => isCalled(check, this.options.only), ran });
    for (;;) {
      const { done, value } = parts.next();
      if (done) return value.map((one) => ({ ...one, ms: took.get(one.check) ?? 0 }));
    }
  }

  /** How many checks had to be run the last time. */
  get ran(): number {
    return this.kept.ran;
  }

  /** How many that are meant are not run, because they are too many. */
  left(rules: Rules): number {
    return Math.max(0, checksOf(rules).filter((check) => isCalled(check, this.options.only)).length - MOST_CHECKS_RUN);
  }
}

/** What is wrong with a check, a line each. */
function failuresOf({ mistakes, outcomes, rows }: CheckResult): readonly string[] {
  const row = rows?.find(({ ok }) => !ok);
  return [
    ...(row ? [`row ${row.row + 1} (${row.label}):`] : []),
    ...mistakes.map(({ path, message }) => `${path}: ${message}`),
    ...outcomes.flatMap(({ path, t, failure }) => (failure ? [`${path}, at ${t} s: ${failure.says}`] : [])),
  ];
}

const counted = (count: number, one: string, more = `${one}s`) => `${count} ${count === 1 ? one : more}`;

/** Groups in the order of their first checks, each with its checks. */
function grouped(all: readonly Ran[]): ReadonlyMap<string, readonly Ran[]> {
  const groups = new Map<string, Ran[]>();
  for (const ran of all) {
    const name = ran.check.group ?? '';
    const group = groups.get(name);
    if (group) group.push(ran);
    else groups.set(name, [ran]);
  }
  return groups;
}

/**
 * @param ran how many of them had to be run
 * @param left how many more there are
 */
function inWords(all: readonly Ran[], ran: number, left: number): string {
  const lines: string[] = [];
  for (const [group, list] of grouped(all)) {
    if (group !== '') lines.push(group);
    for (const { check, result } of list) {
      lines.push(`  ${result.ok ? 'holds' : 'FAILS'}  ${check.label}${result.ok ? '' : ` (${check.id})`}`);
      lines.push(...failuresOf(result).map((line) => `           ${line}`));
    }
  }
  const failed = all.filter(({ result }) => !result.ok).length;
  const ticks = all.reduce((sum, { result }) => sum + result.ticks, 0);
  const ms = all.reduce((sum, one) => sum + one.ms, 0);
  const held = all.length - failed;
  const work = ran < all.length ? `${ran} run, the others as they were` : counted(ticks, 'tick');
  lines.push(
    `${counted(held, 'check holds', 'checks hold')}, ${failed} ${failed === 1 ? 'fails' : 'fail'} (${work}, ${Math.round(ms)} ms)`,
  );
  if (left > 0)
    lines.push(
      `${counted(left, 'check', 'checks')} more ${left === 1 ? 'is' : 'are'} not run: at most ${MOST_CHECKS_RUN} are at once. Say --only some.`,
    );
  return `${lines.join('\n')}\n`;
}

/** Which entries no check has run, a line for each chapter; and how many of all actions, and of all branches. */
function coverageInWords(rules: Rules, all: readonly Ran[]): string {
  const { chapters, entries } = coverageOf(rules, new Map(all.map(({ check, footprint }) => [check, footprint] as const)));
  const line = (title: string, covered: number, total: number, without: readonly string[] = []) => {
    const left = without.length === 0 ? '' : `   not ${without.join(', ')}`;
    return `  ${title.padEnd(18)} ${String(covered).padStart(4)} of ${String(total).padEnd(4)}${left}`.trimEnd();
  };
  const sum = (count: (one: EntryCoverage) => number) => Object.values(entries).reduce((all, one) => all + count(one), 0);
  const [actions, branches] = [sum((one) => one.actions), sum((one) => one.branches)];
  const lines = [
    ...chapters.map(({ title, covered, total: of, uncovered }) => line(title, covered, of, uncovered)),
    line('Actions', actions - sum(({ missing }) => missing.length), actions),
    line('Branches', branches - sum(({ untaken }) => untaken.length), branches),
  ];
  return `Run by at least one check:\n${lines.join('\n')}\n`;
}

/** A check or a hunt as build servers see it. */
interface Case {
  readonly id: string;
  readonly label: string;
  readonly ms: number;
  readonly ok: boolean;
  readonly failures: readonly string[];
}

const seconds = (ms: number) => (ms / 1000).toFixed(3);

/** Results in the form that build servers read: JUnit's XML. */
async function writeJunit(file: string, name: string, all: readonly Ran[], hunted: readonly Hunted[]): Promise<void> {
  const { create } = await import('xmlbuilder2');
  const cases = ({ check, result, ms }: Ran): Case => ({ ...check, ms, failures: result.ok ? [] : failuresOf(result), ok: result.ok });
  const suites = [
    ...[...grouped(all)].map(([group, list]) => ({ title: group === '' ? name : group, list: list.map(cases) })),
    ...(hunted.length === 0
      ? []
      : [{ title: 'Hunts', list: hunted.map((one): Case => ({ ...one.hunt, ms: one.ms, failures: linesOf(one), ok: !hasFailed(one) })) }]),
  ];
  const of = (list: readonly Case[]) => ({
    tests: list.length,
    failures: list.filter(({ ok }) => !ok).length,
    time: seconds(list.reduce((sum, { ms }) => sum + ms, 0)),
  });
  const root = create({ version: '1.0', encoding: 'UTF-8' }).ele('testsuites', { name, ...of(suites.flatMap(({ list }) => list)) });
  for (const { title, list } of suites) {
    const suite = root.ele('testsuite', { name: title, ...of(list) });
    for (const { id, label, ms, failures, ok } of list) {
      const one = suite.ele('testcase', { classname: `${name}.${id}`, name: label, time: seconds(ms) });
      if (!ok) one.ele('failure', { message: failures[0] ?? 'It does not hold.' }).txt(failures.join('\n'));
    }
  }
  writeFileSync(file, `${root.end({ prettyPrint: true })}\n`);
}

/** Reads, runs and tells once. Returns the exit code: 0 all hold, 1 some do not, 2 nothing could be run. */
async function once(file: string, { text, problem }: ReturnType<typeof readText>, options: Options, reader: Reader): Promise<number> {
  if (text === undefined) return refuse(`${problem}\n`);
  const { value, wrong } = { value: undefined, ...readJson(text) };
  if (wrong) return refuse(`${file}: ${jsonWords(wrong)}\n`);
  const { rules, problems } = reader.read(value);
  if (!rules) return refuse(`${file}:\n${inLines(problems)}`);
  const all = reader.run(rules);
  const left = reader.left(rules);
  const hunts = options.hunt === undefined ? [] : huntsMeant(rules, (hunt) => isCalled(hunt, options.only), options.seed);
  if (all.length === 0 && hunts.length === 0) {
    const what = options.hunt === undefined ? ['checks', 'check'] : ['checks and no hunts', 'check or hunt'];
    return refuse(
      options.only === undefined
        ? `${file} has no ${what[0]}.\n`
        : `${file} has no ${what[1]} that is called ${options.only}, or that has this in its label or group.\n`,
    );
  }
  if (!options.json && all.length > 0) process.stdout.write(inWords(all, reader.ran, left));
  if (options.coverage && !options.json) process.stdout.write(coverageInWords(rules, all));
  const hunted = hunts.length === 0 ? [] : await huntAll(rules, hunts, options.hunt!);
  if (!options.json && hunted.length > 0) process.stdout.write(huntsInWords(hunted));
  if (options.json) {
    const results = all.map(({ check, result }) => ({ label: check.label, ...result }));
    const searches = hunted.map(({ hunt: { id, label }, ms: _, ...rest }) => ({ id, label, hunt: true, ok: !hasFailed(rest), ...rest }));
    process.stdout.write(`${JSON.stringify([...results, ...searches])}\n`);
  }
  if (options.junit !== undefined) await writeJunit(options.junit, basename(file, '.json'), all, hunted);
  return left === 0 && all.every(({ result }) => result.ok) && !hunted.some(hasFailed) ? 0 : 1;
}

function refuse(words: string): number {
  process.stderr.write(words);
  return 2;
}

/** `ember test`: runs the checks of a ruleset; with `watch` again whenever the file is saved, until it is ended. */
export async function test(file: string, options: Options): Promise<number> {
  if (options.watch && options.hunt !== undefined) return refuse('A hunt takes its time: leave out --watch, or --hunt.\n');
  const reader = new Reader(options);
  const first = readText(file);
  if (!options.watch || first.text === undefined) return once(file, first, options, reader);
  let last: string | undefined;
  const look = async () => {
    const read = readText(file);
    if (read.text !== undefined && read.text === last) return;
    last = read.text;
    await once(file, read, options, reader);
  };
  let timer: NodeJS.Timeout | undefined;
  // From before the first run: what is saved meanwhile is seen as well. The folder, not the file: many editors put another in its place.
  const watcher = watch(dirname(file), (_, name) => {
    if (name !== null && name !== basename(file)) return;
    clearTimeout(timer);
    timer = setTimeout(() => void look(), SETTLES_MS);
  });
  await look();
  process.stdout.write(`Watching ${file}. Ctrl-C ends.\n`);
  await new Promise<void>((done) => process.once('SIGINT', () => done()).once('SIGTERM', () => done()));
  clearTimeout(timer);
  watcher.close();
  return 0;
}
