import { z } from 'zod';
import { colour, entryFields } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';

export const PATTERNS = ['plain', 'stripes', 'dots', 'checks'] as const;

const schema = z.strictObject({
  ...entryFields(),
  colour: colour().default('#6b655c'),
  /** How the team's actors are filled where colour alone would not tell. */
  pattern: z.enum(PATTERNS, `One of ${PATTERNS.join(', ')} is expected.`).default('plain'),
  /** One or two characters that stand for the team. */
  mark: z.string().min(1).max(2).default('•'),
});
export type TeamEntry = z.infer<typeof schema>;

/** Teams: who belongs together, and how one sees it. */
export const teams = defineConcept<readonly TeamEntry[]>({
  id: 'teams',
  sections: { teams: { kind: 'chapter', title: 'Teams', entry: schema } },
  compile: (context) => context.entries<TeamEntry>('teams'),
  display: (entries) => entries.map(({ id, label, colour, pattern, mark }) => ({ id, label, colour, pattern, mark })),
});
