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
  type WritableSignal,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { actorTable, PACES } from '@eager-ember/core';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api, failureOf, type RoomInfo } from '../shared/api';
import { isTyping } from '../shared/keys';
import { documentFeature } from '../store/document.reducer';
import { ArenaView } from '../seat/arena-view';
import { Controls } from '../seat/controls';
import { actorsOf, difference, untold } from '../seat/display';
import { PanelPlace } from '../seat/panel-place';
import { drawsPictures } from '../seat/pictures';
import type { RoomLink } from '../seat/room-link';
import { SeatScreen } from '../seat/seat-screen';
import { SeatState } from '../seat/seat-state';
import { JoinLink } from './join-link';
import { OpenRoom, type OpenSeat } from './open-room';
import { type Poke, Pokes } from './pokes';
import { Trace } from './trace';
import { WhySheet } from './why';

/** A seat with its screen, and how its copy stands towards the truth, in words. */
interface SeatView extends OpenSeat {
  readonly screen: SeatState;
  readonly verdict: WritableSignal<{ readonly agrees: boolean | undefined; readonly text: string }>;
}

const VERDICT_EVERY_MS = 500;

/** One truth and several copies of it, side by side. */
@Component({
  selector: 'ee-playtest',
  imports: [ArenaView, JoinLink, PanelPlace, Pokes, RouterLink, SeatScreen, Trace, WhySheet],
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
  private readonly arena = viewChild(ArenaView);
  private readonly screens = viewChildren(SeatScreen);
  private readonly pokeForm = viewChild<unknown, ElementRef<HTMLElement>>(Pokes, { read: ElementRef });
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly failure = signal('');
  protected readonly truth = computed(() => this.openRoom.session()?.truth);
  protected readonly seats = computed<readonly SeatView[]>(() =>
    (this.openRoom.session()?.seats ?? []).map((seat) => ({
      ...seat,
      screen: new SeatState(seat.link),
      verdict: signal<{ agrees: boolean | undefined; text: string }>({ agrees: undefined, text: '' }),
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
  protected readonly controls = Controls.of(() => this.drivenSeat()?.screen);
  protected readonly paces = PACES;
  /** Milliseconds that a seat's messages can be held up, there and back together. */
  protected readonly delays = [0, 100, 250, 500];
  protected readonly speed = computed(() => this.truth()?.speed() ?? 1);
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
  private lastVerdict = 0;

  constructor() {
    effect(() => {
      const room = this.room();
      untracked(() => void this.enter(room));
    });
    drawsPictures(
      () => {
        this.truth()?.changes();
        this.arena()?.looks();
        for (const screen of this.screens()) screen.changes();
      },
      () => this.paint(),
    );
  }

  private async enter(room: string): Promise<void> {
    this.failure.set('');
    try {
      const info: RoomInfo = await firstValueFrom(this.api.room(room));
      if (info.ruleset !== this.ruleset()) return void this.router.navigate(['/r', info.ruleset, 'playtest', room]);
      await this.openRoom.open(info);
      this.driven.set(info.seats[0].name);
    } catch (error) {
      const { status, title, detail } = failureOf(error as HttpErrorResponse);
      this.failure.set(status === 404 ? `There is no room ${room}.` : `${title}. ${detail}`);
    }
  }

  /** Draws what is known, whatever came in since the last picture. Returns whether somebody is still on their way in one. */
  private paint(): boolean {
    const truth = this.truth();
    if (truth?.copy) this.arena()?.draw(truth.copy);
    const told = this.screens().filter((screen) => screen.paint());
    if (told.length > 0 && truth?.copy && performance.now() - this.lastVerdict > VERDICT_EVERY_MS) {
      this.lastVerdict = performance.now();
      // What is said of a copy is said of what its screen shows: one that was just put up shows nothing yet.
      for (const seat of this.seats().filter(({ screen }) => screen.shows)) this.judge(seat, truth);
    }
    return (this.arena()?.moving ?? false) || this.screens().some(({ moving }) => moving);
  }

  protected setPace(box: HTMLSelectElement): void {
    const wanted = PACES.find((pace) => String(pace) === box.value);
    if (wanted !== undefined) this.truth()?.pace(wanted);
    // The next key is meant for the seat.
    box.blur();
  }

  private judge(seat: SeatView, truth: RoomLink): void {
    if (!seat.link.copy) return;
    const differs = difference(truth.copy!, seat.link.copy);
    if (differs === undefined) return;
    const hidden = untold(truth.copy!, seat.link.copy);
    seat.verdict.set(differs === '' ? { agrees: true, text: hidden ? `Not told: ${hidden}.` : '' } : { agrees: false, text: differs });
  }

  private drivenSeat(): SeatView | undefined {
    return this.seats().find((seat) => seat.name === this.driven());
  }

  protected drive(name: string): void {
    this.controls.release();
    this.driven.set(name);
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
    const row = seat?.screen.row();
    this.asked.set(row === this.asked() ? undefined : row);
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
    } else if (this.drivenSeat()?.screen.key(event.key.toLowerCase())) return;
    else if (event.key.toLowerCase() === 'y') this.ask(this.drivenSeat());
    else if (event.key === 'Escape') {
      this.poking.set(false);
      this.asked.set(undefined);
    }
  }

  /** The room runs on; only the screen is gone. */
  ngOnDestroy(): void {
    this.controls.release();
  }
}
