import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { RulesetJson } from '../../shared/api';
import { entriesOf } from '../entries';
import { arenaOf, entryOf, type Item, kindOf, nameOf, type PlacedJson, type Point, reachesOf, sizeOf } from './things';

interface Drag {
  readonly item: Item;
  /** What is being done: the thing is moved, copied, or its far corner or edge is. */
  readonly how: 'move' | 'copy' | 'size';
  /** Where it was taken hold of, from its own point. */
  readonly offset: Point;
  readonly at: Point;
  readonly moved: boolean;
}

/** How a thing was left, by the arena's measure. */
export interface Moved {
  readonly item: Item;
  readonly to: Point;
  readonly how: 'move' | 'copy' | 'size';
}

/** Steps by the arrow keys, plain and with Shift, in snaps. */
const LONG_STEP = 5;

/** The ground plan of an arena: everything in it can be chosen, dragged, and moved by keys; its reach is drawn. */
@Component({
  selector: 'ee-arena-map',
  templateUrl: './arena-map.html',
  styleUrl: './arena-map.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ArenaMap {
  readonly document = input.required<RulesetJson | undefined>();
  readonly chosen = input<Item>();
  readonly snap = input(5);
  /** Something waits to be placed: a click on the ground says where. */
  readonly placing = input(false);
  /** Findings by their place in the list of placed things. */
  readonly badges = input<ReadonlySet<number>>(new Set());
  readonly choose = output<Item | undefined>();
  readonly moved = output<Moved>();
  readonly placedAt = output<Point>();
  readonly removed = output<Item>();
  readonly copied = output<Item>();
  private readonly plan = viewChild.required<ElementRef<SVGSVGElement>>('plan');
  protected readonly drag = signal<Drag | undefined>(undefined);
  protected readonly pointer = signal<Point | undefined>(undefined);
  protected readonly arena = computed(() => arenaOf(this.document()));
  protected readonly placed = computed(() =>
    this.arena().placed.map((thing, index) => {
      const item: Item = { list: 'placed', index };
      const kind = kindOf(thing);
      const size = this.sized(item, thing);
      const entry = entryOf(this.document(), thing);
      return {
        item,
        kind,
        ...this.shown(item, thing),
        ...size,
        body: sizeOf(this.document(), thing),
        shape: String(entry?.['shape'] ?? 'circle'),
        colour: typeof entry?.['colour'] === 'string' ? entry['colour'] : '',
        name: nameOf(this.document(), thing),
        own: thing.with !== undefined,
        reaches: this.isChosen(item) ? reachesOf(this.document(), thing) : [],
        points: this.isChosen(item) ? ((thing['points'] as readonly Point[] | undefined) ?? []) : [],
        person: entry?.['kind'] === 'character',
        foe: entry?.['kind'] === 'foe',
        found: this.badges().has(index),
      };
    }),
  );
  /** Zones lie under everything, what is chosen over everything. */
  protected readonly zones = computed(() => this.placed().filter(({ kind }) => kind === 'zone'));
  protected readonly things = computed(() => this.placed().filter(({ kind }) => kind !== 'zone'));
  protected readonly walls = computed(() =>
    this.arena().walls.map((wall, index) => {
      const item: Item = { list: 'walls', index };
      return { item, ...wall, ...this.shown(item, wall), ...this.sized(item, wall) };
    }),
  );
  protected readonly starts = computed(() =>
    this.arena().starts.map((start, index) => {
      const item: Item = { list: 'starts', index };
      const team = entriesOf(this.document(), 'teams').find(({ id }) => id === start.team);
      return {
        item,
        ...this.shown(item, start),
        mark: String(team?.['mark'] ?? '·'),
        colour: String(team?.['colour'] ?? ''),
        team: team?.label,
      };
    }),
  );
  /** Handles of the chosen thing whose size can be dragged. */
  protected readonly handle = computed(() => {
    const item = this.chosen();
    if (!item || item.list === 'starts') return undefined;
    if (item.list === 'walls') {
      const wall = this.walls()[item.index];
      return wall && { item, x: wall.x + wall.width, y: wall.y + wall.height };
    }
    const zone = this.zones().find((one) => one.item.index === item.index);
    if (!zone) return undefined;
    return zone.radius === undefined
      ? { item, x: zone.x + zone.width! / 2, y: zone.y + zone.height! / 2 }
      : { item, x: zone.x + zone.radius, y: zone.y };
  });

  constructor() {
    // What was just placed or copied has the keys, unless somebody is at another part of the page.
    afterRenderEffect(() => {
      if (!this.chosen()) return;
      const plan = this.plan().nativeElement;
      const active = document.activeElement;
      if (active && active !== document.body && !plan.contains(active)) return;
      plan.querySelector<SVGElement>('.item.here')?.focus({ preventScroll: true });
    });
  }

  protected isChosen(item: Item): boolean {
    const chosen = this.chosen();
    return chosen?.list === item.list && chosen.index === item.index;
  }

  private held(item: Item): Drag | undefined {
    const drag = this.drag();
    return drag?.moved === true && drag.item.list === item.list && drag.item.index === item.index ? drag : undefined;
  }

  /** Where a thing is drawn: where it is held, while it is. */
  private shown(item: Item, { x, y }: Point): Point {
    const drag = this.held(item);
    return drag && drag.how !== 'size' ? drag.at : { x, y };
  }

  private sized(
    item: Item,
    { x, y, radius, width, height }: Pick<PlacedJson, 'x' | 'y' | 'radius' | 'width' | 'height'>,
  ): { radius?: number; width?: number; height?: number } {
    const drag = this.held(item);
    const own = { ...(radius !== undefined && { radius }), ...(width !== undefined && { width, height: height ?? width }) };
    return drag?.how === 'size' ? { ...own, ...sizeFrom({ item, to: drag.at, how: 'size' }, { x, y, radius, width, height }) } : own;
  }

  private pointOf(event: PointerEvent | MouseEvent): Point {
    const plan = this.plan().nativeElement;
    const matrix = plan.getScreenCTM();
    if (!matrix) return { x: 0, y: 0 };
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    return { x, y };
  }

  private snapped({ x, y }: Point): Point {
    const { width, height } = this.arena();
    const to = (value: number, most: number) => Math.min(most, Math.max(0, Math.round(value / this.snap()) * this.snap()));
    return { x: to(x, width), y: to(y, height) };
  }

  protected down(event: PointerEvent, item: Item, from: Point, how: 'move' | 'size' = 'move'): void {
    if (this.placing()) return;
    event.stopPropagation();
    event.preventDefault();
    const point = this.pointOf(event);
    this.choose.emit(item);
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    (event.currentTarget as SVGElement).focus();
    const copies = event.altKey && how === 'move';
    this.drag.set({ item, how: copies ? 'copy' : how, offset: { x: point.x - from.x, y: point.y - from.y }, at: from, moved: false });
  }

  protected move(event: PointerEvent): void {
    const point = this.pointOf(event);
    this.pointer.set(this.snapped(point));
    const drag = this.drag();
    if (!drag) return;
    const at = this.snapped({ x: point.x - drag.offset.x, y: point.y - drag.offset.y });
    if (drag.moved || at.x !== drag.at.x || at.y !== drag.at.y) this.drag.set({ ...drag, at, moved: true });
  }

  protected up(): void {
    const drag = this.drag();
    this.drag.set(undefined);
    if (drag?.moved) this.moved.emit({ item: drag.item, to: drag.at, how: drag.how });
  }

  protected ground(event: PointerEvent): void {
    if (this.placing()) this.placedAt.emit(this.snapped(this.pointOf(event)));
    else this.choose.emit(undefined);
  }

  protected key(event: KeyboardEvent, item: Item, at: Point): void {
    const step = this.snap() * (event.shiftKey ? LONG_STEP : 1);
    const ways: Readonly<Record<string, Point>> = {
      ArrowLeft: { x: -step, y: 0 },
      ArrowRight: { x: step, y: 0 },
      ArrowUp: { x: 0, y: -step },
      ArrowDown: { x: 0, y: step },
    };
    const way = ways[event.key];
    if (way) this.moved.emit({ item, to: this.snapped({ x: at.x + way.x, y: at.y + way.y }), how: 'move' });
    else if (event.key === 'Delete' || event.key === 'Backspace') this.removed.emit(item);
    else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'd') this.copied.emit(item);
    else if (event.key === 'Enter' || event.key === ' ') this.choose.emit(item);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
}

/** The size that a thing has once its far corner or edge is dragged somewhere. */
export function sizeFrom(
  { item, to }: Moved,
  { x, y, radius }: Point & { radius?: number | undefined; width?: unknown; height?: unknown },
) {
  const least = 10;
  if (item.list === 'walls') return { width: Math.max(least, to.x - x), height: Math.max(least, to.y - y) };
  if (radius !== undefined) return { radius: Math.max(least, Math.round(Math.hypot(to.x - x, to.y - y))) };
  return { width: Math.max(least, Math.abs(to.x - x) * 2), height: Math.max(least, Math.abs(to.y - y) * 2) };
}
