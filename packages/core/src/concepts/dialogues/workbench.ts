import type { Workbench } from '../../workbench/workbench.js';
import { dialogueEvidence } from './evidence.js';

export const workbench = { evidence: { dialogues: dialogueEvidence } } satisfies Workbench;
