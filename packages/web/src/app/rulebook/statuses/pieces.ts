import type { PagePieces } from '../chapter-page';
import { StatusSentences } from './status-sentences';

export const statusesPieces: PagePieces = { spec: [{ type: StatusSentences }] };
