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
  private version = -1;
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

  /** Seconds from the beginning to the end of a tick. */
  at(tick = this.world.tick): number {
    return Math.round(((tick - FIRST) / this.world.rules.tickRate) * 1000) / 1000;
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

  nobody(who: Who | undefined): string {
    return nobodyWords(this.world, this.given, who);
  }

  /** An actor as a sentence calls it. */
  nameOf(actor: number): string {
    return this.known.get(actor)?.name ?? '';
  }
}

/** What an entry is called within a sentence. */
export const lower = (rules: World['rules'], chapter: string, id: string): string => labelOf(rules, chapter, id).toLowerCase();

/** Moments in words: `at 1.35 s and at 4.2 s`. */
export function momentsOf(story: Story, events: readonly GameEvent[]): string {
  const MOST = 4;
  const told = events.slice(0, MOST).map(({ tick }) => `at ${story.at(tick)} s`);
  if (events.length > MOST) told.push(`${events.length - MOST} times more`);
  return told.length < 2 ? told.join('') : `${told.slice(0, -1).join(', ')} and ${told.at(-1)}`;
}
