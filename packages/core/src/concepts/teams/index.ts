import { defineConcept } from '../../world/concept.js';
import { schema, type TeamEntry } from './schema.js';
import { teams } from './state.js';
import { findings } from './findings.js';

export { teams } from './state.js';
export { ASSIGNS, PATTERNS, SWITCHES, type TeamEntry, type TeamRules } from './schema.js';

/** Teams: who belongs together, and how one sees it. How players come into them is the crews' concept. */
export const teamsConcept = defineConcept(teams, {
  findings,
  sections: { teams: { kind: 'chapter', title: 'Teams', entry: schema } },
  compile: (context) => context.entries<TeamEntry>('teams'),
  workbench: async () => (await import('../workbenches.js')).teams,
  display: (entries) =>
    entries.map(({ id, label, colour, pattern, mark, open, capacity }) => ({
      id,
      label,
      colour,
      pattern,
      mark,
      open,
      ...(capacity !== undefined && { capacity }),
    })),
});
