import { abilitiesPieces } from './abilities/pieces';
import { achievementsPieces } from './achievements/pieces';
import { checksPieces } from '../checks/pieces';
import { huntsPieces } from '../hunts/pieces';
import { actorsPieces } from './actors/pieces';
import { attributesPieces } from './attributes/pieces';
import type { PagePieces } from './chapter-page';
import { clipsPieces } from './clips/pieces';
import { marketsPieces, offersPieces, shopsPieces } from './economy/pieces';
import { effectsPieces } from './effects/pieces';
import { groupsPieces } from './groups/pieces';
import { tracksPieces } from './levels/pieces';
import { lootPieces } from './loot/pieces';
import { questsPieces } from './quests/pieces';
import { treesPieces } from './skills/pieces';
import { statesPieces } from './states/pieces';
import { statusesPieces } from './statuses/pieces';
import { teamsPieces } from './teams/pieces';
import {
  containersPieces,
  dialoguesPieces,
  interactionsPieces,
  pickupsPieces,
  reactionsPieces,
  spawnersPieces,
  zonesPieces,
} from './world/pieces';

/**
 * What each chapter's page is made of. It comes with the book, in one piece: a file for every chapter has the browser ask for
 * some two hundred small ones, which takes longer than what they hold. One line adds one.
 */
export const PAGE_PIECES: Readonly<Record<string, PagePieces>> = {
  attributes: attributesPieces,
  statuses: statusesPieces,
  effects: effectsPieces,
  abilities: abilitiesPieces,
  clips: clipsPieces,
  groups: groupsPieces,
  actors: actorsPieces,
  pickups: pickupsPieces,
  zones: zonesPieces,
  interactions: interactionsPieces,
  dialogues: dialoguesPieces,
  containers: containersPieces,
  spawners: spawnersPieces,
  reactions: reactionsPieces,
  tracks: tracksPieces,
  trees: treesPieces,
  quests: questsPieces,
  achievements: achievementsPieces,
  loot: lootPieces,
  teams: teamsPieces,
  markets: marketsPieces,
  shops: shopsPieces,
  offers: offersPieces,
  states: statesPieces,
  checks: checksPieces,
  hunts: huntsPieces,
};
