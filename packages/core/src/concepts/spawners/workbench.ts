import type { Workbench } from '../../workbench/workbench.js';
import { spawnerEvidence } from './evidence.js';

export const workbench = { evidence: { spawners: spawnerEvidence } } satisfies Workbench;
