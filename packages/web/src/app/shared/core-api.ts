import {
  askWorkbench,
  compileRuleset,
  describeActions,
  describeEvents,
  describeSections,
  type Evidence,
  evidenceCsv,
  evidenceOf,
  type Finding,
  findingsOf,
  type Problem,
  readFile,
  readRuleset,
  readRulesetText,
  renameEntry,
  type Renaming,
  repeatedNames,
  type Rules,
  type TableReading,
  upgradeDocument,
  type Use,
  usesOf,
  type Wiring,
  wiringOf,
  writeFile,
} from '@eager-ember/core';

type Document = Readonly<Record<string, unknown>>;

let last: { readonly text: string; readonly rules: Rules } | undefined;

/** Compiled rules are kept for as long as the document stays the same. */
function rulesOf(document: unknown): Rules {
  const text = JSON.stringify(document);
  if (last?.text !== text) last = { text, rules: compileRuleset(document) };
  return last.rules;
}

/** What the interface asks of the core. It runs in a worker. What concerns one concept alone is asked of that, by its name. */
export const coreApi = {
  check: (document: unknown): readonly Problem[] => readRuleset(document).problems,
  repeatedNames: (text: string): readonly Problem[] => repeatedNames(text),
  upgraded: (document: unknown): unknown => upgradeDocument(document),
  checkText: (text: string): readonly Problem[] => readRulesetText(text).problems,
  evidence: (document: unknown, chapter: string, id: string): Promise<Evidence | undefined> => evidenceOf(rulesOf(document), chapter, id),
  evidenceCsv: (evidence: Evidence): string => evidenceCsv(evidence),
  ask: (document: unknown, concept: string, question: string, args: readonly unknown[]): Promise<unknown> =>
    askWorkbench(concept, question, rulesOf(document), args),
  writeFile: (document: Document, concept: string, format: string, of?: string): Promise<string> =>
    writeFile(concept, format, document, rulesOf(document), of),
  readFile: (document: Document, concept: string, format: string, text: string, of?: string): Promise<TableReading> =>
    readFile(concept, format, text, document, of),
  uses: (document: unknown, chapter: string, id: string): readonly Use[] => usesOf(rulesOf(document), chapter, id),
  findings: (document: unknown): readonly Finding[] => findingsOf(rulesOf(document)),
  wiring: (document: unknown): { wiring: Wiring; ms: number } => {
    const rules = rulesOf(document);
    const began = performance.now();
    const wiring = wiringOf(rules);
    return { wiring, ms: Math.round(performance.now() - began) };
  },
  rename: (document: unknown, chapter: string, from: string, to: string, note: boolean): Renaming =>
    renameEntry(rulesOf(document), chapter, from, to, note),
  sections: () => describeSections(),
  actions: () => describeActions(),
  events: () => describeEvents(),
};
export type CoreApi = typeof coreApi;
