import {
  abilityEvidence,
  attributeEvidence,
  attributesFromCsv,
  attributesToCsv,
  compileRuleset,
  describeActions,
  describeEvents,
  effectEvidence,
  type Evidence,
  evidenceCsv,
  type Finding,
  findingsOf,
  followEvidence,
  type Problem,
  readRuleset,
  readRulesetText,
  renameEntry,
  type Renaming,
  repeatedNames,
  type Rules,
  type TableReading,
  type Use,
  usesOf,
} from '@eager-ember/core';

/** Where evidence is of more than one sort, the one that is asked for. */
export type EvidenceMode = 'itself' | 'follow';

type Document = Readonly<Record<string, unknown>>;

const EVIDENCE: Readonly<Record<string, (rules: Rules, id: string) => Evidence>> = {
  attributes: attributeEvidence,
  effects: effectEvidence,
  abilities: abilityEvidence,
};

let last: { readonly text: string; readonly rules: Rules } | undefined;

/** Compiled rules are kept for as long as the document stays the same. */
function rulesOf(document: unknown): Rules {
  const text = JSON.stringify(document);
  if (last?.text !== text) last = { text, rules: compileRuleset(document) };
  return last.rules;
}

/** What the interface asks of the core. It runs in a worker. */
export const coreApi = {
  check: (document: unknown): readonly Problem[] => readRuleset(document).problems,
  repeatedNames: (text: string): readonly Problem[] => repeatedNames(text),
  checkText: (text: string): readonly Problem[] => readRulesetText(text).problems,
  evidence: (document: unknown, chapter: string, id: string, mode: EvidenceMode): Evidence | undefined =>
    mode === 'follow' ? followEvidence(rulesOf(document), id) : EVIDENCE[chapter]?.(rulesOf(document), id),
  evidenceCsv: (evidence: Evidence): string => evidenceCsv(evidence),
  uses: (document: unknown, chapter: string, id: string): readonly Use[] => usesOf(rulesOf(document), chapter, id),
  findings: (document: unknown): readonly Finding[] => findingsOf(rulesOf(document)),
  rename: (document: unknown, chapter: string, from: string, to: string, note: boolean): Renaming =>
    renameEntry(rulesOf(document), chapter, from, to, note),
  toTable: (document: Document): string => attributesToCsv(document),
  fromTable: (text: string, document: Document): TableReading => attributesFromCsv(text, document),
  actions: () => describeActions(),
  events: () => describeEvents(),
};
export type CoreApi = typeof coreApi;
