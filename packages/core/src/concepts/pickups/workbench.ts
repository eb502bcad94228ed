import type { Workbench } from '../../workbench/workbench.js';
import { pickupEvidence } from './evidence.js';

export const workbench = { evidence: { pickups: pickupEvidence } } satisfies Workbench;
