import type { Copy } from '@eager-ember/core';
import { displayOf, rowOf } from './display';

/** An achievement as its player finds it. */
export interface HonourView {
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

export interface HonoursView {
  readonly list: readonly HonourView[];
  /** Secret ones that are not found yet. */
  readonly hidden: number;
  readonly done: number;
  readonly all: number;
}

/** Reads an actor's achievements from a copy; undefined where it was told of none. */
export function honoursOf(copy: Copy, row: number): HonoursView | undefined {
  const { achievements } = displayOf(copy.schema);
  if (!achievements || achievements.list.length + achievements.secrets === 0) return undefined;
  const number = (column: string) => copy.value('achievements', row, column) as number | undefined;
  const open = achievements.list.flatMap((one): readonly HonourView[] => {
    const have = number(one.id);
    if (have === undefined) return [];
    const done = number(`${one.id}.done`) === 1;
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
  const found = copy
    .rows('secretsFound')
    .filter((at) => rowOf(Number(copy.value('secretsFound', at, 'actor') ?? -1)) === row)
    .map((at): HonourView => {
      const text = (column: string) => String(copy.value('secretsFound', at, column) ?? '');
      return {
        key: `found ${at}`,
        label: text('label'),
        text: text('text'),
        have: 1,
        need: 1,
        done: true,
        points: Number(copy.value('secretsFound', at, 'points') ?? 0),
        hud: false,
      };
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
