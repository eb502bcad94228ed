import type { ExchangedFile } from '../file-exchange';

export const LOOT_FILES: ExchangedFile = {
  title: 'Loot tables as CSV',
  says: 'A line for each entry, under the id of its table; `always` for a weight is what every opening gives. A range stands as `5 to 12`. A table that is there keeps its streak breaker and what happens besides; others are added.',
  concept: 'loot',
  saves: [{ format: 'csv', file: 'loot.csv', act: 'Save as CSV' }],
  reads: ['csv'],
};
