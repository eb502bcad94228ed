import type { Amount, CompileContext } from '../../ruleset/context.js';
import type { Path } from '../../ruleset/problem.js';
import type { Who } from '../actors/index.js';
import type { DeliveryEntry } from './schema.js';

/** Something that flies. */
export interface Projectile {
  readonly by: 'projectile';
  readonly count: number;
  /** Degrees over which several are spread. */
  readonly spread: number;
  readonly speed: Amount;
  readonly radius: number;
  /** Seconds. */
  readonly lifetime: Amount;
  readonly pierce: number;
  readonly homing: boolean;
  readonly who: Who;
}

/** A circle of ground, some time from now and for some time. Times are in seconds. */
export interface Area {
  readonly by: 'area';
  readonly radius: Amount;
  readonly delay: Amount;
  readonly lasts: Amount;
  /** Ticks between two times that it does to whom it holds; 0 where it does once. */
  readonly every: number;
  readonly who: Who;
}

export type Delivery = Projectile | Area;

/** @param angle the opening of the cone that it is aimed into, in degrees; 0 where it is aimed elsewhere */
export function compileDelivery(context: CompileContext, entry: DeliveryEntry, path: Path, angle: number): Delivery {
  const who = entry.who ?? 'foes';
  if (entry.by === 'area')
    return {
      by: 'area',
      radius: context.amount(entry.radius, [...path, 'radius']),
      delay: context.seconds(entry.delay ?? 0, [...path, 'delay']),
      lasts: context.seconds(entry.lasts ?? 0, [...path, 'lasts']),
      every: entry.every === undefined ? 0 : Math.max(1, context.ticks(entry.every)),
      who,
    };
  return {
    by: 'projectile',
    count: entry.count,
    spread: entry.spread ?? angle,
    speed: context.amount(entry.speed, [...path, 'speed']),
    radius: entry.radius,
    lifetime: context.seconds(entry.lifetime, [...path, 'lifetime']),
    pierce: entry.pierce,
    homing: entry.homing ?? false,
    who,
  };
}
