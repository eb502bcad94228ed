import type { Copy } from '@eager-ember/core';
import { actorsOf, displayOf } from './display';

export interface Spot {
  readonly x: number;
  readonly y: number;
}

/** Near enough to a body to mean it, in arena units. */
const MEANT = 14;

/** What a use is aimed at: whom or where the pointer is, as the ability asks for it; nothing where it is nowhere in the arena. */
export function aimed(
  copy: Copy | undefined,
  ability: string,
  spot: Spot | undefined,
  own: number | undefined,
): Readonly<Record<string, unknown>> {
  const aim = copy && displayOf(copy.schema).abilities.find(({ id }) => id === ability)?.aim;
  if (!copy || !spot || aim === undefined || aim === 'self' || aim === 'nearest') return {};
  const round = (value: number) => Math.round(value * 10) / 10;
  if (aim !== 'actor') return { x: round(spot.x), y: round(spot.y) };
  const [nearest] = actorsOf(copy)
    .filter(({ row }) => row !== own)
    .map((actor) => ({ row: actor.row, gap: Math.hypot(actor.x - spot.x, actor.y - spot.y) - actor.radius }))
    .sort((a, b) => a.gap - b.gap);
  return nearest && nearest.gap <= MEANT ? { target: nearest.row } : {};
}
