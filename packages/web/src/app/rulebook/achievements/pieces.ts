import type { PagePieces } from '../chapter-page';
import { AchievementList } from './achievement-list';
import { AchievementSentences } from './achievement-sentences';

export const achievementsPieces: PagePieces = { spec: [{ type: AchievementSentences }], beside: { type: AchievementList, takesId: true } };
