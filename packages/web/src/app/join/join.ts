import type { HttpErrorResponse } from '@angular/common/http';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  type OnDestroy,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import type { Announcement, PredictedUse } from '@eager-ember/core';
import { firstValueFrom } from 'rxjs';
import { aimed, type Spot } from '../playtest/aiming';
import { ArenaView } from '../playtest/arena-view';
import { Around } from '../playtest/around';
import { type OwnCast, ownCast } from '../playtest/casting';
import { Controls } from '../playtest/controls';
import { hudOf, type HudView, teamOf } from '../playtest/display';
import { Flourishes } from '../playtest/flourishes';
import { levelsOf, type LevelsView } from '../playtest/levels';
import { ACHIEVEMENTS, LevelLine } from '../playtest/level-line';
import { AchievementWindow } from '../playtest/achievement-window';
import { achievementsOf, type AchievementsView } from '../playtest/achievements';
import { Hud } from '../playtest/hud';
import { Roster, rosterOf, type RosterView } from '../playtest/roster';
import { economyOf, type EconomyView } from '../playtest/economy';
import { MONEY, MoneyLine, showStatement } from '../playtest/money-line';
import { MoneyWindow } from '../playtest/money-window';
import { QuestLines, QUESTS } from '../playtest/quest-lines';
import { QuestWindow } from '../playtest/quest-window';
import { questsOf, type QuestsView } from '../playtest/quests';
import { SkillWindow } from '../playtest/skill-window';
import { type SurroundingsView, surroundingsOf } from '../playtest/surroundings';
import { RoomLink } from '../playtest/room-link';
import { Api, failureOf, whyGone } from '../shared/api';
import { isTyping } from '../shared/keys';
import { Theme } from '../shared/theme';

/** One seat in a browser of its own: opened by a join link, driven by keys or by pointing. */
@Component({
  selector: 'ee-join',
  imports: [
    ArenaView,
    Around,
    Flourishes,
    LevelLine,
    AchievementWindow,
    Hud,
    MoneyLine,
    MoneyWindow,
    QuestLines,
    QuestWindow,
    Roster,
    SkillWindow,
  ],
  template: `
    <header>
      <img src="mark.svg" alt="" width="22" height="18" />
      @if (link()?.welcome(); as welcome) {
        <b class="who">{{ welcome.seat }}</b>
        @if (team()) {
          <span class="soft">crew {{ team() }}</span>
        }
        <span class="soft">{{ welcome.ruleset }} · room {{ welcome.room }}</span>
      }
    </header>
    <main>
      @if (failure()) {
        <p class="refusal" role="alert">{{ failure() }}</p>
      } @else if (link()) {
        @if (link()!.state() === 'lost') {
          <p class="refusal" role="alert">{{ link()!.lostWords() }}</p>
        }
        @if (link()!.word(); as word) {
          <p class="refusal" role="status">{{ word }}</p>
        }
        <div class="screen">
          <ee-arena label="The arena as your seat was told" [marked]="link()!.welcome()?.row" (pointed)="link()!.ask({ do: 'moveTo', x: $event.x, y: $event.y })" (hovered)="spot = $event" />
          <ee-around [view]="around()" (ask)="link()!.ask($event)" />
          <ee-achievement-window [view]="openPanel() === ACHIEVEMENTS ? achievements() : undefined" (closed)="openPanel.set('')" />
          <ee-quest-window [view]="openPanel() === QUESTS ? quests() : undefined" (ask)="link()!.ask($event)" (closed)="openPanel.set('')" />
          <ee-money-window [view]="openPanel() === MONEY ? economy() : undefined" (ask)="link()!.ask($event)" (closed)="openPanel.set('')" />
          <ee-skill-window [tree]="tree()" (ask)="link()!.ask($event)" (closed)="openPanel.set('')" />
          <ee-flourishes [now]="flourishes()" />
        </div>
        @if (refusal()) {
          <p class="refusal" role="alert">{{ refusal() }}</p>
        }
        <ee-hud [view]="hud()" [cast]="cast()" [uses]="uses()" (use)="link()!.ask({ do: 'use', ability: $event })" />
        <ee-quest-lines [view]="quests()" [open]="openPanel()" (ask)="link()!.ask($event)" (toggled)="openPanel.set(openPanel() === $event ? '' : $event)" />
        <ee-money-line [view]="economy()" [open]="openPanel()" (toggled)="openPanel.set(openPanel() === $event ? '' : $event)" />
        <ee-level-line [achievements]="achievements()" [view]="levels()" [open]="openPanel()" (toggled)="openPanel.set(openPanel() === $event ? '' : $event)" />
        <ee-roster [view]="roster()" (ask)="link()!.ask($event)" />
        <p class="soft">Move with W A S D or the arrow keys, or point where to go. 1 to 6 use abilities where the pointer is, X breaks off. E asks of what is near, T takes all, Q leaves, O and N answer who offers a quest, M opens your money.</p>
      } @else {
        <p class="soft" role="status">Taking your seat …</p>
      }
    </main>
  `,
  styles: `
    header {
      display: flex;
      align-items: center;
      gap: 12px;
      min-height: 44px;
      padding: 6px 16px;
      border-bottom: 1px solid var(--hair);
      flex-wrap: wrap;
    }
    .screen {
      position: relative;
    }
    .who {
      color: var(--copy);
      font-size: 15px;
    }
    main {
      display: grid;
      gap: 12px;
      max-width: 900px;
      margin: 0 auto;
      padding: 14px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(document:keydown)': 'key($event)',
    '(document:keyup)': 'controls.key($event, false)',
    '(window:blur)': 'controls.release()',
  },
})
export class Join implements OnDestroy {
  readonly token = input.required<string>();
  private readonly api = inject(Api);
  protected readonly theme = inject(Theme);
  private readonly arena = viewChild(ArenaView);
  protected readonly link = signal<RoomLink | undefined>(undefined);
  protected readonly hud = signal<HudView | undefined>(undefined);
  protected readonly team = signal('');
  /** Not only with a frame: who has to go is told no more of them. */
  protected readonly refusal = computed(() => this.link()?.refusal() ?? '');
  protected readonly failure = signal('');
  protected readonly flourishes = signal<readonly Announcement[]>([]);
  protected readonly controls = new Controls(
    (input) => this.link()?.ask(input),
    () => this.hud()?.abilities.map((ability) => ability.id) ?? [],
    (ability) => aimed(this.link()?.copy, ability, this.spot, this.link()?.welcome()?.row),
    () => this.around(),
    () => this.quests()?.offered[0]?.id,
  );
  protected readonly levels = signal<LevelsView | undefined>(undefined);
  protected readonly ACHIEVEMENTS = ACHIEVEMENTS;
  protected readonly QUESTS = QUESTS;
  protected readonly MONEY = MONEY;
  protected readonly economy = signal<EconomyView | undefined>(undefined);
  protected readonly quests = signal<QuestsView | undefined>(undefined);
  protected readonly achievements = signal<AchievementsView | undefined>(undefined);
  protected readonly roster = signal<readonly RosterView[]>([]);
  /** The skill tree whose window is open. */
  protected readonly openPanel = signal('');
  protected readonly tree = computed(() => this.levels()?.trees.find(({ id }) => id === this.openPanel()));
  protected readonly around = signal<SurroundingsView | undefined>(undefined);
  protected readonly cast = signal<OwnCast | undefined>(undefined);
  protected readonly uses = signal<readonly PredictedUse[]>([]);
  /** Where the pointer is in the arena. */
  protected spot: Spot | undefined;
  private picture = 0;
  private frames = -1;

  constructor() {
    effect(() => {
      const token = this.token();
      untracked(() => void this.enter(token));
    });
  }

  private async enter(token: string): Promise<void> {
    try {
      const { room } = await firstValueFrom(this.api.seat(token));
      this.link.set(new RoomLink(RoomLink.address(room, { token }), () => whyGone(this.api.seat(token))));
      this.picture = requestAnimationFrame(() => this.paint());
    } catch (error) {
      const { title, detail } = failureOf(error as HttpErrorResponse);
      this.failure.set(`${title}. ${detail}`);
    }
  }

  private paint(): void {
    this.picture = requestAnimationFrame(() => this.paint());
    const link = this.link();
    const row = link?.welcome()?.row;
    if (!link?.copy || row === undefined) return;
    this.arena()?.draw(link.copy, link.prediction);
    const uses = link.prediction?.uses ?? [];
    if (uses.length > 0 || this.uses().length > 0) this.uses.set([...uses]);
    this.cast.set(ownCast(link.copy, row, link.news(), uses));
    if (link.frames === this.frames) return;
    this.frames = link.frames;
    const { copy } = link;
    const shown = link.flourishes();
    if (shown.length > 0 || this.flourishes().length > 0) this.flourishes.set(shown);
    this.hud.set(hudOf(copy, row));
    this.around.set(surroundingsOf(copy, row));
    this.levels.set(levelsOf(copy, row));
    this.roster.set(rosterOf(copy, row));
    this.achievements.set(achievementsOf(copy, row));
    this.quests.set(questsOf(copy, row));
    showStatement(this.economy, economyOf(copy, row), this.openPanel);
    this.team.set(teamOf(copy, row)?.label ?? '');
  }

  protected key(event: KeyboardEvent): void {
    if (this.controls.key(event, true) || event.repeat || event.ctrlKey || event.metaKey || event.altKey || isTyping(event)) return;
    if (event.key.toLowerCase() === 'm' && this.economy()) this.openPanel.update((open) => (open === MONEY ? '' : MONEY));
  }

  ngOnDestroy(): void {
    cancelAnimationFrame(this.picture);
    this.link()?.close();
  }
}
