import { decode } from '@msgpack/msgpack';
import { type Guarded, GUARDED_SEATS } from './guarded.js';

/** Two seats are of one crew or not. */
export type Crews = (seat: number) => number;

/**
 * Says what of the bytes that were sent to a seat it should not have been told. It knows nothing of how the server comes to
 * send them: only whose every word and every number of the ruleset is, and who may see it.
 */
export class Audit {
  /** Words and numbers of others that each seat was rightly told, so that a test can say that there was something to see. */
  readonly rightly = GUARDED_SEATS.map(() => new Set<string>());

  constructor(
    private readonly guarded: Guarded,
    private readonly crewOf: Crews,
    /** Numbers that all are told and that may be multiples of a mark by chance, such as the time of day. */
    private readonly isForAll: (value: number) => boolean = () => false,
  ) {}

  /** What is wrong with a message to a seat, whatever is in it. Frames are lists, all else maps. */
  faults(seat: number, bytes: Uint8Array): readonly string[] {
    const message = decode(bytes) as unknown;
    const { words, numbers } = contents(message);
    // The rules themselves are for all seats alike; what is said of an actor is for those who may see it of that actor.
    const isRules = (message as { t?: string }).t === 'welcome';
    const faults: string[] = [];
    for (const { word, see, seat: whose, unknown } of this.guarded.tokens) {
      if (!words.includes(word)) continue;
      const allowed = isRules ? see !== 'server' && !unknown : this.maySee(see, whose, seat);
      if (!allowed) faults.push(`${word} (${see} of ${whose === undefined ? 'all' : GUARDED_SEATS[whose]})`);
      else if (!isRules && whose !== seat) this.rightly[seat].add(word);
    }
    for (const { prime, see, seat: whose } of this.guarded.marks) {
      const telling = numbers.find((number) => number !== 0 && number % prime === 0 && !this.isForAll(number));
      if (telling === undefined) continue;
      const allowed = isRules ? see !== 'server' : this.maySee(see, whose, seat);
      if (!allowed) faults.push(`${telling}, a multiple of ${prime} (${see} of ${whose === undefined ? 'all' : GUARDED_SEATS[whose]})`);
      else if (!isRules && whose !== seat) this.rightly[seat].add(String(prime));
    }
    return faults;
  }

  private maySee(see: string, whose: number | undefined, seat: number): boolean {
    if (see === 'server') return false;
    // Of what all have each may see their own, and whose a number is can't be told.
    if (see === 'everyone' || whose === undefined || whose === seat) return true;
    return see === 'team' && this.crewOf(whose) >= 0 && this.crewOf(whose) === this.crewOf(seat);
  }
}

/** Everything that can be read in a message: all its texts, and all its numbers, also those within its texts. */
function contents(message: unknown): { words: string; numbers: readonly number[] } {
  const texts: string[] = [];
  const numbers: number[] = [];
  const read = (value: unknown): void => {
    if (typeof value === 'number') numbers.push(value);
    else if (typeof value === 'string') {
      texts.push(value);
      for (const number of value.match(/\d+(\.\d+)?/g) ?? []) numbers.push(Number(number));
    } else if (value instanceof Uint8Array) read(decode(value));
    else if (Array.isArray(value)) value.forEach(read);
    else if (typeof value === 'object' && value !== null)
      for (const [key, inside] of Object.entries(value)) {
        texts.push(key);
        read(inside);
      }
  };
  read(message);
  return { words: texts.join('\n').toLowerCase(), numbers };
}
