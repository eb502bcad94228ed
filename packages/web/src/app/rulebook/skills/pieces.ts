import type { PagePieces } from '../chapter-page';
import { ChosenNode } from './chosen-node';
import { TreePlan } from './tree-plan';
import { TreeSentences } from './tree-sentences';

export const treesPieces: PagePieces = {
  spec: [{ type: TreeSentences }],
  beside: { type: TreePlan, takesId: true },
  providers: [ChosenNode],
};
