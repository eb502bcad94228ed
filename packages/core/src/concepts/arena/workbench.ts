import type { Workbench } from '../../workbench/workbench.js';
import { arenaFromJson, arenaToJson, placedFromCsv, placedToCsv } from './exchange.js';

export const workbench = {
  files: { csv: { write: placedToCsv, read: placedFromCsv }, json: { write: arenaToJson, read: arenaFromJson } },
} satisfies Workbench;
