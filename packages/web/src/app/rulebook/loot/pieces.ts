import type { PagePieces } from '../chapter-page';
import { LootBoard } from './loot-board';
import { LootOdds } from './loot-odds';
import { LootSentences } from './loot-sentences';

export const lootPieces: PagePieces = { spec: [{ type: LootSentences }], beside: { type: LootOdds }, providers: [LootBoard] };
