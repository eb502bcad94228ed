import type { PagePieces } from '../chapter-page';
import { ActorSentences } from './actor-sentences';

export const actorsPieces: PagePieces = { spec: [{ type: ActorSentences }] };
