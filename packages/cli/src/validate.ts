import { type Problem, readRulesetText } from '@eager-ember/core';
import { inLines, readText } from './files.js';

/** `ember validate`: prints problems and returns the exit code. */
export function validate(file: string, json: boolean): number {
  const { text, problem } = readText(file);
  if (text === undefined) {
    process.stderr.write(`${problem}\n`);
    return 2;
  }
  const problems: readonly Problem[] = readRulesetText(text).problems;
  if (json) process.stdout.write(JSON.stringify(problems) + '\n');
  else process.stdout.write(inLines(problems));
  return problems.length === 0 ? 0 : 1;
}
