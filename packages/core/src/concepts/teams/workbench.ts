import type { Workbench } from '../../workbench/workbench.js';
import { teamEvidence } from './evidence.js';

export const workbench = { questions: { crews: teamEvidence } } satisfies Workbench;
export type TeamQuestions = (typeof workbench)['questions'];
