import { RulesetCompiler, type Reading } from './compiler.js';
import { jsonWords, readJson, repeatedNames } from './json-text.js';
import { isTooDeep } from './limits.js';
import { type Path, pointer, type Problem, RulesetError } from './problem.js';
import type { Rules } from './rules.js';

/**
 * Reads a ruleset document, of this version of the format or an earlier one. Never throws for what an author wrote: every problem comes back with its place.
 * @param value the parsed JSON
 * @public
 * @example
 * const { rules, problems } = readRuleset(JSON.parse(text));
 * for (const { path, message } of problems) console.error(`${path}: ${message}`);
 */
export function readRuleset(value: unknown): Reading {
  return new RulesetCompiler().read(value);
}

/**
 * Reads a ruleset as {@link readRuleset} does, a part of the work between two yields: a thread that has other things to do does
 * them in between. A part is about one entry, or about what a concept makes of all of its own.
 */
export function readRulesetInParts(value: unknown): Generator<void, Reading> {
  return new RulesetCompiler().readInParts(value);
}

/**
 * Reads a ruleset from JSON text; a text that is not JSON is one problem at the root.
 * @public
 */
export function readRulesetText(text: string): Reading {
  const { value, wrong } = { value: undefined, ...readJson(text) };
  if (wrong) return { problems: [{ path: '', message: jsonWords(wrong) }] };
  const reading = readRuleset(value);
  const repeated = isTooDeep(value) ? [] : repeatedNames(text);
  return repeated.length > 0 ? { problems: [...repeated, ...reading.problems] } : reading;
}

/** The JSON value of a text, and what is wrong with how it is written, whatever it says; no value where it is no JSON. */
export function readText(text: string): { readonly value?: unknown; readonly problems: readonly Problem[] } {
  const { value, wrong } = { value: undefined, ...readJson(text) };
  if (wrong) return { problems: [{ path: '', message: jsonWords(wrong) }] };
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return { value, problems: [{ path: '', message: 'A ruleset is a JSON object.' }] };
  return { value, problems: isTooDeep(value) ? [] : [...repeatedNames(text), ...endless(value, [])] };
}

/** Numbers of a text that are beyond any that there are, and come out of it as infinite. */
function endless(value: unknown, path: Path): readonly Problem[] {
  if (typeof value === 'number' && !Number.isFinite(value))
    return [{ path: pointer(path), message: 'This number is beyond all that can be calculated with.' }];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, part]) => endless(part, [...path, key]));
}

/**
 * Compiles a ruleset that is known to be sound.
 * @throws RulesetError with all problems where it is not
 * @public
 * @example
 * const rules = compileRuleset(JSON.parse(text));
 */
export function compileRuleset(value: unknown): Rules {
  const { rules, problems } = readRuleset(value);
  if (!rules) throw new RulesetError(problems);
  return rules;
}
