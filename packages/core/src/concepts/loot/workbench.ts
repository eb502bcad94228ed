import type { Workbench } from '../../workbench/workbench.js';
import { lootEvidence, LootSampler, type Roller } from './evidence/index.js';
import { lootFromCsv, lootToCsv } from './exchange.js';
import type { Rules } from '../../ruleset/rules.js';

/** Opens a table so many times more at each go, and tells what all of them came to. */
const openings = (rules: Rules, id: string, roller: Roller, thing: string) => {
  const sampler = new LootSampler(rules, id, roller, thing);
  return (times: number, asked: readonly number[]) => {
    sampler.run(times);
    return sampler.result(asked);
  };
};

export const workbench = {
  questions: { odds: lootEvidence },
  files: { csv: { write: lootToCsv, read: lootFromCsv } },
  tasks: { openings },
} satisfies Workbench;
export type LootQuestions = (typeof workbench)['questions'];
export type LootTasks = (typeof workbench)['tasks'];
