import { defineConcept } from '../../world/concept.js';
import { findings } from './findings.js';
import { schema } from './schema.js';
import { hunts } from './state.js';

export { hunts } from './state.js';
export { ANYTHING, type HuntEntry, type May } from './schema.js';

/** Hunts: what must hold whatever happens, and what may. Stories are drawn and tried until one is found in which it does not. */
export const huntsConcept = defineConcept(hunts, {
  sections: {
    hunts: { kind: 'chapter', title: 'Hunts', entry: schema, ownConditions: true, ahead: { asFormula: (text) => text } },
  },
  findings: (_, rules) => findings(rules),
  workbench: async () => (await import('../workbenches.js')).hunts,
});
