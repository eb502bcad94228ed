import { abilitiesPage } from './abilities/page';
import { achievementsPage } from './achievements/page';
import { checksPage } from '../checks/page';
import { huntsPage } from '../hunts/page';
import { actorsPage } from './actors/page';
import { attributesPage } from './attributes/page';
import type { ChapterPage } from './chapter-page';
import { clipsPage } from './clips/page';
import { marketsPage, offersPage, shopsPage } from './economy/pages';
import { effectsPage } from './effects/page';
import { groupsPage } from './groups/page';
import { tracksPage } from './levels/page';
import { lootPage } from './loot/page';
import { questsPage } from './quests/page';
import { treesPage } from './skills/page';
import { statesPage } from './states/page';
import { statusesPage } from './statuses/page';
import { teamsPage } from './teams/page';
import { containersPage, dialoguesPage, interactionsPage, pickupsPage, reactionsPage, spawnersPage, zonesPage } from './world/pages';

/** The chapters that have pages, in the order of their tabs. One line adds one. */
export const CHAPTERS: readonly ChapterPage[] = [
  attributesPage,
  statusesPage,
  effectsPage,
  abilitiesPage,
  clipsPage,
  groupsPage,
  actorsPage,
  pickupsPage,
  zonesPage,
  interactionsPage,
  dialoguesPage,
  containersPage,
  spawnersPage,
  reactionsPage,
  tracksPage,
  treesPage,
  questsPage,
  achievementsPage,
  lootPage,
  teamsPage,
  marketsPage,
  shopsPage,
  offersPage,
  statesPage,
  checksPage,
  huntsPage,
];

/** Chapters with a tab; others are listed among the entries of one that has. */
export const TABS = CHAPTERS.filter((chapter) => !chapter.workplace && !CHAPTERS.some((other) => other.also?.includes(chapter.key)));

/** The chapter whose tab an entry of a chapter is found under. */
export const tabOf = (key: string): string => CHAPTERS.find((chapter) => chapter.also?.includes(key))?.key ?? key;

export const chapterOf = (key: string): ChapterPage | undefined => CHAPTERS.find((chapter) => chapter.key === key);
