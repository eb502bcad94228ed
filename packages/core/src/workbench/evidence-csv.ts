import { stringify } from 'csv-stringify/browser/esm/sync';
import { roundTo } from '../math/grid.js';
import type { Evidence } from './evidence.js';

/** The course of evidence as a table (RFC 4180): a line a tick, a column for the time and for each value. */
export function evidenceCsv({ series, perSecond }: Evidence): string {
  const length = Math.max(0, ...series.map((s) => s.values.length));
  const lines = Array.from({ length }, (_, i) => [roundTo((i + 1) / perSecond, 4), ...series.map((s) => roundTo(s.values[i], 4))]);
  return stringify([['seconds', ...series.map((s) => s.id)], ...lines], { record_delimiter: '\r\n' });
}
