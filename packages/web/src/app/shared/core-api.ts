import {
  askWorkbench,
  describeActions,
  describeEvents,
  describeInputs,
  describeSections,
  type Evidence,
  evidenceCsv,
  courseOf,
  type Facts,
  type Finding,
  findingsInParts,
  type Problem,
  readFile,
  readRulesetText,
  readText,
  renameEntry,
  type Renaming,
  repeatedNames,
  type TableReading,
  upgradeDocument,
  type Use,
  usesOf,
  type Wiring,
  wiringOf,
  workInBackground,
  writeFile,
} from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import type { RulesetJson } from './api';
import { type HeldDocument, HeldDocuments } from './held-documents';
import { inSlices } from './slices';

/** Counts the edits: one of them leaves what is being worked out in the background of no use, or of less than itself. */
let edits = 0;
/** By what is worked out in the background, how often that was asked for: the last time counts. */
const asked = new Map<string, number>();

/** Works something out behind everything else; undefined where it was asked for anew, or an edit came, before it was there. */
async function behind<T>(what: string, parts: () => Generator<void, T> | Promise<Generator<void, T>>): Promise<T | undefined> {
  const own = (asked.get(what) ?? 0) + 1;
  asked.set(what, own);
  const edit = edits;
  return inSlices(await parts(), () => asked.get(what) !== own || edits !== edit);
}

/** What the interface asks of a document. What concerns one concept alone is asked of that, by its name. */
const questions = {
  check: ({ reading }: HeldDocument): readonly Problem[] => reading.problems,
  /** What follows from an entry, as soon as its course is known. */
  evidence: async (of: HeldDocument, chapter: string, id: string): Promise<Evidence | undefined> => {
    const evidence = await courseOf(of.rules, chapter, id);
    const { further, ...course } = evidence ?? {};
    of.further = { of: `${chapter}/${id}`, facts: further };
    return evidence && (course as Evidence);
  },
  /** The answers of that which take longer; none where it was not asked for before. */
  furtherFacts: ({ further }: HeldDocument, chapter: string, id: string): Facts =>
    (further?.of === `${chapter}/${id}` && further.facts?.()) || [],
  ask: ({ rules }: HeldDocument, concept: string, question: string, args: readonly unknown[]): Promise<unknown> =>
    askWorkbench(concept, question, rules, args),
  writeFile: ({ document, rules }: HeldDocument, concept: string, format: string, of?: string): Promise<string> =>
    writeFile(concept, format, document, rules, of),
  readFile: ({ document }: HeldDocument, concept: string, format: string, text: string, of?: string): Promise<TableReading> =>
    readFile(concept, format, text, document, of),
  uses: ({ rules }: HeldDocument, chapter: string, id: string): readonly Use[] => usesOf(rules, chapter, id),
  /** Undefined where another document came before the answer did: whoever wants it still asks again. */
  findings: ({ rules }: HeldDocument): Promise<readonly Finding[] | undefined> => behind('findings', () => findingsInParts(rules)),
  /** What a concept works out in parts; undefined as above. */
  background: ({ rules }: HeldDocument, concept: string, name: string, args: readonly unknown[]): Promise<unknown> =>
    behind(`${concept}/${name}`, () => workInBackground(concept, name, rules, args)),
  wiring: ({ rules }: HeldDocument): { wiring: Wiring; ms: number } => {
    const began = performance.now();
    const wiring = wiringOf(rules);
    return { wiring, ms: Math.round(performance.now() - began) };
  },
  rename: ({ rules }: HeldDocument, chapter: string, from: string, to: string, note: boolean): Renaming =>
    renameEntry(rules, chapter, from, to, note),
};
type Questions = typeof questions;
export type Question = keyof Questions;

/** What the interface asks that is about no document which is being edited. */
const others = {
  repeatedNames: (text: string): readonly Problem[] => repeatedNames(text),
  upgraded: (document: unknown): unknown => upgradeDocument(document),
  checkText: (text: string): readonly Problem[] => readRulesetText(text).problems,
  /** A text as JSON, and what is wrong with how it is written; what it says is not looked at. */
  readText: (text: string): ReturnType<typeof readText> => readText(text),
  evidenceCsv: (evidence: Evidence): string => evidenceCsv(evidence),
  sections: () => describeSections(),
  actions: () => describeActions(),
  events: () => describeEvents(),
  inputs: () => describeInputs(),
};

/** The core as a worker has it: it owns the documents that it is asked about, and is told of an edit what was changed. */
export function createCore() {
  const documents = new HeldDocuments();
  return {
    ...others,
    // An edit comes first: what was being looked at in the background is left, and asked for again.
    hold: (number: number, document: RulesetJson): void => {
      edits++;
      documents.hold(number, document);
    },
    derive: (number: number, from: number, patch: readonly Operation[]): void => {
      edits++;
      documents.derive(number, from, patch);
    },
    answer: (number: number, question: Question, args: readonly unknown[]): unknown =>
      (questions[question] as (of: HeldDocument, ...args: readonly unknown[]) => unknown)(documents.of(number), ...args),
  };
}
export type CoreApi = ReturnType<typeof createCore>;

/** The questions as the interface asks them: of a document, whose number is nobody else's concern, and answered later. */
export type Core = {
  readonly [K in Question]: Questions[K] extends (of: HeldDocument, ...args: infer A) => infer R
    ? (document: RulesetJson, ...args: A) => Promise<Awaited<R>>
    : never;
} & {
  readonly [K in keyof typeof others]: (...args: Parameters<(typeof others)[K]>) => Promise<ReturnType<(typeof others)[K]>>;
};
