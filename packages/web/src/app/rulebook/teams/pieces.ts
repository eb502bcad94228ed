import type { PagePieces } from '../chapter-page';
import { TeamEvidencePage } from './team-evidence';
import { TeamRulesPart } from './team-rules';
import { TeamSentences } from './team-sentences';

export const teamsPieces: PagePieces = { spec: [{ type: TeamSentences }, { type: TeamRulesPart }], beside: { type: TeamEvidencePage } };
