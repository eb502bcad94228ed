import type { ExchangedFile } from '../file-exchange';

/** The table of one track. */
export const levelFiles = (track: string): ExchangedFile => ({
  title: 'Levels from a file',
  says: 'CSV with the columns level and needs: a line for each level from 1 upwards, with what it takes to get to the next. The track has one level more than there are lines.',
  concept: 'tracks',
  of: track,
  saves: [{ format: 'csv', file: `${track}.csv`, act: 'Save as CSV' }],
  reads: ['csv'],
});
