import { calendarTable, type Copy, questLinesTable, questLogTable, type Standing, stretch } from '@eager-ember/core';

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
  const log = copy.of(questLogTable).ownedBy(row);
  if (log.length === 0) return undefined;
  const told = copy.of(questLinesTable).ownedBy(row);
  const lines = told.map(({ id: quest = '', order = 0, line = '', have = 0, need = 1, optional = false }) => ({
    quest,
    order,
    text: line.replaceAll('{have}', String(have)).replaceAll('{need}', String(need)),
    done: have >= need,
    optional,
  }));
  const all = log.map((one): QuestView => {
    const { id = '', label = '', text = '', rewards = '', step = '', standing = 'none' } = one;
    const { until = 0, times = 0, again = 0, may = false } = one;
    const on = standing === 'active' || standing === 'ready';
    return {
      id,
      label,
      text,
      rewards,
      standing,
      step,
      lines: lines
        .filter(({ quest }) => quest === id)
        .sort((a, b) => a.order - b.order)
        .map(({ text: words, done, optional }) => ({ text: words, done, optional })),
      left: until > 0 ? `${Math.max(0, Math.ceil((until - copy.tick) / copy.schema.tickRate))} s` : '',
      besides: besides(copy, standing, times, again),
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
  const [clock] = copy.of(calendarTable).all();
  if (clock === undefined) return copy.tick / copy.schema.tickRate;
  const { now = 0, ahead = 0, at = 0 } = clock;
  return now + ahead + (copy.tick - at) / copy.schema.tickRate;
}
