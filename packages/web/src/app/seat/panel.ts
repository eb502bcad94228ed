import type { Type } from '@angular/core';
import type { Copy } from '@eager-ember/core';
import type { Ask } from './controls';
import type { SeatState } from './seat-state';

/** How much of a page a seat's screen has: all of it, or a half or a quarter beside others. */
export type Layout = 'whole' | 'half' | 'quarter';
/**
 * Where on the screen a panel stands: in the arena, under it as figures, as a window over it, beside it, among what there is to do, as
 * a door to a window, among what is so for long, over everything, or in the title, behind the name of the seat.
 */
export type Place = 'arena' | 'figures' | 'window' | 'side' | 'task' | 'door' | 'standing' | 'over' | 'title';

/** Something that a seat is shown, read from what it was told. */
export type Shown<V> = (copy: Copy, row: number) => V;

/** A window of a seat that a key opens and closes. */
export interface KeyWindow {
  readonly key: string;
  /** What {@link SeatState.open} is while it is open. */
  readonly name: string;
  /** What it shows; nothing where there is nothing to open. */
  readonly shows: Shown<unknown>;
  /** Whether it opens by itself, as what it shows becomes something else. */
  opensByItself(before: unknown, now: unknown): boolean;
}

/**
 * A panel on the screen of a seat. Where its component says `ask`, `use`, `toggled` or `closed`, the seat asks for that, uses the
 * ability, opens or closes the window of that name, or closes the one that is open.
 */
export interface SeatPanel {
  readonly place: Place;
  readonly type: Type<unknown>;
  /** The component's inputs; always the same ones. */
  inputs(seat: SeatState, layout: Layout): Readonly<Record<string, unknown>>;
  /** What a key asks for, where it is one of the panel's. */
  asks?(key: string, seat: SeatState): Ask | undefined;
  /** Whether it lies over the arena and leaves no room for more. */
  covers?(seat: SeatState): boolean;
  readonly window?: KeyWindow;
}

/** A window of something that is shown, with the type of that. */
export function keyWindow<V>(window: {
  readonly key: string;
  readonly name: string;
  readonly shows: Shown<V>;
  readonly opensByItself: (before: V, now: V) => boolean;
}): KeyWindow {
  return window as KeyWindow;
}
