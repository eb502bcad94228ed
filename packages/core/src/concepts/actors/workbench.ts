import type { Workbench } from '../../workbench/workbench.js';
import { actorEvidence } from './evidence.js';

export const workbench = { evidence: { actors: actorEvidence } } satisfies Workbench;
