import { conceptState } from '../../world/concept-state.js';
import { type CompiledQuests } from './compile.js';
import { type QuestCells, type questLinesTable, type questLogTable } from './tables.js';
import { type TableOf } from '../../world/define-table.js';

/** The quests' state of a world. */
export interface Quests extends CompiledQuests {
  readonly cells: readonly QuestCells[];
  readonly log: TableOf<typeof questLogTable>;
  readonly lines: TableOf<typeof questLinesTable>;
  readonly lookTimer: number;
}

/** What the quests concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const quests = conceptState<CompiledQuests, Quests>('quests');
