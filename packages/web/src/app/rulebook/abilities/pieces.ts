import type { PagePieces } from '../chapter-page';
import { AbilitySentences } from './ability-sentences';
import { AbilityStrip } from './ability-strip';
import { AbilitySweep } from './ability-sweep';

export const abilitiesPieces: PagePieces = {
  spec: [{ type: AbilitySentences }],
  strip: AbilityStrip,
  after: { type: AbilitySweep, takesId: true },
};
