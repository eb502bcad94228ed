import { z } from 'zod';
import { colour, duration, entryFields, finite, reference, word, yesOrNo } from '../../ruleset/fields.js';
import { defineChapter } from '../../ruleset/chapter.js';
import { described } from '../../ruleset/described.js';

export const PATTERNS = ['plain', 'stripes', 'dots', 'checks'] as const;
/** Where who joins goes: to the team with the fewest players, or with the least of a stat among its players. */
export const ASSIGNS = ['fewest', 'lowest'] as const;
/** When a player may change teams by asking for it. */
export const SWITCHES = ['free', 'after', 'balanced', 'never'] as const;

export const schema = z.strictObject({
  ...entryFields(),
  colour: colour().default('#6b655c'),
  /** How the team's actors are filled where colour alone would not tell. */
  pattern: z.enum(PATTERNS, `One of ${PATTERNS.join(', ')} is expected.`).default('plain'),
  /** One or two characters that stand for the team. */
  mark: z.string().min(1).max(2).default('•'),
  /** Most players; as many as like where nothing is said. */
  capacity: described(finite().int('A capacity is a whole number.').min(1, 'At least one player.').max(200, 'At most 200 players.'), {
    unit: 'players',
    absent: 'any number of',
  }).optional(),
  /** Whether players are assigned to it, and may switch to it. Nobody is put into one that is not open, unless by name. */
  open: yesOrNo('Players are assigned to it', 'Nobody is assigned to it, and nobody is let in who asks').default(true),
});
export type TeamEntry = z.infer<typeof schema>;
export const teamChapter = defineChapter('teams', schema);

/** How players come into teams, and change them. */
export const rulesSchema = z
  .strictObject({
    assign: word(
      ASSIGNS,
      { fewest: 'the team with the fewest players', lowest: 'the team that has the least of' },
      { fewest: 'the first of equals', lowest: 'a stat or a counter, added up' },
    ).default('fewest'),
    /** The stat whose sum is compared, for `lowest`. */
    stat: reference('attributes', ['stat', 'counter']).optional(),
    switching: word(
      SWITCHES,
      { free: 'whenever they ask', balanced: 'unless that would unbalance the teams', after: 'again after', never: 'never' },
      { free: 'as long as there is room', balanced: 'more than one apart', after: 'a time', never: 'teams are kept' },
    ).default('balanced'),
    /** How long after a change the next may be asked for, for `after`. */
    after: duration().optional(),
    /** Whether a player may be in no team by asking for it. */
    neutral: yesOrNo('who asks is in no team', 'everybody is in a team').default(false),
    /** Whether somebody is moved over where a leaving has left the open teams more than one apart: who came last. */
    rebalance: yesOrNo('who came last is moved over where that keeps them even', 'nobody is moved').default(false),
  })
  .default({ assign: 'fewest', switching: 'balanced', neutral: false, rebalance: false });
export type TeamRules = z.infer<typeof rulesSchema>;
