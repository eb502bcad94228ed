import type { PerEntry, TableSpec } from '../../world/columns.js';
import type { Column, Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import type { CompiledLoot } from './compile.js';
import { loot } from './index.js';

/** How long bad luck has lasted: for each player, kept with them, and for what is rolled once for all. */
export function streakTables({ list, entries, players }: CompiledLoot): readonly TableSpec[] {
  const present: PerEntry<boolean> = { column: 'type', of: players };
  return [
    {
      name: 'streaks',
      title: 'Luck',
      extends: 'actors',
      columns: list.flatMap(({ id, label, streak }, i) =>
        streak === undefined
          ? []
          : [
              {
                name: id,
                kind: 'int' as const,
                see: 'server' as const,
                saved: true,
                present,
                formerly: entries[i].formerly ?? [],
                label: `${label}: openings since its ${entries[i].entries[streak.at]?.id ?? ''}`,
                range: [0, 1_000_000] as const,
              },
            ],
      ),
    },
    {
      name: 'roomStreaks',
      columns: [
        { name: 'loot', kind: 'entry', chapter: 'loot', see: 'server' },
        { name: 'dry', kind: 'int', see: 'server' },
      ],
    },
  ];
}

export const streakColumns = (table: Table, { list }: CompiledLoot): readonly (Column | undefined)[] =>
  list.map(({ id }) => (table.has(id) ? table.column(id) : undefined));

const ownRow = (world: World, player: number): number => {
  if (player === 0) return -1;
  const { types, players } = loot.in(world);
  const row = world.actors.rowOf(player);
  return row >= 0 && players[types.data[row]] ? row : -1;
};

function roomRow(world: World, index: number): number {
  const { room } = loot.in(world);
  const tables = room.column('loot').data;
  for (let row = 0; row < room.high; row++) if (room.live[row] === 1 && tables[row] === index) return row;
  return -1;
}

/** Openings in a row that did not give what the table's streak breaker is about: a player's own, or the room's. */
export function dryOf(world: World, index: number, player: number): number {
  const { streaks, room } = loot.in(world);
  const own = ownRow(world, player);
  if (own >= 0) return streaks[index]?.data[own] ?? 0;
  const row = roomRow(world, index);
  return row < 0 ? 0 : room.column('dry').data[row];
}

export function noteDry(world: World, index: number, player: number, dry: number): void {
  const { streaks, room } = loot.in(world);
  const own = ownRow(world, player);
  if (own >= 0) return void (streaks[index]!.data[own] = dry);
  const found = roomRow(world, index);
  const row = found >= 0 ? found : room.add();
  room.write(row, { loot: index, dry });
}
