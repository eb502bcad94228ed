import type { Workbench } from '../../workbench/workbench.js';
import { containerEvidence } from './evidence.js';

export const workbench = { evidence: { containers: containerEvidence } } satisfies Workbench;
