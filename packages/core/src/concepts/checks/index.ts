import { defineConcept } from '../../world/concept.js';
import { findings, tooMany } from './findings.js';
import { asFormula } from './in-row.js';
import { cellsFor, MOST_CHECKS, schema } from './schema.js';
import { checks } from './state.js';

export { checks } from './state.js';
export { type CheckEntry, MOST_ROWS, MOST_RUN } from './schema.js';

/** Checks: what is wanted of a ruleset, as examples that are run. No game knows of them. */
export const checksConcept = defineConcept(checks, {
  sections: {
    checks: {
      kind: 'chapter',
      title: 'Checks',
      entry: schema,
      most: MOST_CHECKS,
      ownConditions: true,
      ahead: { asFormula, standsFor: cellsFor },
    },
  },
  findings: (_, rules) => [...findings(rules), ...tooMany(rules)],
  workbench: async () => (await import('../workbenches.js')).checks,
});
