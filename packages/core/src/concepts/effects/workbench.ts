import type { Workbench } from '../../workbench/workbench.js';
import { effectEvidence } from './evidence.js';

export const workbench = { evidence: { effects: effectEvidence } } satisfies Workbench;
