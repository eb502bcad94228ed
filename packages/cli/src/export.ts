import { writeFileSync } from 'node:fs';
import { findingsOf, readRulesetText, rulesetSchema, type Rules, typescriptOf, upgradeDocument } from '@eager-ember/core';
import { inLines, readText } from './files.js';

/** A sound ruleset from a file; what is wrong with it goes to stderr. */
function sound(file: string): Rules | undefined {
  const { text, problem } = readText(file);
  const { rules, problems } = text === undefined ? { problems: [] } : readRulesetText(text);
  if (!rules) process.stderr.write(problem === undefined ? `${file}:\n${inLines(problems)}` : `${problem}\n`);
  return rules;
}

/** Writes what was asked for where it was asked for. Returns the exit code. */
function put(text: string, out: string | undefined): number {
  if (out === undefined) {
    process.stdout.write(text);
    return 0;
  }
  try {
    writeFileSync(out, text);
    return 0;
  } catch (error) {
    process.stderr.write(`${out} can't be written: ${(error as Error).message}.\n`);
    return 2;
  }
}

/** `ember export --ts`: typed constants and accessors for a game's client. */
export function exportTypes(file: string, out: string | undefined): number {
  const rules = sound(file);
  return rules ? put(typescriptOf(rules), out) : 2;
}

/** `ember schema`: the JSON Schema of rulesets, or of one with its own ids. */
export function schema(file: string | undefined, out: string | undefined): number {
  if (file === undefined) return put(JSON.stringify(rulesetSchema(), null, 2) + '\n', out);
  const rules = sound(file);
  return rules ? put(JSON.stringify(rulesetSchema(rules), null, 2) + '\n', out) : 2;
}

/** `ember upgrade`: a ruleset of an earlier version of the format, as one of today's that means the same. */
export function upgrade(file: string, out: string | undefined): number {
  const { text, problem } = readText(file);
  const { rules, problems } = text === undefined ? { problems: [] } : readRulesetText(text);
  if (rules) return put(JSON.stringify(upgradeDocument(JSON.parse(text!)), null, 2) + '\n', out);
  process.stderr.write(problem === undefined ? `${file}:\n${inLines(problems)}` : `${problem}\n`);
  return 2;
}

/** `ember findings`: what its author will hardly have meant. */
export function findings(file: string, json: boolean): number {
  const rules = sound(file);
  if (!rules) return 2;
  const found = findingsOf(rules);
  process.stdout.write(json ? JSON.stringify(found) + '\n' : found.map(({ path, message }) => `${path}: ${message}\n`).join(''));
  return 0;
}
