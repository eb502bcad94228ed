import type { Workbench } from '../../workbench/workbench.js';
import { interactionEvidence } from './evidence.js';

export const workbench = { evidence: { interactions: interactionEvidence } } satisfies Workbench;
