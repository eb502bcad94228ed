import type { Workbench } from '../../workbench/workbench.js';
import { zoneEvidence } from './evidence.js';

export const workbench = { evidence: { zones: zoneEvidence } } satisfies Workbench;
