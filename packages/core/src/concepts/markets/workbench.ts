import type { Workbench } from '../../workbench/workbench.js';
import { pricesFromCsv, pricesToCsv } from './exchange.js';

export const workbench = { files: { csv: { write: pricesToCsv, read: pricesFromCsv } } } satisfies Workbench;
