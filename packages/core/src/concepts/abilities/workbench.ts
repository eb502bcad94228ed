import type { Workbench } from '../../workbench/workbench.js';
import { abilityEvidence, abilitySweep } from './evidence.js';

export const workbench = {
  evidence: { abilities: abilityEvidence },
  questions: { sweep: abilitySweep },
} satisfies Workbench;
export type AbilityQuestions = (typeof workbench)['questions'];
