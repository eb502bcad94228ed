import type { PagePieces } from '../chapter-page';
import { GroupSentences } from './group-sentences';

export const groupsPieces: PagePieces = { spec: [{ type: GroupSentences }] };
