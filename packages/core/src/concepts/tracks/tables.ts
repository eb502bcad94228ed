import { LARGEST_AMOUNT } from '../../math/grid.js';
import { columnNames, defineEntryTable, partName } from '../../world/entry-table.js';
import type { TrackEntry } from './schema.js';

export const tracksTable = defineEntryTable({
  name: 'tracks',
  title: 'Levels',
  extends: 'actors',
  parts: ['level', 'peak'],
  columns: (track: TrackEntry) => {
    const { label, levels, see } = track;
    const own = { see, saved: true };
    return {
      /** What is earned towards the next level. */
      experience: {
        ...own,
        ...columnNames(track),
        kind: 'number',
        decimals: 1,
        label: `${label}, towards the next level`,
        range: [0, LARGEST_AMOUNT],
      },
      level: { ...own, ...columnNames(track, (id) => partName(id, 'level')), kind: 'int', label: `${label}, level`, range: [1, levels] },
      /** The highest level ever reached: what is rewarded once is rewarded by it. */
      peak: {
        ...own,
        ...columnNames(track, (id) => partName(id, 'peak')),
        kind: 'int',
        label: `${label}, highest level ever`,
        range: [1, levels],
      },
    };
  },
});
