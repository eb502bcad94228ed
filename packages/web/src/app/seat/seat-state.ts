import { computed, type Signal, signal, untracked, type WritableSignal } from '@angular/core';
import type { Announcement, Copy, PredictedUse } from '@eager-ember/core';
import { aimed, type Spot } from './aiming';
import type { ArenaView } from './arena-view';
import { type OwnCast, ownCast } from './casting';
import type { Ask } from './controls';
import type { Shown } from './panel';
import { PANELS } from './panels';
import type { RoomLink } from './room-link';

/** The windows that keys open. */
const WINDOWS = PANELS.flatMap(({ window }) => (window ? [window] : []));

/** The screen of a seat: what it shows at the moment, and what is asked there. The same in Playtest and behind a join link. */
export class SeatState {
  /** What it is shown of what it was told: read from its copy with every frame. */
  private readonly views = new Map<Shown<unknown>, WritableSignal<unknown>>();
  /** What its actor is casting, or expects to be. */
  readonly cast = signal<OwnCast | undefined>(undefined);
  readonly uses = signal<readonly PredictedUse[]>([]);
  readonly flourishes = signal<readonly Announcement[]>([]);
  /** The window that is open: that of a skill tree by its id, or of something else by its name. */
  readonly open = signal('');
  /** The row of its actor, once it is known. */
  readonly row: Signal<number | undefined> = computed(() => this.link.welcome()?.row);
  /** Where the pointer is in its arena. */
  spot: Spot | undefined;
  /** How many frames had come in when it was last drawn. */
  private frames = 0;

  constructor(readonly link: RoomLink) {}

  /** Whether it shows anything yet of what it was told: a welcome alone tells of nobody. */
  get shows(): boolean {
    return this.frames > 0;
  }

  /** What it is shown, as it was told last; nothing before it was told anything. */
  shown<V>(of: Shown<V>): V | undefined {
    let view = this.views.get(of) as WritableSignal<V | undefined> | undefined;
    if (!view) {
      const row = untracked(this.row);
      view = signal(this.shows && this.link.copy && row !== undefined ? of(this.link.copy, row) : undefined);
      this.views.set(of, view);
    }
    return view();
  }

  /** What a window shows, where it is the one that is open. */
  shownIn<V>(name: string, of: Shown<V>): V | undefined {
    return this.open() === name ? this.shown(of) : undefined;
  }

  /** Opens a window, or closes it where it is open. */
  toggle(name: string): void {
    this.open.update((open) => (open === name ? '' : name));
  }

  ask(asked: Ask): void {
    this.link.ask(asked);
  }

  /** What a use is aimed at, by where the pointer is. */
  aim(ability: string): Readonly<Record<string, unknown>> {
    return aimed(this.link.copy, ability, this.spot, this.row());
  }

  use(ability: string): void {
    this.ask({ do: 'use', ability, ...this.aim(ability) });
  }

  /** Takes a key that opens or closes a window; true where it was one. */
  key(name: string): boolean {
    const window = WINDOWS.find(({ key }) => key === name);
    if (!window || this.shown(window.shows) === undefined) return false;
    this.toggle(window.name);
    return true;
  }

  /** What a key asks for, where it is one of its panels'. */
  asks(key: string): Ask | undefined {
    for (const panel of PANELS) {
      const asked = panel.asks?.(key, this);
      if (asked) return asked;
    }
    return undefined;
  }

  /** Draws what is known, and what is expected to come of what was asked. Returns whether there is something new to tell. */
  paint(arena: ArenaView | undefined): boolean {
    const { link } = this;
    const row = this.row();
    if (!link.copy || row === undefined) return false;
    arena?.draw(link.copy, link.prediction);
    const uses = link.prediction?.uses ?? [];
    if (uses.length > 0 || this.uses().length > 0) this.uses.set([...uses]);
    const own = ownCast(link.copy, row, link.news(), uses);
    if (own?.text !== this.cast()?.text || own?.share !== this.cast()?.share || own?.look !== this.cast()?.look) this.cast.set(own);
    if (link.frames === this.frames) return false;
    this.frames = link.frames;
    this.read(link.copy, row);
    return true;
  }

  private read(copy: Copy, row: number): void {
    const shown = this.link.flourishes();
    if (shown.length > 0 || this.flourishes().length > 0) this.flourishes.set(shown);
    const before = WINDOWS.map(({ shows }) => this.shown(shows));
    for (const [of, view] of this.views) view.set(of(copy, row));
    const opened = WINDOWS.find((window, n) => window.opensByItself(before[n], this.shown(window.shows)));
    if (this.open() === '' && opened) this.open.set(opened.name);
  }
}
