import { idOf, labelOf } from '../../../ruleset/rules.js';
import type { GameEvent } from '../../../world/events.js';
import type { World } from '../../../world/world.js';
import { EVERYBODY, type Given, type Who } from '../schema.js';
import { type Member, membersOf, nobodyWords } from './cast.js';

/** The tick in which what is given is set up: what happens in it is no part of what is looked at. */
export const FIRST = 1;

interface Known {
  readonly name: string;
  readonly kind: string;
  readonly team: string;
}

/** A check as it runs: the world, and who was ever in it. */
export class Story {
  private readonly known = new Map<number, Known>();
  private readonly noted = new WeakMap<GameEvent, { readonly t: number; readonly order: number }>();
  private count = 0;
  private version = -1;
  /** Ticks of the worlds before this one. */
  private before = 0;
  /** How many worlds there were. */
  worlds = 1;
  private readonly members = new Map<string, readonly Member[]>();

  constructor(
    readonly world: World,
    readonly given: readonly Given[],
  ) {}

  /** Notes who is there now: of somebody who goes it is still known who it was. */
  look(): void {
    const { actors, rules } = this.world;
    if (this.version === actors.version) return;
    this.version = actors.version;
    this.members.clear();
    const { type, team, name } = actors.cells;
    for (const row of actors.rows())
      this.known.set(actors.handle(row), {
        name: this.world.text(name[row]),
        kind: idOf(rules, 'actors', type[row]),
        team: idOf(rules, 'teams', team[row]),
      });
  }

  /** Seconds from the beginning until now. */
  at(): number {
    const { tick, rules } = this.world;
    return Math.round(((tick - FIRST + this.before) / rules.tickRate) * 1000) / 1000;
  }

  /** Notes what has happened by now. */
  note(events: readonly GameEvent[]): void {
    for (const event of events) this.noted.set(event, { t: this.at(), order: this.count++ });
  }

  /** Seconds from the beginning to an event. */
  when(event: GameEvent): number {
    return this.noted.get(event)?.t ?? 0;
  }

  /** The how manieth an event is among all. */
  order(event: GameEvent): number {
    return this.noted.get(event)?.order ?? -1;
  }

  /** The world is about to be a new one: its ticks are counted anew, and time goes on. */
  restart(): void {
    this.before += this.world.tick - FIRST;
    this.worlds++;
    this.version = -1;
    this.known.clear();
  }

  /** Those who are meant, as far as they are there. */
  of(who: Who | undefined): readonly Member[] {
    const key = typeof who === 'string' ? who : JSON.stringify(who ?? EVERYBODY);
    let members = this.members.get(key);
    if (!members) this.members.set(key, (members = membersOf(this.world, this.given, who)));
    return members;
  }

  /** Those who are meant, whether they are still there or not. */
  everOf(who: Who | undefined): readonly Member[] {
    return [...this.known].filter(([actor]) => this.isMeant(actor, who)).map(([actor, { name }]) => ({ actor, name }));
  }

  isMeant(actor: number, who: Who | undefined): boolean {
    const known = this.known.get(actor);
    if (!known) return false;
    if (who === undefined || who === EVERYBODY) return this.given.some(({ name }) => name === known.name);
    if (typeof who === 'string') return known.name === who;
    return 'every' in who ? known.kind === who.every : known.team === who.crew;
  }

  /** Whether somebody who is meant is still to come in, and nobody has been there who is. */
  awaits(who: Who | undefined): boolean {
    const isMeant = ({ name, later }: Given) => later === true && (typeof who === 'object' || who === name);
    return this.given.some(isMeant) && this.everOf(who).length === 0;
  }

  nobody(who: Who | undefined): string {
    if (typeof who === 'string' && this.awaits(who)) return `${who} is not there yet.`;
    return nobodyWords(this.world, this.given, who);
  }
}

/** What an entry is called within a sentence. */
export const lower = (rules: World['rules'], chapter: string, id: string): string => labelOf(rules, chapter, id).toLowerCase();

/** Moments in words: `at 1.35 s and at 4.2 s`. */
export function momentsOf(story: Story, events: readonly GameEvent[]): string {
  const MOST = 4;
  const told = events.slice(0, MOST).map((event) => `at ${story.when(event)} s`);
  if (events.length > MOST) told.push(events.length - MOST === 1 ? 'once more' : `${events.length - MOST} times more`);
  return told.length < 2 ? told.join('') : `${told.slice(0, -1).join(', ')} and ${told.at(-1)}`;
}
