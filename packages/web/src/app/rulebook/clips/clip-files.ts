import type { ExchangedFile } from '../file-exchange';

export const CLIP_FILES: ExchangedFile = {
  title: 'Clips from a file',
  says: 'CSV with the columns clip, label, length, mark, at – a line for each mark – or JSON, a list of `{ id, label, length, marks: [{ mark, at }] }`. Times are such as 1.8s or 250ms; a plain number is seconds. Clips with an id that is there are changed, others added.',
  concept: 'clips',
  saves: [{ format: 'csv', file: 'clips.csv', act: 'Save as CSV' }],
  reads: ['csv', 'json'],
};
