import { conceptState } from '../../world/concept-state.js';
import { type CompiledThen } from '../../ruleset/context.js';
import { type FormulaFunction } from '../../formula/compile.js';
import { type Speaker } from './schema.js';
import { type TableOf } from '../../world/define-table.js';
import { type choicesTable, type talksTable, type talksWaitingTable } from './tables.js';

export interface Dialogues {
  readonly list: readonly Dialogue[];
  readonly talks: TableOf<typeof talksTable>;
  readonly waiting: TableOf<typeof talksWaitingTable>;
  readonly offered: TableOf<typeof choicesTable>;
}

export interface Dialogue {
  readonly id: string;
  /** Who says what a character would, where there is none. */
  readonly voice: string;
  readonly within: number;
  readonly lines: readonly Line[];
  readonly luck: number;
}

export interface Line extends Choice {
  readonly id: string;
  readonly speaker: Speaker;
  readonly ticks: number;
  readonly choices: readonly Choice[];
}

export interface Choice {
  readonly text: string;
  readonly test: FormulaFunction | undefined;
  readonly then: CompiledThen;
  /** The position of the line that follows; -1 for none. */
  readonly next: number;
}

/** What the dialogues concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const dialogues = conceptState<readonly Dialogue[], Dialogues>('dialogues');
