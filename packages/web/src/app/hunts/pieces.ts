import { CheckFoot } from '../checks/check-foot';
import type { PagePieces } from '../rulebook/chapter-page';
import { HuntResult } from './hunt-result';
import { HuntSentences } from './hunt-sentences';

export const huntsPieces: PagePieces = {
  spec: [{ type: HuntSentences }],
  index: { type: CheckFoot },
  evidence: { type: HuntResult, takesId: true },
};
