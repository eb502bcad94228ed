import { readFileSync } from 'node:fs';
import { findingsOf, renameEntry, RulesetCompiler, type Rules, upgradeDocument, wiringOf } from '@eager-ember/core';
import { SIZES } from './evidence.js';
import { largeRuleset } from './large-ruleset.js';
import { median, rounded, type Row } from './measure.js';

const EDITS = 31;

type Document = Record<string, unknown> & { readonly attributes: readonly Record<string, unknown>[] };

/** A document in which the oxygen refills at another rate, and all else is the same objects. */
const edited = (document: Document, rate: number): Document => ({
  ...document,
  attributes: document.attributes.map((entry) => (entry['id'] === 'oxygen' ? { ...entry, refill: { rate } } : entry)),
});

type Entry = Readonly<Record<string, unknown>>;

/** Other edits, of which each reaches something else: the n-th of its kind. */
const OTHERS: Readonly<Record<string, (document: Document, n: number) => Document>> = {
  'what an attribute is called': (document, n) => ({
    ...document,
    attributes: document.attributes.map((entry) => (entry['id'] === 'oxygen' ? { ...entry, label: `Oxygen ${n}` } : entry)),
  }),
  'the amount of a modifier': (document, n) => {
    const effects = document['effects'] as readonly (Entry & { readonly modifiers?: readonly Entry[] })[];
    const at = effects.findIndex(({ modifiers = [] }) => modifiers.length > 0);
    const [first, ...rest] = effects[at].modifiers!;
    return {
      ...document,
      effects: effects.map((entry, i) => (i === at ? { ...entry, modifiers: [{ ...first, amount: n + 3 }, ...rest] } : entry)),
    };
  },
  'the condition of a quest': (document, n) => {
    const quests = document['quests'] as readonly Entry[];
    const at = quests.findIndex((entry) => entry['if'] !== undefined);
    return {
      ...document,
      quests: quests.map((entry, i) => (i === at ? { ...entry, if: `${String(entry['if'])} and 1 < ${n + 2}` } : entry)),
    };
  },
  'a new status': (document, n) => ({
    ...document,
    statuses: [...(document['statuses'] as readonly Entry[]), { id: `fresh${n}`, label: `Fresh ${n}` }],
  }),
};

function timed<T>(work: () => T): { readonly ms: number; readonly value: T } {
  const began = performance.now();
  const value = work();
  return { ms: performance.now() - began, value };
}

/** Compiling, findings, wiring and a renaming, of rulesets of three sizes: whole, and after an edit of one entry. */
export function size(): readonly Row[] {
  const demo = upgradeDocument(JSON.parse(readFileSync(new URL('../../examples/brinewick.json', import.meta.url), 'utf8'))) as object;
  return SIZES.flatMap((entries) => rowsOf(entries, largeRuleset(demo, entries, 7) as Document));
}

function rowsOf(entries: number, whole: Document): readonly Row[] {
  const soundOf = (compiler: RulesetCompiler, document: Document): Rules => {
    const { rules, problems } = compiler.read(document);
    if (!rules) throw new Error(`${problems[0].path} ${problems[0].message}`);
    return rules;
  };
  const copied = () => median(Array.from({ length: 9 }, () => timed(() => JSON.parse(JSON.stringify(whole)) as unknown).ms));
  const compiler = new RulesetCompiler();
  const first = timed(() => soundOf(compiler, whole));
  const times: Record<'compile' | 'findings' | 'wiring' | 'rename', { readonly whole: number; readonly after: number[] }> = {
    compile: { whole: first.ms, after: [] },
    findings: { whole: timed(() => findingsOf(first.value)).ms, after: [] },
    wiring: { whole: timed(() => wiringOf(first.value)).ms, after: [] },
    rename: { whole: timed(() => renameEntry(first.value, 'attributes', 'torchPower', 'torchBlaze')).ms, after: [] },
  };
  for (let n = 0; n < EDITS; n++) {
    const { ms, value: rules } = timed(() => soundOf(compiler, edited(whole, -1 - n / 10)));
    times.compile.after.push(ms);
    times.findings.after.push(timed(() => findingsOf(rules)).ms);
    times.wiring.after.push(timed(() => wiringOf(rules)).ms);
    times.rename.after.push(timed(() => renameEntry(rules, 'attributes', 'torchPower', 'torchBlaze')).ms);
  }
  const others = Object.entries(OTHERS).map(([what, edit]) => {
    const after = Array.from({ length: EDITS }, (_, n) => {
      const rules = soundOf(compiler, edit(whole, n));
      return timed(() => findingsOf(rules)).ms;
    });
    return { what, ms: rounded(median(after)) };
  });
  const reference = rounded(copied());
  const row = (what: string, of: keyof typeof times, reach: string): Row => ({
    what: `${what} with ${entries} entries, after an edit of one`,
    value: rounded(median(times[of].after)),
    reference,
    unit: 'ms',
    referenceIs: 'the document as JSON and back',
    ratio: `the first time, of all: ${rounded(times[of].whole)} ms`,
    reach,
  });
  return [
    row('compiling', 'compile', 'what changed; no bound of its own'),
    row('all findings', 'findings', 'under 100 ms; under 2 s of all'),
    {
      what: `all findings with ${entries} entries, after other edits`,
      value: Math.max(...others.map(({ ms }) => ms)),
      reference,
      unit: 'ms',
      referenceIs: 'the document as JSON and back',
      ratio: others.map(({ what, ms }) => `${what}: ${ms} ms`).join(', '),
      reach: 'under 100 ms',
    },
    row('the wiring', 'wiring', 'under 50 ms'),
    row('what a renaming of a stat that hundreds of formulas use comes to', 'rename', 'under 1 s with all that follows'),
  ];
}
