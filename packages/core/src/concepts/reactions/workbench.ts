import type { Workbench } from '../../workbench/workbench.js';
import { reactionEvidence } from './evidence.js';

export const workbench = { evidence: { reactions: reactionEvidence } } satisfies Workbench;
