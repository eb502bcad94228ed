import type { Finding } from '../../ruleset/problem.js';

export const findings = (): readonly Finding[] => [];
