import type { ExchangedFile } from '../file-exchange';

export const PRICE_FILES: ExchangedFile = {
  title: 'Prices as CSV',
  says: 'A line for each good of a `market`, with the least and the most that it pays and, where the price walks, its start and step; and a line for each thing that an `offer` costs. What a table has no column for, such as needs, stays as it is.',
  concept: 'markets',
  saves: [{ format: 'csv', file: 'prices.csv', act: 'Save as CSV' }],
  reads: ['csv'],
};
