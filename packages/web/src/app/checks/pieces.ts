import type { PagePieces } from '../rulebook/chapter-page';
import { CheckFoot } from './check-foot';
import { CheckSentences } from './check-sentences';
import { CheckStoryPage } from './check-story';

export const checksPieces: PagePieces = {
  spec: [{ type: CheckSentences }],
  index: { type: CheckFoot },
  evidence: { type: CheckStoryPage, takesId: true },
};
