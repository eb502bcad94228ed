import type { Logger } from 'pino';
import type { Transaction } from 'sequelize';
import { TrailEntry } from '../database/models.js';

/** What is noted of who did something; each with what it is about. */
export type Deed =
  | { readonly what: 'signedIn' | 'signedOut' | 'sessionEnded'; readonly about: { readonly session: string; readonly agent: string } }
  | { readonly what: 'linkPrinted'; readonly about: Readonly<Record<string, never>> }
  | { readonly what: 'begun'; readonly about: { readonly name: string } }
  | {
      readonly what: 'edited';
      readonly about: { readonly revision: number; readonly operations: number; readonly paths: readonly string[] };
    }
  | { readonly what: 'playerChanged' | 'playerDeleted' | 'asideDeleted'; readonly about: { readonly player: string } }
  | { readonly what: 'roomOpened' | 'roomClosed'; readonly about: { readonly room: string } }
  | { readonly what: 'linkReplaced' | 'linkEnded'; readonly about: { readonly room: string; readonly seat: string } }
  | {
      readonly what: 'poked';
      readonly about: { readonly room: string; readonly seat?: string; readonly from?: string; readonly action: unknown };
    };

export type Noted = Deed & {
  /** The id of the user; null for the machine's own terminal. */
  readonly who: string | null;
  /** The ruleset that it is about; null where it is about none. */
  readonly ruleset: string | null;
};

/** How long a note may wait for others, to be stored together. */
const GATHER_MS = 250;
/** What waits while the database is away; what comes then is not noted. */
const MOST_WAITING = 20_000;
/** How many paths of an edit are noted. */
export const MOST_PATHS = 20;

/** Who did what: notes in the order in which they were made, never changed afterwards. */
export class Trail {
  private waiting: { readonly noted: Noted; readonly at: Date }[] = [];
  private timer: NodeJS.Timeout | undefined;
  private storing: Promise<void> = Promise.resolve();

  constructor(private readonly log: Logger) {}

  /** Notes something together with what it is about: both are stored, or neither. */
  async within(transaction: Transaction, noted: Noted): Promise<void> {
    await TrailEntry.create(row(noted, new Date()), { transaction });
  }

  /** Notes something that has happened already, in a moment. */
  note(noted: Noted): void {
    if (this.waiting.length >= MOST_WAITING) return this.log.error({ noted }, 'the trail can’t be stored for long: this is not noted');
    this.waiting.push({ noted, at: new Date() });
    this.timer ??= setTimeout(() => void this.flush(), GATHER_MS).unref();
  }

  /** Has all that waits be stored; what can't be is tried again later. */
  flush(): Promise<void> {
    clearTimeout(this.timer);
    this.timer = undefined;
    this.storing = this.storing.then(() => this.store());
    return this.storing;
  }

  private async store(): Promise<void> {
    const now = this.waiting;
    if (now.length === 0) return;
    this.waiting = [];
    try {
      await TrailEntry.bulkCreate(now.map(({ noted, at }) => row(noted, at)));
    } catch (error) {
      this.log.warn({ err: error }, 'the trail could not be stored; trying again');
      this.waiting = [...now, ...this.waiting];
      this.timer ??= setTimeout(() => void this.flush(), GATHER_MS * 8).unref();
    }
  }
}

const row = ({ who, ruleset, what, about }: Noted, at: Date) => ({ userId: who, rulesetId: ruleset, what, about, at });
