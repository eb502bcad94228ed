export { abilityEvidence } from './abilities.js';
export { attributeEvidence, followEvidence } from './attributes.js';
export { evidenceCsv } from './csv.js';
export { effectEvidence } from './effects.js';
export { pinLabel } from './situations.js';
export { EVIDENCE_SECONDS, type Evidence, type Pin, type PinAction, type ProposedSituation, type Series, type Span } from './types.js';
