import type { Workbench } from '../../workbench/workbench.js';
import { attributeCourse, followEvidence } from './evidence.js';
import { attributesFromCsv, attributesToCsv } from './exchange.js';

export const workbench = {
  evidence: { attributes: attributeCourse },
  questions: { follow: followEvidence },
  files: { csv: { write: attributesToCsv, read: attributesFromCsv } },
} satisfies Workbench;
export type AttributeQuestions = (typeof workbench)['questions'];
