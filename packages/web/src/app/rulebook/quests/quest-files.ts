import type { ExchangedFile } from '../file-exchange';

export const QUEST_FILES: ExchangedFile = {
  title: 'Quests as a table',
  says: 'CSV, a line for each goal, under the ids of its quest and step. An event stands as `pickupTaken pickup=manifestPage`. A quest that is there keeps what a table has no column for, such as what it gives; others are added.',
  concept: 'quests',
  saves: [{ format: 'csv', file: 'quests.csv', act: 'Save as CSV' }],
  reads: ['csv'],
};
