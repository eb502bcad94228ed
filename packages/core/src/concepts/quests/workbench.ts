import type { Workbench } from '../../workbench/workbench.js';
import { walkQuest } from './evidence.js';
import { questsFromCsv, questsToCsv } from './exchange.js';

export const workbench = {
  questions: { walk: walkQuest },
  files: { csv: { write: questsToCsv, read: questsFromCsv } },
} satisfies Workbench;
export type QuestQuestions = (typeof workbench)['questions'];
