import {
  abilityEvidence,
  attributeEvidence,
  compileRuleset,
  describeActions,
  effectEvidence,
  type Evidence,
  type Problem,
  readRuleset,
  readRulesetText,
  repeatedNames,
  type Rules,
  type Use,
  usesOf,
} from '@eager-ember/core';
import { expose } from 'comlink';

const EVIDENCE: Readonly<Record<string, (rules: Rules, id: string) => Evidence>> = {
  attributes: attributeEvidence,
  effects: effectEvidence,
  abilities: abilityEvidence,
};

/** The core, off the interface's thread. Compiled rules are kept for as long as the document stays the same. */
const api = {
  check: (document: unknown): readonly Problem[] => readRuleset(document).problems,
  repeatedNames: (text: string): readonly Problem[] => repeatedNames(text),
  checkText: (text: string): readonly Problem[] => readRulesetText(text).problems,
  evidence: (document: unknown, chapter: string, id: string): Evidence | undefined => EVIDENCE[chapter]?.(rulesOf(document), id),
  uses: (document: unknown, chapter: string, id: string): readonly Use[] => usesOf(rulesOf(document), chapter, id),
  actions: () => describeActions(),
};
export type CoreApi = typeof api;

let last: { readonly text: string; readonly rules: Rules } | undefined;

function rulesOf(document: unknown): Rules {
  const text = JSON.stringify(document);
  if (last?.text !== text) last = { text, rules: compileRuleset(document) };
  return last.rules;
}

expose(api);
