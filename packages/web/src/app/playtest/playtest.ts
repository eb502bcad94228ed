import type { HttpErrorResponse } from '@angular/common/http';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  type OnDestroy,
  signal,
  untracked,
  viewChild,
  viewChildren,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { actorTable, PACES, type PredictedUse } from '@eager-ember/core';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api, failureOf, type RoomInfo } from '../shared/api';
import { isTyping } from '../shared/keys';
import { documentFeature } from '../store/document.reducer';
import { aimed, type Spot } from './aiming';
import { ArenaView } from './arena-view';
import { Around } from './around';
import { type OwnCast, ownCast } from './casting';
import { Controls } from './controls';
import { actorsOf, difference, hudOf, type HudView, teamOf, untold } from './display';
import { Figures } from './figures';
import { Flourishes } from './flourishes';
import { levelsOf, type LevelsView, type TreeView } from './levels';
import { ACHIEVEMENTS, LevelLine } from './level-line';
import { AchievementWindow } from './achievement-window';
import { achievementsOf, type AchievementsView } from './achievements';
import { Hud } from './hud';
import { JoinLink } from './join-link';
import { OpenRoom, type OpenSeat } from './open-room';
import { type Poke, Pokes } from './pokes';
import type { RoomLink } from './room-link';
import { type SurroundingsView, surroundingsOf } from './surroundings';
import { Roster, rosterOf, type RosterView } from './roster';
import { economyOf, type EconomyView } from './economy';
import { MONEY, MoneyLine, showStatement } from './money-line';
import { MoneyWindow } from './money-window';
import { QuestLines, QUESTS } from './quest-lines';
import { QuestWindow } from './quest-window';
import { questsOf, type QuestsView } from './quests';
import { SkillWindow } from './skill-window';
import { Trace } from './trace';
import { WhySheet } from './why';

/** A seat with what its screen shows at the moment. */
interface SeatView extends OpenSeat {
  readonly hud: ReturnType<typeof signal<HudView | undefined>>;
  readonly cast: ReturnType<typeof signal<OwnCast | undefined>>;
  readonly uses: ReturnType<typeof signal<readonly PredictedUse[]>>;
  /** How the copy stands towards the truth, in words. */
  readonly verdict: ReturnType<typeof signal<{ readonly agrees: boolean | undefined; readonly text: string }>>;
  readonly team: ReturnType<typeof signal<string>>;
  readonly around: ReturnType<typeof signal<SurroundingsView | undefined>>;
  readonly levels: ReturnType<typeof signal<LevelsView | undefined>>;
  readonly achievements: ReturnType<typeof signal<AchievementsView | undefined>>;
  readonly quests: ReturnType<typeof signal<QuestsView | undefined>>;
  readonly economy: ReturnType<typeof signal<EconomyView | undefined>>;
  readonly roster: ReturnType<typeof signal<readonly RosterView[]>>;
  /** The skill tree whose window is open. */
  readonly openPanel: ReturnType<typeof signal<string>>;
}

const VERDICT_EVERY_MS = 500;

/** One truth and several copies of it, side by side. */
@Component({
  selector: 'ee-playtest',
  imports: [
    ArenaView,
    Around,
    Figures,
    Flourishes,
    LevelLine,
    AchievementWindow,
    Hud,
    MoneyLine,
    MoneyWindow,
    Pokes,
    QuestLines,
    QuestWindow,
    Roster,
    JoinLink,
    SkillWindow,
    Trace,
    RouterLink,
    WhySheet,
  ],
  templateUrl: './playtest.html',
  styleUrl: './playtest.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'key($event, true)', '(document:keyup)': 'key($event, false)', '(window:blur)': 'controls.release()' },
})
export class Playtest implements OnDestroy {
  readonly room = input.required<string>();
  private readonly api = inject(Api);
  private readonly openRoom = inject(OpenRoom);
  private readonly router = inject(Router);
  private readonly arenas = viewChildren(ArenaView);
  private readonly pokeForm = viewChild<unknown, ElementRef<HTMLElement>>(Pokes, { read: ElementRef });
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly failure = signal('');
  protected readonly truth = computed(() => this.openRoom.session()?.truth);
  protected readonly seats = computed<readonly SeatView[]>(() =>
    (this.openRoom.session()?.seats ?? []).map((seat) => ({
      ...seat,
      hud: signal<HudView | undefined>(undefined),
      cast: signal<OwnCast | undefined>(undefined),
      uses: signal<readonly PredictedUse[]>([]),
      verdict: signal<{ agrees: boolean | undefined; text: string }>({ agrees: undefined, text: '' }),
      team: signal(''),
      around: signal<SurroundingsView | undefined>(undefined),
      levels: signal<LevelsView | undefined>(undefined),
      achievements: signal<AchievementsView | undefined>(undefined),
      quests: signal<QuestsView | undefined>(undefined),
      economy: signal<EconomyView | undefined>(undefined),
      roster: signal<readonly RosterView[]>([]),
      openPanel: signal(''),
    })),
  );
  protected readonly driven = signal('');
  protected readonly poking = signal(false);
  /** The row of the actor whose why sheet is open. */
  protected readonly asked = signal<number | undefined>(undefined);
  /** What that actor is called. */
  protected readonly askedName = computed(() => {
    this.tick();
    const [row, copy] = [this.asked(), this.truth()?.copy];
    return row === undefined ? '' : (copy?.of(actorTable).row(row).name ?? '');
  });
  protected readonly tick = computed(() => this.truth()?.tick() ?? 0);
  protected readonly controls = new Controls(
    (input) => this.drivenSeat()?.link.ask(input),
    () =>
      this.drivenSeat()
        ?.hud()
        ?.abilities.map((ability) => ability.id) ?? [],
    (ability) => this.aim(this.drivenSeat(), ability),
    () => this.drivenSeat()?.around(),
    () => this.drivenSeat()?.quests()?.offered[0]?.id,
  );
  protected readonly paces = PACES;
  /** Milliseconds that a seat's messages can be held up, there and back together. */
  protected readonly delays = [0, 100, 250, 500];
  protected readonly speed = computed(() => this.truth()?.speed() ?? 1);
  /** Where the pointer is in a seat's arena. */
  private pointer: { readonly seat: string; readonly spot: Spot | undefined } = { seat: '', spot: undefined };
  protected readonly names = computed(() => this.seats().map((seat) => seat.name));
  protected readonly players = computed(() => (this.openRoom.session()?.players === 'saved' ? 'saved players' : 'guests'));
  protected readonly news = computed(() => this.truth()?.news() ?? []);
  /** Why there is no connection to the room, where there is none. */
  protected readonly lost = computed(() =>
    [this.truth(), ...this.seats().map((s) => s.link)].find((link) => link?.state() === 'lost')?.lostWords(),
  );
  protected readonly elsewhere = computed(
    () =>
      new Set(
        this.truth()
          ?.welcome()
          ?.seats.filter((s) => s.driven)
          .map((s) => s.name) ?? [],
      ),
  );
  private picture = 0;
  private drawnFrames = -1;
  private lastVerdict = 0;

  constructor() {
    effect(() => {
      const room = this.room();
      untracked(() => void this.enter(room));
    });
  }

  private async enter(room: string): Promise<void> {
    this.failure.set('');
    try {
      const info: RoomInfo = await firstValueFrom(this.api.room(room));
      if (info.ruleset !== this.ruleset()) return void this.router.navigate(['/r', info.ruleset, 'playtest', room]);
      await this.openRoom.open(info);
      this.driven.set(info.seats[0].name);
      cancelAnimationFrame(this.picture);
      this.picture = requestAnimationFrame(() => this.paint());
    } catch (error) {
      const { status, title, detail } = failureOf(error as HttpErrorResponse);
      this.failure.set(status === 404 ? `There is no room ${room}.` : `${title}. ${detail}`);
    }
  }

  /** Draws what is known: once a picture, whatever came in since the last one. */
  private paint(): void {
    this.picture = requestAnimationFrame(() => this.paint());
    const truth = this.truth();
    const [main, ...copies] = this.arenas();
    if (truth?.copy && main) main.draw(truth.copy);
    this.seats().forEach((seat, i) => seat.link.copy && copies[i]?.draw(seat.link.copy, seat.link.prediction));
    for (const seat of this.seats()) this.expect(seat);
    const frames = [truth, ...this.seats().map((s) => s.link)].reduce((sum, link) => sum + (link?.frames ?? 0), 0);
    if (frames === this.drawnFrames) return;
    this.drawnFrames = frames;
    this.read();
  }

  /** What a seat expects moves between frames as well. */
  private expect({ link, uses, cast }: SeatView): void {
    const row = link.welcome()?.row;
    if (!link.copy || row === undefined) return;
    const now = link.prediction?.uses ?? [];
    if (now.length > 0 || uses().length > 0) uses.set([...now]);
    const own = ownCast(link.copy, row, link.news(), now);
    if (own?.text !== cast()?.text || own?.share !== cast()?.share) cast.set(own);
  }

  private aim(seat: SeatView | undefined, ability: string): Readonly<Record<string, unknown>> {
    const spot = seat && this.pointer.seat === seat.name ? this.pointer.spot : undefined;
    return aimed(seat?.link.copy, ability, spot, seat?.link.welcome()?.row);
  }

  protected point(seat: SeatView, spot: Spot | undefined): void {
    this.pointer = { seat: seat.name, spot };
  }

  protected setPace(box: HTMLSelectElement): void {
    const wanted = PACES.find((pace) => String(pace) === box.value);
    if (wanted !== undefined) this.truth()?.pace(wanted);
    // The next key is meant for the seat.
    box.blur();
  }

  /** The achievements of a seat, where their window is open. */
  protected achievementsOpen(seat: SeatView): AchievementsView | undefined {
    return seat.openPanel() === ACHIEVEMENTS ? seat.achievements() : undefined;
  }

  /** The quests of a seat, where their window is open. */
  protected questsOpen(seat: SeatView): QuestsView | undefined {
    return seat.openPanel() === QUESTS ? seat.quests() : undefined;
  }

  /** The money of a seat, where its window is open. */
  protected moneyOpen(seat: SeatView): EconomyView | undefined {
    return seat.openPanel() === MONEY ? seat.economy() : undefined;
  }

  protected treeOf(seat: SeatView): TreeView | undefined {
    return seat.levels()?.trees.find(({ id }) => id === seat.openPanel());
  }

  private read(): void {
    const truth = this.truth();
    const judge = performance.now() - this.lastVerdict > VERDICT_EVERY_MS;
    for (const seat of this.seats()) {
      const { copy } = seat.link;
      const row = seat.link.welcome()?.row;
      if (!copy || row === undefined) continue;
      seat.hud.set(hudOf(copy, row));
      seat.around.set(surroundingsOf(copy, row));
      seat.levels.set(levelsOf(copy, row));
      seat.roster.set(rosterOf(copy, row));
      seat.achievements.set(achievementsOf(copy, row));
      seat.quests.set(questsOf(copy, row));
      showStatement(seat.economy, economyOf(copy, row), seat.openPanel);
      seat.team.set(teamOf(copy, row)?.label ?? '');
      if (judge && truth?.copy) this.judge(seat, truth);
    }
    if (judge) this.lastVerdict = performance.now();
  }

  private judge(seat: SeatView, truth: RoomLink): void {
    const differs = difference(truth.copy!, seat.link.copy!);
    if (differs === undefined) return;
    const hidden = untold(truth.copy!, seat.link.copy!);
    seat.verdict.set(differs === '' ? { agrees: true, text: hidden ? `Not told: ${hidden}.` : '' } : { agrees: false, text: differs });
  }

  private drivenSeat(): SeatView | undefined {
    return this.seats().find((seat) => seat.name === this.driven());
  }

  protected drive(name: string): void {
    this.controls.release();
    this.driven.set(name);
  }

  protected use(seat: SeatView, ability: string): void {
    seat.link.ask({ do: 'use', ability, ...this.aim(seat, ability) });
  }

  protected go(seat: SeatView, place: { readonly x: number; readonly y: number }): void {
    this.drive(seat.name);
    seat.link.ask({ do: 'moveTo', ...place });
  }

  protected poke({ seat, action, from }: Poke): void {
    this.truth()?.poke(seat, action, from);
  }

  /** Opens the why sheet of whoever stands where somebody pointed; nobody there puts it away. */
  protected select(place: { readonly x: number; readonly y: number }): void {
    const copy = this.truth()?.copy;
    const near = copy && actorsOf(copy).find((actor) => Math.hypot(actor.x - place.x, actor.y - place.y) <= Math.max(actor.radius, 12) + 6);
    this.asked.set(near?.row);
  }

  protected ask(seat: SeatView | undefined): void {
    const row = seat?.link.welcome()?.row;
    this.asked.set(row === this.asked() ? undefined : row);
  }

  /** Read again with every tick: what is shown fades by itself. */
  protected flourishes(seat: SeatView) {
    this.tick();
    return seat.link.flourishes();
  }

  protected key(event: KeyboardEvent, down: boolean): void {
    if (this.controls.key(event, down) || !down || event.repeat || event.ctrlKey || event.metaKey || event.altKey || isTyping(event))
      return;
    if (event.key.toLowerCase() === 'k') {
      event.preventDefault();
      this.poking.set(true);
      this.pokeForm()?.nativeElement.querySelector('select')?.focus();
    } else if (event.key === ' ' && event.target === document.body) {
      event.preventDefault();
      this.truth()?.pace(this.speed() === 0 ? 1 : 0);
    } else if (event.key.toLowerCase() === 'm') {
      const seat = this.drivenSeat();
      if (seat?.economy()) seat.openPanel.set(seat.openPanel() === MONEY ? '' : MONEY);
    } else if (event.key.toLowerCase() === 'y') this.ask(this.drivenSeat());
    else if (event.key === 'Escape') {
      this.poking.set(false);
      this.asked.set(undefined);
    }
  }

  /** The room runs on; only the screen is gone. */
  ngOnDestroy(): void {
    cancelAnimationFrame(this.picture);
    this.controls.release();
  }
}
