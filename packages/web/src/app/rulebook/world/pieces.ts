import type { PagePieces } from '../chapter-page';
import { ContainerSentences } from './container-sentences';
import { DialogueSentences } from './dialogue-sentences';
import { InteractionSentences } from './interaction-sentences';
import { PickupSentences } from './pickup-sentences';
import { ReactionSentences } from './reaction-sentences';
import { SpawnerSentences } from './spawner-sentences';
import { ZoneSentences } from './zone-sentences';

export const pickupsPieces: PagePieces = { spec: [{ type: PickupSentences }] };

export const zonesPieces: PagePieces = { spec: [{ type: ZoneSentences }] };

export const interactionsPieces: PagePieces = { spec: [{ type: InteractionSentences }] };

export const dialoguesPieces: PagePieces = { spec: [{ type: DialogueSentences }] };

export const containersPieces: PagePieces = { spec: [{ type: ContainerSentences }] };

export const spawnersPieces: PagePieces = { spec: [{ type: SpawnerSentences }] };

export const reactionsPieces: PagePieces = { spec: [{ type: ReactionSentences }] };
