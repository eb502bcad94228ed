import { achievementsTable, type Copy, secretsFoundTable } from '@eager-ember/core';
import { displayOf } from './display';

/** An achievement as its player finds it. */
export interface AchievementView {
  readonly key: string;
  readonly label: string;
  readonly text: string;
  readonly have: number;
  readonly need: number;
  readonly done: boolean;
  readonly points: number;
  /** Told on the display all the while. */
  readonly hud: boolean;
}

export interface AchievementsView {
  readonly list: readonly AchievementView[];
  /** Secret ones that are not found yet. */
  readonly hidden: number;
  readonly done: number;
  readonly all: number;
}

/** Reads an actor's achievements from a copy; undefined where it was told of none. */
export function achievementsOf(copy: Copy, row: number): AchievementsView | undefined {
  const { achievements } = displayOf(copy.schema);
  if (!achievements || achievements.list.length + achievements.secrets === 0) return undefined;
  const told = copy.entries(achievementsTable);
  const open = achievements.list.flatMap((one): readonly AchievementView[] => {
    const have = told.value(row, one.id);
    if (have === undefined) return [];
    const done = told.value(row, one.id, 'done') === 1;
    return [
      {
        key: one.id,
        label: one.label,
        text: one.text,
        have: Math.min(have, one.count),
        need: one.count,
        done,
        points: one.points,
        hud: one.hud && !done,
      },
    ];
  });
  const secrets = copy.of(secretsFoundTable);
  const found = secrets.rowsOf(row).map((at): AchievementView => {
    const { label = '', text = '', points = 0 } = secrets.row(at);
    return { key: `found ${at}`, label, text, have: 1, need: 1, done: true, points, hud: false };
  });
  const list = [...open, ...found];
  return list.length === 0
    ? undefined
    : {
        list,
        hidden: achievements.secrets - found.length,
        done: list.filter(({ done }) => done).length,
        all: achievements.list.length + achievements.secrets,
      };
}
