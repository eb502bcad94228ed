import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { type Copy, pickupsTable, type Prediction, projectilesTable } from '@eager-ember/core';
import { fromEvent } from 'rxjs';
import { Theme } from '../shared/theme';
import { drawWords, drawZones, NAMES_FROM, takenBy } from './arena-around';
import { drawnApart, NameLines } from './arena-crowd';
import { drawCasts, drawDeliveries, drawExpected } from './arena-fight';
import { type ActorView, actorsOf, displayOf } from './display';
import { type Pen, Sketch } from './sketch';

/** How quickly what is drawn follows what is known, per picture: twenty frames a second would jerk otherwise. */
const FOLLOW = 0.4;
/** Who is drawn this near to where they are stands there, in units of the arena. */
const STILL = 0.05;
/** What is gone unclaimed in less than this is drawn faintly, in seconds. */
const FADES_S = 4;

/** The arena from above: the truth in ink, a copy in teal with dashed outlines. */
@Component({
  selector: 'ee-arena',
  template:
    '<canvas #canvas role="img" [attr.aria-label]="label()" (click)="click($event)" (pointermove)="hover($event)" (pointerleave)="hovered.emit(undefined)" (contextrestored)="spoil()"></canvas>',
  styles: `
    :host {
      display: block;
    }
    canvas {
      display: block;
      width: 100%;
      border: 1px solid var(--hair);
      border-radius: 5px;
      touch-action: manipulation;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ArenaView {
  readonly label = input.required<string>();
  readonly truth = input(false);
  /** The row to mark: the seat's own, or the one that is looked at. */
  readonly marked = input<number>();
  /** Where in the arena somebody pointed. */
  readonly pointed = output<{ readonly x: number; readonly y: number }>();
  /** Where in the arena the pointer is; nowhere once it has left. */
  readonly hovered = output<{ readonly x: number; readonly y: number } | undefined>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly theme = inject(Theme);
  private readonly width = signal(0);
  /** How often all of the picture was spoilt: what it was drawn with is another, or the canvas is empty. */
  private readonly spoilt = signal(0);
  /** What its picture depends on besides what is drawn. */
  readonly looks = computed(() => ({ width: this.width(), marked: this.marked(), dark: this.theme.dark(), spoilt: this.spoilt() }));
  private readonly places = new Map<number, { x: number; y: number }>();
  private scale = 1;
  /** What the picture that is shown was drawn from. */
  private drawnFrom: readonly unknown[] = [];
  /** Whether somebody is still drawn on the way to where they are known to be: the next picture is another. */
  moving = false;
  private foretold = false;
  private sketch: Sketch | undefined;

  constructor() {
    effect((onCleanup) => {
      const canvas = this.canvas().nativeElement;
      const observer = new ResizeObserver(() => this.width.set(canvas.clientWidth));
      observer.observe(canvas);
      onCleanup(() => observer.disconnect());
    });
    // Names are drawn with whatever there is until their letters have come.
    fromEvent(document.fonts, 'loadingdone')
      .pipe(takeUntilDestroyed())
      .subscribe(() => this.spoil());
  }

  /** Draws what a copy knows. What would look the same is not drawn again. */
  draw(copy: Copy, prediction?: Prediction): void {
    const canvas = this.canvas().nativeElement;
    const { width, height, walls } = displayOf(copy.schema).arena;
    const wide = canvas.clientWidth;
    if (wide === 0) return;
    const tall = Math.round((wide * height) / width);
    const ratio = window.devicePixelRatio || 1;
    const from = [copy, copy.frame, wide, ratio, this.marked(), document.documentElement.dataset['theme'], this.spoilt()];
    // What a seat expects moves between frames as well; once it does no more, that is drawn too.
    const foretells = prediction?.expects ?? false;
    const same = from.every((part, i) => part === this.drawnFrom[i]);
    if (same && !this.moving && !foretells && !this.foretold) return;
    const anew = from.at(-1) !== this.drawnFrom.at(-1);
    this.drawnFrom = from;
    this.foretold = foretells;
    const sized = canvas.width !== Math.round(wide * ratio) || canvas.height !== Math.round(tall * ratio);
    if (sized) {
      canvas.width = Math.round(wide * ratio);
      canvas.height = Math.round(tall * ratio);
      canvas.style.height = `${tall}px`;
    }
    this.scale = wide / width;
    const ctx = (this.sketch ??= new Sketch(canvas.getContext('2d')!));
    ctx.setTransform(ratio * this.scale, 0, 0, ratio * this.scale, 0, 0);
    const style = getComputedStyle(document.documentElement);
    const known = new Map<string, string>();
    const colour = (name: string) => {
      const found = known.get(name) ?? style.getPropertyValue(`--${name}`).trim();
      known.set(name, found);
      return found;
    };
    ctx.fillStyle = colour('ground');
    ctx.fillRect(0, 0, width, height);
    this.grid(ctx, width, height, colour('hair'));
    drawZones(ctx, copy, colour, this.scale);
    ctx.fillStyle = colour('wall');
    for (const wall of walls) ctx.fillRect(wall.x, wall.y, wall.width, wall.height);
    const ink = colour(this.truth() ? 'ink' : 'copy');
    this.pickups(ctx, copy, ink, colour('paper'));
    const actors = drawnApart(this.smoothed(actorsOf(copy)));
    for (const actor of actors) this.actor(ctx, actor, ink, colour);
    const names = new NameLines(12 / this.scale, actors);
    ctx.fillStyle = ink;
    ctx.font = `650 ${11 / this.scale}px 'Atkinson Hyperlegible Next Variable', sans-serif`;
    ctx.textAlign = 'center';
    // Players' names stand by them; others make way.
    for (const players of [true, false])
      for (const actor of actors) if (players === (actor.kind === 'player')) this.name(ctx, actor, width, names);
    drawDeliveries(ctx, copy, colour, this.scale, this.truth());
    drawWords(ctx, copy, actors, colour, this.scale);
    drawCasts(ctx, copy, actors, colour, this.scale, this.truth());
    const own = prediction && actors.find((actor) => actor.row === this.marked());
    if (own) drawExpected(ctx, prediction, own, colour, this.scale);
    ctx.draw(sized || anew);
    // Tests and readers of the page know from this what was drawn.
    const shown = {
      pickups: String(copy.of(pickupsTable).rows().length - (this.truth() ? 0 : takenBy(copy).size)),
      flying: String(copy.of(projectilesTable).rows().length),
      ahead: String(Math.round(prediction?.ahead() ?? 0)),
    };
    // What is written there has the page look for what it changes, even where it is the same.
    for (const [name, text] of Object.entries(shown)) if (canvas.dataset[name] !== text) canvas.dataset[name] = text;
  }

  /** Has all of it drawn again, whatever it shows. */
  protected spoil(): void {
    this.spoilt.update((n) => n + 1);
  }

  private grid(ctx: Pen, width: number, height: number, colour: string): void {
    ctx.strokeStyle = colour;
    ctx.lineWidth = 1;
    ctx.globalAlpha = 0.55;
    ctx.beginPath();
    for (let x = 96; x < width; x += 96) {
      ctx.moveTo(x, 0);
      ctx.lineTo(x, height);
    }
    for (let y = 90; y < height; y += 90) {
      ctx.moveTo(0, y);
      ctx.lineTo(width, y);
    }
    ctx.stroke();
    ctx.globalAlpha = 1;
  }

  private pickups(ctx: Pen, copy: Copy, ink: string, paper: string): void {
    const { pickups } = displayOf(copy.schema);
    // Small arenas keep their things visible: never under four pixels across the middle, with lines to match.
    const least = 4 / this.scale;
    ctx.lineWidth = (this.truth() ? 1.5 : 1.1) / this.scale;
    ctx.strokeStyle = ink;
    ctx.fillStyle = paper;
    // The truth shows what lies there; a seat what lies there for it.
    const taken = this.truth() ? new Set<number>() : takenBy(copy);
    const lying = copy.of(pickupsTable);
    for (const row of lying.rows()) {
      if (taken.has(row)) continue;
      const { pickup, x = NaN, y = NaN, fades = 0, worth: drawn = 0 } = lying.row(row);
      ctx.globalAlpha = fades > 0 && fades - copy.tick < FADES_S * copy.schema.tickRate ? 0.45 : 1;
      const info = pickups.find(({ id }) => id === pickup);
      const dash = this.truth() ? [] : [2.4 / this.scale, 1.6 / this.scale];
      ctx.setLineDash(dash);
      trace(ctx, info?.shape ?? 'circle', x, y, Math.max(least, info?.radius ?? 10));
      ctx.fill();
      ctx.stroke();
      // Things of one shape are told apart by the first letter of what they are called.
      ctx.setLineDash([]);
      ctx.fillStyle = ink;
      ctx.font = `600 ${Math.max(10, 8 / this.scale)}px 'Atkinson Hyperlegible Next Variable', sans-serif`;
      ctx.textAlign = 'center';
      if (this.truth()) ctx.fillText((info?.label ?? '').charAt(0), x, y + 4);
      // What luck has made it worth stands below it.
      const worth = info?.gives === undefined ? 0 : drawn;
      if (worth > 0) ctx.fillText(String(worth), x, y + Math.max(least, info?.radius ?? 10) + Math.max(10, 8 / this.scale));
      ctx.fillStyle = paper;
    }
    ctx.globalAlpha = 1;
    ctx.setLineDash([]);
  }

  private smoothed(actors: readonly ActorView[]): readonly ActorView[] {
    const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
    this.moving = false;
    return actors.map((actor) => {
      const last = this.places.get(actor.row);
      // Whoever was put elsewhere at once does not fly there.
      const near = last && Math.abs(last.x - actor.x) + Math.abs(last.y - actor.y) < 60;
      const place =
        near && !still ? { x: last.x + (actor.x - last.x) * FOLLOW, y: last.y + (actor.y - last.y) * FOLLOW } : { x: actor.x, y: actor.y };
      this.places.set(actor.row, place);
      if (Math.abs(place.x - actor.x) + Math.abs(place.y - actor.y) > STILL) this.moving = true;
      return { ...actor, ...place };
    });
  }

  private actor(ctx: Pen, { row, team, radius, x, y, kind, down, facing }: ActorView, ink: string, colour: (name: string) => string): void {
    ctx.globalAlpha = down ? 0.35 : 1;
    if (row === this.marked()) {
      ctx.strokeStyle = colour('ember');
      ctx.lineWidth = 2 / this.scale;
      ctx.beginPath();
      ctx.arc(x, y, radius + 5 / this.scale, 0, 2 * Math.PI);
      ctx.stroke();
    }
    ctx.save();
    outline(ctx, kind, x, y, radius);
    ctx.fillStyle = colour('paper');
    ctx.fill();
    ctx.clip();
    // Foes are filled, bodies without a team are plain.
    if (kind === 'foe' && !team) {
      ctx.fillStyle = ink;
      ctx.globalAlpha *= 0.75;
      ctx.fill();
    } else if (team || kind === 'player') fillPattern(ctx, team?.pattern ?? 'plain', team?.colour ?? ink, x, y, radius);
    ctx.restore();
    ctx.globalAlpha = down ? 0.35 : 1;
    ctx.strokeStyle = ink;
    ctx.lineWidth = (this.truth() ? 2 : 1.4) / this.scale;
    ctx.setLineDash(this.truth() ? [] : [3 / this.scale, 1.8 / this.scale]);
    outline(ctx, kind, x, y, radius);
    ctx.stroke();
    ctx.setLineDash([]);
    if (kind !== 'prop' && (facing.x !== 0 || facing.y !== 0)) {
      // Where it looks: what is not aimed by hand goes there.
      ctx.beginPath();
      ctx.moveTo(x + facing.x * radius, y + facing.y * radius);
      ctx.lineTo(x + facing.x * (radius + 5 / this.scale), y + facing.y * (radius + 5 / this.scale));
      ctx.stroke();
    }
    ctx.globalAlpha = 1;
  }

  private name(ctx: Pen, actor: ActorView, width: number, names: NameLines): void {
    const { row, name, kind, down, x } = actor;
    // In a small picture only players have their names written: others would lie over each other.
    if (this.scale < NAMES_FROM && kind !== 'player' && row !== this.marked()) return;
    ctx.globalAlpha = down ? 0.35 : 1;
    const text = down ? `${name}, down` : name;
    // Names of those at the edge stay within it.
    const half = ctx.measureText(text).width / 2 + 3 / this.scale;
    const middle = Math.min(Math.max(x, half), width - half);
    ctx.fillText(text, middle, names.place(middle, actor, half));
    ctx.globalAlpha = 1;
  }

  protected hover(event: PointerEvent): void {
    this.hovered.emit({ x: event.offsetX / this.scale, y: event.offsetY / this.scale });
  }

  protected click(event: MouseEvent): void {
    this.pointed.emit({ x: event.offsetX / this.scale, y: event.offsetY / this.scale });
  }
}

/** A body from above: round, pointed for a foe, square for a thing. Kinds are told apart by shape as well as by fill. */
function outline(ctx: Pen, kind: string, x: number, y: number, r: number): void {
  if (kind === 'prop') trace(ctx, 'square', x, y, r * 0.9);
  else if (kind === 'foe') trace(ctx, 'diamond', x, y, r * 0.95);
  else trace(ctx, 'circle', x, y, r);
}

function trace(ctx: Pen, shape: string, x: number, y: number, r: number): void {
  ctx.beginPath();
  if (shape === 'diamond')
    polygon(ctx, [
      [x, y - r * 1.2],
      [x + r * 1.2, y],
      [x, y + r * 1.2],
      [x - r * 1.2, y],
    ]);
  else if (shape === 'square') ctx.rect(x - r, y - r, 2 * r, 2 * r);
  else if (shape === 'triangle')
    polygon(ctx, [
      [x, y - r * 1.2],
      [x + r * 1.1, y + r * 0.8],
      [x - r * 1.1, y + r * 0.8],
    ]);
  else if (shape === 'capsule') ctx.roundRect(x - r * 0.65, y - r * 1.25, r * 1.3, r * 2.5, r * 0.65);
  else ctx.arc(x, y, r, 0, 2 * Math.PI);
}

function polygon(ctx: Pen, points: readonly (readonly [number, number])[]): void {
  points.forEach(([x, y], i) => (i === 0 ? ctx.moveTo(x, y) : ctx.lineTo(x, y)));
  ctx.closePath();
}

/** Fills a body with its team's pattern, so that colour is not the only sign. */
function fillPattern(ctx: Pen, pattern: string, colour: string, x: number, y: number, r: number): void {
  ctx.strokeStyle = ctx.fillStyle = colour;
  ctx.lineWidth = r / 5;
  ctx.beginPath();
  if (pattern === 'stripes') {
    for (let d = -2 * r; d <= 2 * r; d += r / 2.2) {
      ctx.moveTo(x + d - r, y + r);
      ctx.lineTo(x + d + r, y - r);
    }
    ctx.stroke();
  } else if (pattern === 'dots' || pattern === 'checks') {
    const step = r / 1.8;
    for (let i = -2; i <= 2; i++)
      for (let k = -2; k <= 2; k++) {
        if (pattern === 'checks' && (i + k) % 2 !== 0) continue;
        if (pattern === 'checks') ctx.rect(x + i * step - step / 2, y + k * step - step / 2, step, step);
        else {
          ctx.moveTo(x + i * step, y + k * step);
          ctx.arc(x + i * step, y + k * step, r / 6, 0, 2 * Math.PI);
        }
      }
    ctx.fill();
  } else {
    ctx.globalAlpha = 0.35;
    ctx.fillRect(x - r, y - r, 2 * r, 2 * r);
    ctx.globalAlpha = 1;
  }
}
