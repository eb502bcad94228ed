import { columnNames, defineEntryTable } from '../../world/entry-table.js';
import type { StatusEntry } from './schema.js';

/** How many grants of each status are on an actor. */
export const statusesTable = defineEntryTable({
  name: 'statuses',
  extends: 'actors',
  columns: (status: StatusEntry) => ({ ...columnNames(status), kind: 'int', see: status.see }),
});
