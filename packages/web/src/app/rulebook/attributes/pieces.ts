import type { PagePieces } from '../chapter-page';
import { AttributeSentences } from './attribute-sentences';

export const attributesPieces: PagePieces = { spec: [{ type: AttributeSentences }] };
