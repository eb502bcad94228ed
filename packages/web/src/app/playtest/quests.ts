import { type Copy, QUEST_OFFERED, type Standing, STANDINGS, stretch } from '@eager-ember/core';
import { rowOf } from './display';

/** A line of a quest's current step. */
export interface QuestLineView {
  readonly text: string;
  readonly done: boolean;
  readonly optional: boolean;
}

/** A quest as its player was told of it. */
export interface QuestView {
  readonly id: string;
  readonly label: string;
  readonly text: string;
  readonly rewards: string;
  readonly standing: Standing | 'offered';
  readonly step: string;
  readonly lines: readonly QuestLineView[];
  /** Time that is left of it; nothing where it has no limit. */
  readonly left: string;
  /** What can be said of it besides: how often it was done, when it is there again. */
  readonly besides: string;
  readonly mayAbandon: boolean;
  readonly mayTakeUp: boolean;
}

export interface QuestsView {
  readonly offered: readonly QuestView[];
  readonly active: readonly QuestView[];
  readonly past: readonly QuestView[];
}

const PAST: Readonly<Partial<Record<Standing | 'offered', string>>> = {
  done: 'done',
  failed: 'failed',
  declined: 'declined',
  abandoned: 'given up',
};

/** Reads an actor's quests from a copy; undefined where it was told of none. */
export function questsOf(copy: Copy, row: number): QuestsView | undefined {
  const own = (table: string) => copy.rows(table).filter((at) => rowOf(Number(copy.value(table, at, 'actor') ?? -1)) === row);
  const log = own('questLog');
  if (log.length === 0) return undefined;
  const lines = own('questLines').map((at) => {
    const cell = (column: string) => copy.value('questLines', at, column);
    const [have, need] = [Number(cell('have') ?? 0), Number(cell('need') ?? 1)];
    return {
      quest: String(cell('id')),
      order: Number(cell('order') ?? 0),
      text: String(cell('line')).replaceAll('{have}', String(have)).replaceAll('{need}', String(need)),
      done: have >= need,
      optional: cell('optional') === 1,
    };
  });
  const all = log.map((at): QuestView => {
    const cell = (column: string) => copy.value('questLog', at, column);
    const number = Number(cell('standing') ?? 0);
    const standing = number === QUEST_OFFERED ? 'offered' : STANDINGS[number];
    const [until, times, may] = [Number(cell('until') ?? 0), Number(cell('times') ?? 0), cell('may') === 1];
    const id = String(cell('id'));
    const on = standing === 'active' || standing === 'ready';
    return {
      id,
      label: String(cell('label')),
      text: String(cell('text')),
      rewards: String(cell('rewards')),
      standing,
      step: String(cell('step')),
      lines: lines
        .filter(({ quest }) => quest === id)
        .sort((a, b) => a.order - b.order)
        .map(({ text, done, optional }) => ({ text, done, optional })),
      left: until > 0 ? `${Math.max(0, Math.ceil((until - copy.tick) / copy.schema.tickRate))} s` : '',
      besides: besides(copy, standing, times, Number(cell('again') ?? 0)),
      mayAbandon: on && may,
      mayTakeUp: !on && standing !== 'offered' && may,
    };
  });
  const of = (...standings: readonly QuestView['standing'][]) => all.filter(({ standing }) => standings.includes(standing));
  return { offered: of('offered'), active: of('active', 'ready'), past: of('done', 'failed', 'declined', 'abandoned') };
}

function besides(copy: Copy, standing: QuestView['standing'], times: number, again: number): string {
  const later = again - secondsOn(copy);
  return [PAST[standing] ?? '', times > 1 ? `${times} times` : '', standing === 'done' && later > 0 ? `again in ${stretch(later)}` : '']
    .filter(Boolean)
    .join(', ');
}

/** The time on the server, as the copy was told of it. */
function secondsOn(copy: Copy): number {
  const [row] = copy.rows('calendar');
  if (row === undefined) return copy.tick / copy.schema.tickRate;
  const cell = (column: string) => Number(copy.value('calendar', row, column) ?? 0);
  return cell('now') + cell('ahead') + (copy.tick - cell('at')) / copy.schema.tickRate;
}
