import { conceptState } from '../../world/concept-state.js';
import { type Amount, type CompiledPattern } from '../../ruleset/context.js';
import { type PlacedAs } from '../arena/schema.js';
import { type SpawnerEntry } from './schema.js';
import { type TableOf } from '../../world/define-table.js';
import { type spawnersTable } from './tables.js';

export interface CompiledSpawners {
  readonly list: readonly Spawner[];
  /** By their positions among the placed things. */
  readonly byPlace: ReadonlyMap<number, Spawner>;
  /** Those that wait for an event, by its name. */
  readonly waiting: ReadonlyMap<string, readonly Spawner[]>;
}

export interface Spawner {
  readonly index: number;
  readonly thing: PlacedAs<'spawner'>;
  readonly id: string;
  readonly what: readonly Made[];
  readonly is: SpawnerEntry['when']['is'];
  /** Ticks between two of its times, or after the last of a wave has gone. */
  readonly ticks: number;
  readonly event: CompiledPattern | undefined;
  readonly count: Amount;
  readonly most: number;
  readonly near: number;
  readonly spread: number;
  readonly luck: { readonly what: number; readonly x: number; readonly y: number };
  /** What its steps are counted for. */
  readonly rule: number;
}

export interface Made {
  readonly weight: Amount;
  readonly actor: number;
  readonly team: number;
  readonly pickup: number;
}

export interface Spawners extends CompiledSpawners {
  readonly table: TableOf<typeof spawnersTable>;
}

/** What the spawners concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const spawners = conceptState<CompiledSpawners, Spawners>('spawners');
