const KEYS: Readonly<Record<string, readonly [number, number]>> = {
  w: [0, -1],
  a: [-1, 0],
  s: [0, 1],
  d: [1, 0],
  arrowup: [0, -1],
  arrowleft: [-1, 0],
  arrowdown: [0, 1],
  arrowright: [1, 0],
};

/** Turns held keys into a direction. Says so only when it changes. */
export class Controls {
  private readonly held = new Set<string>();
  private last = '0,0';

  constructor(private readonly head: (x: number, y: number) => void) {}

  /** Takes a key; true where it was one of ours. */
  key(event: KeyboardEvent, down: boolean): boolean {
    const name = event.key.toLowerCase();
    if (!(name in KEYS)) return false;
    if (down) this.held.add(name);
    else this.held.delete(name);
    this.tell();
    return true;
  }

  /** Lets go of everything, as when the window loses the keyboard. */
  release(): void {
    this.held.clear();
    this.tell();
  }

  private tell(): void {
    const sum = [...this.held].reduce(([x, y], key) => [x + KEYS[key][0], y + KEYS[key][1]], [0, 0]);
    const [x, y] = sum.map(Math.sign);
    if (`${x},${y}` === this.last) return;
    this.last = `${x},${y}`;
    this.head(x, y);
  }
}
