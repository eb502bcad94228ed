import { isTyping } from '../shared/keys';
import { hudOf } from './display';
import type { SeatState } from './seat-state';

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

/** What a seat is asked for: the name of an input, and its arguments. */
export interface Ask {
  readonly do: string;
  readonly [argument: string]: unknown;
}

/** The keyboard of a seat: held keys make a direction, digits use abilities. Says what is asked for, and only when it changes. */
export class Controls {
  private readonly held = new Set<string>();
  private last = '0,0';

  /**
   * @param ask hears what the seat is asked for
   * @param abilities the ids of the seat's abilities, in the order of their keys
   */
  constructor(
    private readonly ask: (input: Ask) => void,
    private readonly abilities: () => readonly string[],
    /** Where a use is aimed; nothing where that is left to the rules. */
    private readonly aim: (ability: string) => Readonly<Record<string, unknown>> = () => ({}),
    /** What else a key asks for. */
    private readonly other: (key: string) => Ask | undefined = () => undefined,
  ) {}

  /** The keyboard of a seat's screen, whichever that is at the moment. */
  static of(screen: () => SeatState | undefined): Controls {
    return new Controls(
      (input) => screen()?.ask(input),
      () => (screen()?.shown(hudOf)?.abilities ?? []).map((ability) => ability.id),
      (ability) => screen()?.aim(ability) ?? {},
      (key) => screen()?.asks(key),
    );
  }

  /** Takes a key; true where it was one of the seat's. */
  key(event: KeyboardEvent, down: boolean): boolean {
    // Only presses can be meant for somebody else: a key that is let go of is let go of, whatever else is held by then.
    if (down && (event.ctrlKey || event.metaKey || event.altKey || isTyping(event))) return false;
    const name = event.key.toLowerCase();
    if (Object.hasOwn(KEYS, name)) {
      if (down) this.held.add(name);
      else this.held.delete(name);
      this.tell();
      if (down) event.preventDefault();
      return true;
    }
    const ability = down && !event.repeat && /^[1-6]$/.test(name) ? this.abilities()[Number(name) - 1] : undefined;
    if (ability !== undefined) this.ask({ do: 'use', ability, ...this.aim(ability) });
    else if (down && !event.repeat && name === 'x') {
      this.ask({ do: 'cancel' });
      return true;
    }
    if (ability === undefined && down && !event.repeat) {
      const asked = this.other(name);
      if (asked) this.ask(asked);
      return asked !== undefined;
    }
    return ability !== undefined;
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
    this.ask(x === 0 && y === 0 ? { do: 'stop' } : { do: 'move', x, y });
  }
}
