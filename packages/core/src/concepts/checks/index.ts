import { defineConcept } from '../../world/concept.js';
import { findings } from './findings.js';
import { asFormula } from './in-row.js';
import { cellsFor, schema } from './schema.js';
import { checks } from './state.js';

export { checks } from './state.js';
export { type CheckEntry, MOST_ROWS } from './schema.js';

/** Checks: what is wanted of a ruleset, as examples that are run. No game knows of them. */
export const checksConcept = defineConcept(checks, {
  sections: {
    checks: { kind: 'chapter', title: 'Checks', entry: schema, ownConditions: true, ahead: { asFormula, standsFor: cellsFor } },
  },
  findings: (_, rules) => findings(rules),
  workbench: async () => (await import('../workbenches.js')).checks,
});
