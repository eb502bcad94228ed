import type { ChapterPage } from '../chapter-page';
import { LOOT_GROUPS, lootGroup } from './loot-groups';

export const lootPage: ChapterPage = {
  key: 'loot',
  title: 'Loot',
  one: 'loot table',
  fresh: () => ({ entries: [{ id: 'nothing', weight: 1 }] }),
  groups: { order: LOOT_GROUPS, of: lootGroup },
};
