import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input, output, viewChild } from '@angular/core';
import { AchievementWindow } from './achievement-window';
import type { Spot } from './aiming';
import { ArenaView } from './arena-view';
import { Around } from './around';
import { Figures } from './figures';
import { Flourishes } from './flourishes';
import { Hud } from './hud';
import { ACHIEVEMENTS, LevelLine } from './level-line';
import { MONEY, MoneyLine } from './money-line';
import { MoneyWindow } from './money-window';
import { QuestLines, QUESTS } from './quest-lines';
import { QuestWindow } from './quest-window';
import { Roster } from './roster';
import type { SeatState } from './seat-state';
import { SkillWindow } from './skill-window';

/** What one seat sees: its arena as it was told, what it knows of itself, and what it can ask for. */
@Component({
  selector: 'ee-seat-screen',
  imports: [
    AchievementWindow,
    ArenaView,
    Around,
    Figures,
    Flourishes,
    Hud,
    LevelLine,
    MoneyLine,
    MoneyWindow,
    NgTemplateOutlet,
    QuestLines,
    QuestWindow,
    Roster,
    SkillWindow,
  ],
  templateUrl: './seat-screen.html',
  styleUrl: './seat-screen.scss',
  host: { '[class]': 'layout()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SeatScreen {
  readonly seat = input.required<SeatState>();
  /** What its arena is, for who hears the page. */
  readonly label = input.required<string>();
  /** How much of a page it has: all of it, or a half or a quarter beside others. */
  readonly layout = input<'whole' | 'half' | 'quarter'>('whole');
  /** A point of its arena was clicked. */
  readonly pointed = output<Spot>();
  private readonly arena = viewChild.required(ArenaView);
  protected readonly ACHIEVEMENTS = ACHIEVEMENTS;
  protected readonly MONEY = MONEY;
  protected readonly QUESTS = QUESTS;
  protected readonly views = computed(() => this.seat().views);
  /** What lies over the arena leaves no room for more. */
  protected readonly busy = computed(() => this.views().around.now()?.box !== undefined || this.views().around.now()?.talk !== undefined);

  /** Draws what is known. Returns whether there was something new. */
  paint(): boolean {
    return this.seat().paint(this.arena());
  }
}
