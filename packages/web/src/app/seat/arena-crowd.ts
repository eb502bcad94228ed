/** A body as it is drawn, in units of the arena. */
export interface Standing {
  readonly row: number;
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

/** How often bodies are pushed apart: enough for a handful beside each other. */
const PUSHES = 12;
/** How far apart two middles are to be, in radii of the smaller one. */
const APART = 1.2;
/** What is left to push is not worth it below this, in units of the arena. */
const ENOUGH = 1e-6;
/** How far from where they stand somebody may be drawn, in radii. */
export const FARTHEST = 1.5;
/** Bodies stand on one spot whose middles are nearer to each other than this, in radii. */
const ONE_SPOT = 0.02;

/** Where a body is drawn so far. */
type Drawn = { -readonly [Field in keyof Standing]: Standing[Field] };

/**
 * Has bodies that lie over each other drawn beside each other, so that each is seen: their middles are a little more than the
 * smaller radius apart where there is room, and nobody is drawn farther from where they stand than `FARTHEST` of their own
 * radius.
 */
export function drawnApart<T extends Standing>(bodies: readonly T[]): readonly T[] {
  const drawn = bodies.map(({ row, x, y, radius }) => ({ row, x, y, radius }));
  const byPlace = [...drawn].sort((a, b) => a.x - b.x || a.row - b.row);
  const widest = Math.max(0, ...drawn.map(({ radius }) => radius));
  // Nothing says which way to push who stands on one spot: they go round it.
  for (const group of onOneSpot(byPlace)) roundTheSpot(group);
  let pushed = true;
  for (let push = 0; pushed && push < PUSHES; push++) {
    pushed = false;
    byPlace.forEach((one, at) => {
      for (let next = at + 1; next < byPlace.length && byPlace[next].x - one.x < 4 * widest; next++)
        if (pushApart(one, byPlace[next])) pushed = true;
    });
  }
  return bodies.map((body, at) => ({ ...body, ...within(body, drawn[at]) }));
}

/** Those of whom others stand on the same spot, together. */
function onOneSpot(byPlace: readonly Drawn[]): readonly (readonly Drawn[])[] {
  const left = new Set(byPlace);
  return byPlace.flatMap((one, at) => {
    if (!left.has(one)) return [];
    const group: Drawn[] = [];
    for (let next = at; next < byPlace.length && byPlace[next].x - one.x <= ONE_SPOT * one.radius; next++)
      if (left.has(byPlace[next]) && Math.abs(byPlace[next].y - one.y) <= ONE_SPOT * one.radius) group.push(byPlace[next]);
    for (const each of group) left.delete(each);
    return group.length > 1 ? [group] : [];
  });
}

function roundTheSpot(group: readonly Drawn[]): void {
  const smallest = Math.min(...group.map(({ radius }) => radius));
  const away = (APART * smallest) / (2 * Math.sin(Math.PI / group.length));
  group.forEach((one, k) => {
    const angle = (2 * Math.PI * k) / group.length;
    one.x += away * Math.cos(angle);
    one.y += away * Math.sin(angle);
  });
}

/** Returns whether they were too near to each other. */
function pushApart(one: Drawn, other: Drawn): boolean {
  const wanted = APART * Math.min(one.radius, other.radius);
  const [dx, dy] = [other.x - one.x, other.y - one.y];
  if (Math.abs(dx) >= wanted || Math.abs(dy) >= wanted) return false;
  const distance = Math.hypot(dx, dy);
  if (distance >= wanted - ENOUGH || distance === 0) return false;
  const share = (wanted - distance) / 2 / distance;
  one.x -= dx * share;
  one.y -= dy * share;
  other.x += dx * share;
  other.y += dy * share;
  return true;
}

/** A place, brought back to where a body may be drawn. */
function within(body: Standing, { x, y }: Standing): { readonly x: number; readonly y: number } {
  const distance = Math.hypot(x - body.x, y - body.y);
  const share = Math.min(1, (FARTHEST * body.radius) / Math.max(distance, Number.MIN_VALUE));
  return { x: body.x + (x - body.x) * share, y: body.y + (y - body.y) * share };
}

/** How tall a name is, in lines. */
const TALL = 0.8;

interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** Has the names of a picture stand by their bodies, and not over others where there is room. */
export class NameLines {
  /** What is there, by the lines of the picture that it lies in: many actors are not each compared with all. */
  private readonly lines = new Map<number, Box[]>();

  /**
   * @param lineHeight in units of the arena, as all else
   * @param bodies what is drawn already
   */
  constructor(
    private readonly lineHeight: number,
    bodies: readonly Standing[] = [],
  ) {
    for (const { x, y, radius } of bodies) this.take({ left: x - radius, right: x + radius, top: y - radius, bottom: y + radius });
  }

  /**
   * Where the foot of a name stands: below its body where there is room, else above it, else a line or two further.
   * @param x its middle
   * @param half half its width
   */
  place(x: number, { y, radius }: Standing, half: number): number {
    const box = (bottom: number): Box => ({ left: x - half, right: x + half, top: bottom - TALL * this.lineHeight, bottom });
    const below = y + radius + this.lineHeight;
    const above = y - radius - this.lineHeight / 2;
    const feet = [below, above, below + this.lineHeight, above - this.lineHeight, below + 2 * this.lineHeight];
    const at = feet.find((foot) => !this.isTaken(box(foot))) ?? below;
    this.take(box(at));
    return at;
  }

  private linesOf({ top, bottom }: Box): readonly number[] {
    const first = Math.floor(top / this.lineHeight);
    return Array.from({ length: Math.floor(bottom / this.lineHeight) - first + 1 }, (_, i) => first + i);
  }

  private isTaken(box: Box): boolean {
    return this.linesOf(box).some((line) => this.lines.get(line)?.some((other) => overlap(other, box)));
  }

  private take(box: Box): void {
    for (const line of this.linesOf(box)) {
      const there = this.lines.get(line);
      if (there) there.push(box);
      else this.lines.set(line, [box]);
    }
  }
}

const overlap = (a: Box, b: Box) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;
