import type { Workbench } from '../../workbench/workbench.js';
import { clipsFromCsv, clipsFromJson, clipsToCsv } from './exchange.js';

export const workbench = {
  files: { csv: { write: clipsToCsv, read: clipsFromCsv }, json: { read: clipsFromJson } },
} satisfies Workbench;
