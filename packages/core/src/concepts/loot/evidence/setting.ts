import { actorOfSeat } from '../../seats/index.js';
import { loot } from '../state.js';
import { type LootTable, type WeightedDrop } from '../compile.js';
import { type Opener } from '../roll.js';
import { levelOf, tableOf, tracks } from '../../tracks/index.js';
import { labelOf, positionOf, type Rules } from '../../../ruleset/rules.js';
import { readRuleset } from '../../../ruleset/compile.js';
import type { Command } from '../../../world/commands.js';
import { World } from '../../../world/world.js';
import { SEAT } from '../../situations/play.js';
import { valueInRow } from '../../attributes/index.js';

/** Whom chances are asked for: attributes and levels by id; what is not said is as a player begins. */
export interface Roller {
  readonly attributes?: Readonly<Record<string, number>>;
  readonly levels?: Readonly<Record<string, number>>;
}

/** Something that the chances of a table follow, and what it is for the one who is asked for. */
export interface Read {
  readonly of: 'attributes' | 'levels';
  readonly id: string;
  readonly label: string;
  readonly value: number;
}

export interface Setting {
  readonly rules: Rules;
  readonly world: World;
  readonly opener: Opener;
  readonly reads: readonly Read[];
}

const AMOUNTS = { attributes: 'attributes', tracks: 'levels' } as const;

/** The tables that opening one can open, itself first. */
export function tablesIn(list: readonly LootTable[], index: number): readonly LootTable[] {
  const found = new Set<number>([index]);
  for (const at of found) for (const drop of [...list[at].always, ...list[at].entries]) if (drop.what === 'table') found.add(drop.index);
  return [...found].map((at) => list[at]);
}

/** A world in which one player alone opens a table, as much of it as a roller is said to have. */
export function settingFor(whole: Rules, id: string, roller: Roller, seed = 1): Setting | undefined {
  const index = loot.of(whole).list.findIndex((table) => table.id === id);
  if (index < 0) return undefined;
  const arena = whole.document['arena'] as Readonly<Record<string, unknown>> | undefined;
  // Nothing that stands in the arena has a part in it.
  const rules = readRuleset({ ...whole.document, ...(arena && { arena: { ...arena, placed: [] } }), situations: [] }).rules ?? whole;
  const world = World.start(rules, seed);
  const poke = (action: Readonly<Record<string, unknown>>): Command => ({ kind: 'poke', args: { seat: SEAT, action } });
  world.step([{ kind: 'join', args: { seat: SEAT } }]);
  for (const [track, level] of Object.entries(roller.levels ?? {})) {
    const known = tracks.of(rules).list.find((one) => one.id === track);
    const amount = known && tableOf(rules, known)[Math.max(1, Math.min(known.levels, Math.floor(level))) - 1].total;
    if (amount) world.step([poke({ do: 'award', track, amount })]);
  }
  // Levels may have brought some of them: what is said of attributes holds.
  for (const [attribute, value] of Object.entries(roller.attributes ?? {})) world.step([poke({ do: 'set', attribute, value })]);
  const player = actorOfSeat(world, SEAT);
  const opener: Opener = { parties: { owner: player, source: player, target: player }, whose: player, streaks: player };
  return { rules, world, opener, reads: readsOf(rules, world, index, player, roller) };
}

/** What formulas of a table, and of those in it, read of the one who rolls. */
function readsOf(rules: Rules, world: World, index: number, player: number, roller: Roller): readonly Read[] {
  const { list, entries } = loot.of(rules);
  const found = new Map<string, Read>();
  const note = (chapter: string, id: string) => {
    const of = AMOUNTS[chapter as keyof typeof AMOUNTS];
    if (!of || found.has(`${of}/${id}`)) return;
    const row = world.actors.rowOf(player);
    const value = chapter === 'tracks' ? levelOf(world, player, positionOf(rules, chapter, id)) : valueInRow(world, row, id);
    found.set(`${of}/${id}`, { of, id, label: labelOf(rules, chapter, id), value: roller[of]?.[id] ?? value });
  };
  for (const table of tablesIn(list, index)) {
    const formulas = [...table.always, ...table.entries].flatMap((drop) => [
      drop.quantity.references,
      ...('weight' in drop ? [(drop as WeightedDrop).weight.references] : []),
    ]);
    for (const { chapter, id, party } of [table.rolls.references, ...formulas].flat()) if (party !== 'target') note(chapter, id);
    for (const { if: test } of [...entries[table.index].always, ...entries[table.index].entries])
      for (const name of test?.match(/[a-z][A-Za-z0-9]*/g) ?? [])
        for (const chapter of ['attributes', 'tracks']) if (rules.chapters.get(chapter)?.ids.includes(name)) note(chapter, name);
  }
  return [...found.values()];
}
