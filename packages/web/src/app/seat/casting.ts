import { actorTable, type Announcement, type CastPhase, castsTable, type Copy, type PredictedUse, rowInHandle } from '@eager-ember/core';
import { displayOf } from './display';

/** What somebody is doing that takes time, as far as a copy was told. */
export interface CastView {
  readonly row: number;
  readonly label: string;
  readonly phase: CastPhase;
  /** How much of it has passed, 0 to 1. */
  readonly share: number;
  /** Seconds left. */
  readonly left: number;
  readonly aimX: number;
  readonly aimY: number;
}

/** All that is being cast, channelled or recovered from, by the row of who does it. */
export function castsOf(copy: Copy): ReadonlyMap<number, CastView> {
  const { abilities } = displayOf(copy.schema);
  const casts = new Map<number, CastView>();
  for (const { actor = 0, ability: id, phase = 'casting', began = 0, ends = 0, aimX = 0, aimY = 0 } of copy.of(castsTable).all()) {
    const row = rowInHandle(actor);
    casts.set(row, {
      row,
      label: abilities.find((ability) => ability.id === id)?.label ?? '',
      phase,
      share: ends > began ? Math.min(1, Math.max(0, (copy.tick - began) / (ends - began))) : 1,
      left: Math.max(0, (ends - copy.tick) / copy.schema.tickRate),
      aimX,
      aimY,
    });
  }
  return casts;
}

/** How long it stays on the screen that something broke, in seconds. */
const BROKEN_SHOWN = 1.6;

/** What of an actor's broke lately, in the words of the announcement. */
export function brokenOf(copy: Copy, news: readonly Announcement[], name: string): string {
  const broken = news.findLast((item) => item.event === 'castBroken' && item.who === name);
  return broken && broken.tick > copy.tick - BROKEN_SHOWN * copy.schema.tickRate ? broken.text : '';
}

/** A seat's own cast, or what it expects to have begun before it was told. */
export interface OwnCast {
  readonly text: string;
  readonly share: number;
  readonly look: CastPhase | 'expected' | 'broken';
}

export function ownCast(copy: Copy, row: number, news: readonly Announcement[], uses: readonly PredictedUse[]): OwnCast | undefined {
  const cast = castsOf(copy).get(row);
  if (cast)
    return {
      text: `${cast.label} ${cast.left.toFixed(1)} s`,
      share: cast.phase === 'channelling' ? 1 - cast.share : cast.share,
      look: cast.phase,
    };
  const { abilities } = displayOf(copy.schema);
  const waiting = uses.find((use) => use.state === 'waiting');
  const label = abilities.find((ability) => ability.id === waiting?.ability)?.label;
  if (waiting && label !== undefined) return { text: `${label}, not confirmed yet`, share: 1, look: 'expected' };
  const broken = brokenOf(copy, news, copy.of(actorTable).row(row).name ?? '');
  return broken ? { text: broken, share: 1, look: 'broken' } : undefined;
}
