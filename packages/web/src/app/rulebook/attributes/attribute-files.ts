import type { ExchangedFile } from '../file-exchange';

export const ATTRIBUTE_FILES: ExchangedFile = {
  title: 'Attributes as a table',
  says: 'CSV, a line for each attribute. Lines with an id that is there change that attribute, others add one; what a table has no column for, such as thresholds, stays.',
  concept: 'attributes',
  saves: [{ format: 'csv', file: 'attributes.csv', act: 'Save as CSV' }],
  reads: ['csv'],
};
