/** A body as it is drawn, in units of the arena. */
export interface Standing {
  readonly row: number;
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

/** How often bodies are pushed apart: enough for a handful on one spot. */
const PUSHES = 8;
/** The golden angle: those on one very spot go different ways, whoever they are. */
const TURN = 2.39996;

/**
 * Has bodies that lie over each other drawn beside each other, so that each is seen: their middles are the smaller radius
 * apart where there is room, and nobody is drawn farther from where they stand than their own radius.
 */
export function drawnApart<T extends Standing>(bodies: readonly T[]): readonly T[] {
  const drawn = bodies.map(({ row, x, y, radius }) => ({ row, x, y, radius }));
  const byPlace = [...drawn].sort((a, b) => a.x - b.x || a.row - b.row);
  const widest = Math.max(0, ...drawn.map(({ radius }) => radius));
  const pairs = (work: (one: Drawn, other: Drawn) => void) =>
    byPlace.forEach((one, at) => {
      for (let next = at + 1; next < byPlace.length && byPlace[next].x - one.x < 3 * widest; next++) work(one, byPlace[next]);
    });
  pairs(leaveSpot);
  for (let push = 0; push < PUSHES; push++) pairs(pushApart);
  return bodies.map((body, at) => ({ ...body, ...within(body, drawn[at]) }));
}

/** Where a body is drawn so far. */
type Drawn = { -readonly [Field in keyof Standing]: Standing[Field] };

/** Moves the other of two on one spot off it: nothing says which way they are to be pushed. */
function leaveSpot(one: Drawn, other: Drawn): void {
  const step = Math.min(one.radius, other.radius) / 2;
  if (Math.hypot(other.x - one.x, other.y - one.y) > step / 50) return;
  other.x += Math.cos(TURN * other.row) * step;
  other.y += Math.sin(TURN * other.row) * step;
}

function pushApart(one: Drawn, other: Drawn): void {
  const wanted = Math.min(one.radius, other.radius);
  const [dx, dy] = [other.x - one.x, other.y - one.y];
  const distance = Math.hypot(dx, dy);
  if (distance >= wanted || distance === 0) return;
  const share = (wanted - distance) / 2 / distance;
  one.x -= dx * share;
  one.y -= dy * share;
  other.x += dx * share;
  other.y += dy * share;
}

/** A place, brought back to within the body's radius of where it stands. */
function within(body: Standing, { x, y }: Standing): { readonly x: number; readonly y: number } {
  const distance = Math.hypot(x - body.x, y - body.y);
  const share = distance > body.radius ? body.radius / distance : 1;
  return { x: body.x + (x - body.x) * share, y: body.y + (y - body.y) * share };
}

/** How many lines a name may be moved down for others; after that it lies over them. */
const MOST_LINES = 6;

/** Has the names of a picture stand below each other where they would lie over each other. */
export class NameLines {
  private readonly taken: { readonly x: number; readonly y: number; readonly half: number }[] = [];

  /** @param lineHeight in units of the arena, as all else */
  constructor(private readonly lineHeight: number) {}

  /** Where the foot of a name stands, given where it would stand by itself, and half its width. */
  place(x: number, y: number, half: number): number {
    let at = y;
    for (let line = 0; line < MOST_LINES && this.taken.some((other) => this.covers(other, x, at, half)); line++) at += this.lineHeight;
    this.taken.push({ x, y: at, half });
    return at;
  }

  private covers(other: { readonly x: number; readonly y: number; readonly half: number }, x: number, y: number, half: number): boolean {
    return Math.abs(other.x - x) < other.half + half && Math.abs(other.y - y) < this.lineHeight * 0.8;
  }
}
