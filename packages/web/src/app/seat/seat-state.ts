import { computed, type Signal, signal } from '@angular/core';
import type { Announcement, Copy, PredictedUse } from '@eager-ember/core';
import { achievementsOf } from './achievements';
import { aimed, type Spot } from './aiming';
import type { ArenaView } from './arena-view';
import { type OwnCast, ownCast } from './casting';
import type { Ask } from './controls';
import { hudOf, teamOf } from './display';
import { economyOf } from './economy';
import { levelsOf } from './levels';
import { MONEY, opensByItself } from './money-line';
import { questsOf } from './quests';
import type { RoomLink } from './room-link';
import { rosterOf } from './roster';
import { surroundingsOf } from './surroundings';

/** Something that a seat is shown, read from what it was told. */
function view<V>(of: (copy: Copy, row: number) => V) {
  const now = signal<V | undefined>(undefined);
  return { now: now.asReadonly(), read: (copy: Copy, row: number) => now.set(of(copy, row)) };
}

/** The screen of a seat: what it shows at the moment, and what is asked there. The same in Playtest and behind a join link. */
export class SeatState {
  /** What it is shown of what it was told: each read from its copy with every frame. */
  readonly views = {
    hud: view(hudOf),
    around: view(surroundingsOf),
    levels: view(levelsOf),
    roster: view(rosterOf),
    achievements: view(achievementsOf),
    quests: view(questsOf),
    economy: view(economyOf),
    team: view((copy, row) => teamOf(copy, row)?.label),
  };
  /** What its actor is casting, or expects to be. */
  readonly cast = signal<OwnCast | undefined>(undefined);
  readonly uses = signal<readonly PredictedUse[]>([]);
  readonly flourishes = signal<readonly Announcement[]>([]);
  /** The window that is open: that of a skill tree by its id, or of something else by its name. */
  readonly open = signal('');
  readonly tree = computed(() => this.views.levels.now()?.trees.find(({ id }) => id === this.open()));
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

  /** What a window shows, where it is that one that is open. */
  shownIn<T>(name: string, view: T): T | undefined {
    return this.open() === name ? view : undefined;
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

  /** Takes a key that is for the screen itself; true where it was one. */
  key(name: string): boolean {
    if (name !== 'm' || !this.views.economy.now()) return false;
    this.toggle(MONEY);
    return true;
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
    const { economy } = this.views;
    const before = economy.now();
    for (const one of Object.values(this.views)) one.read(copy, row);
    if (this.open() === '' && opensByItself(before, economy.now())) this.open.set(MONEY);
  }
}
