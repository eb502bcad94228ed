import { type AbilityView, type AbilityRefusal, refusalOf } from '../abilities/refusals.js';
import { type Ground, stepBody } from '../movement/ground.js';
import type { Announcement, Copy } from '../../replication/index.js';
import { costsFor, type ShownCost } from './predicted-costs.js';
import { abilitiesTable, castsTable } from '../abilities/tables.js';
import { attributesTable } from '../attributes/tables.js';
import { bodiesTable } from '../movement/tables.js';
import { statesTable } from '../states/tables.js';
import { actorTable } from '../../world/actors.js';

/** What a display is told of the rules, as far as a prediction needs it. */
type Shown = {
  readonly arena: Ground;
  readonly actors: readonly { readonly id: string; readonly radius: number | string; readonly speed?: string }[];
  readonly states: readonly { readonly id: string; readonly allows: readonly string[] }[];
  readonly abilities: readonly {
    readonly id: string;
    readonly costs: readonly ShownCost[];
    readonly stored?: number;
    readonly still?: boolean;
  }[];
};

interface Heading {
  readonly x: number;
  readonly y: number;
}

/** A tick that was lived here and that the server has not told of yet. */
interface Lived extends Heading {
  /** The number of the last input that had been sent by then. */
  readonly n: number;
}

/** A use that was asked for, and what has become of it. */
export interface PredictedUse {
  readonly ability: string;
  readonly n: number;
  /** `waiting` for the server's word; `takenBack` where the server refused what was expected here. */
  readonly state: 'waiting' | 'takenBack';
  /** Ticks lived here since it was asked for or taken back. */
  readonly age: number;
}

/** More than this was never lived ahead: a connection that is so late predicts no more. */
const MOST_AHEAD = 200;
/** How many ticks it stays known that something was taken back. */
const REMEMBERED = 30;
const STILL: Heading = { x: 0, y: 0 };

/**
 * What a seat expects of its own actor before it is told: where it is, by the same steps as the server's, and what it has
 * begun, by the same questions. The server's word always counts: each frame puts the expectation on what it tells, and only
 * what was asked since is added.
 */
export class Prediction {
  private lived: Lived[] = [];
  private heading: Heading = STILL;
  private last = 0;
  private pending: { ability: string; n: number; state: PredictedUse['state']; age: number; answered: boolean }[] = [];

  constructor(
    private readonly copy: Copy,
    /** The row of the seat's actor. */
    private readonly row: number,
  ) {}

  private get shown(): Shown {
    return this.copy.schema.display as Shown;
  }

  /** An input is sent. Returns what refuses a use here already: it is sent all the same, and the server's word counts. */
  sent(n: number, input: { readonly do: string; readonly [argument: string]: unknown }): AbilityRefusal | undefined {
    this.last = n;
    if (input.do === 'move') this.heading = { x: Number(input['x']), y: Number(input['y']) };
    if (input.do === 'stop' || input.do === 'moveTo') this.heading = STILL;
    if (input.do !== 'use') return undefined;
    const ability = String(input['ability']);
    const refusal = this.refusal(ability);
    if (!refusal) this.pending.push({ ability, n, state: 'waiting', age: 0, answered: false });
    return refusal;
  }

  /** A tick is lived here. */
  step(): void {
    this.lived.push({ ...this.heading, n: this.last });
    if (this.lived.length > MOST_AHEAD) this.lived.shift();
    for (const use of this.pending) use.age++;
    this.pending = this.pending.filter((use) => use.state === 'waiting' || use.age < REMEMBERED);
  }

  /** A frame was taken in: what the server has lived through is no longer expected. */
  confirmed(): void {
    const seen = this.copy.heard;
    this.lived = this.lived.filter(({ n }) => n > seen);
    // A refusal is told just behind the frame that it belongs to: what is not refused by the next one was not refused.
    this.pending = this.pending.filter((use) => use.state === 'takenBack' || !use.answered);
    for (const use of this.pending) use.answered ||= use.n <= seen;
  }

  /** Announcements were heard: a use that the server refused is taken back. */
  heard(items: readonly Announcement[]): void {
    for (const { event, data } of items) {
      if (event !== 'abilityRefused') continue;
      const use = this.pending.find((waiting) => waiting.state === 'waiting' && waiting.ability === data['ability']);
      if (use) Object.assign(use, { state: 'takenBack', age: 0 });
    }
  }

  /** Uses that were asked for and are not confirmed, and those lately taken back. */
  get uses(): readonly PredictedUse[] {
    return this.pending;
  }

  /** Where the actor is expected to be; undefined where that can't be told from here. */
  place(): { readonly x: number; readonly y: number } | undefined {
    const { copy, row } = this;
    const { x, y } = copy.of(bodiesTable).row(row);
    const { type } = copy.of(actorTable).row(row);
    const values = copy.entries(attributesTable);
    const kind = this.shown.actors.find(({ id }) => id === type);
    const speed = kind?.speed === undefined ? undefined : values.value(row, kind.speed);
    const radius = typeof kind?.radius === 'string' ? values.value(row, kind.radius) : kind?.radius;
    if (x === undefined || y === undefined || speed === undefined || radius === undefined) return undefined;
    let at = { x, y };
    if (copy.of(statesTable).row(row).free !== true) return at;
    const way = speed / copy.schema.tickRate;
    for (const { x: dx, y: dy } of this.lived) if (dx !== 0 || dy !== 0) at = stepBody(this.shown.arena, at.x, at.y, dx, dy, way, radius);
    return at;
  }

  /** Whether anything is expected that was not told. */
  get expects(): boolean {
    return this.pending.length > 0 || this.ahead() > 0;
  }

  /** How far the expectation is from what was told, in arena units. */
  ahead(): number {
    const at = this.place();
    if (!at) return 0;
    const { x = 0, y = 0 } = this.copy.of(bodiesTable).row(this.row);
    return Math.sqrt((at.x - x) * (at.x - x) + (at.y - y) * (at.y - y));
  }

  /** What keeps the seat's actor from beginning an ability, as far as the seat can know. */
  refusal(id: string): AbilityRefusal | undefined {
    const { copy, row, shown } = this;
    const ability = shown.abilities.find((known) => known.id === id);
    const owned = copy
      .of(abilitiesTable)
      .ownedBy(row)
      .find((one) => one.ability === id);
    const { ready = 0, stored = 0, refill = 0 } = owned ?? {};
    const { state } = copy.of(statesTable).row(row);
    const values = copy.entries(attributesTable);
    const view: AbilityView = {
      owned: () => owned !== undefined && ability !== undefined,
      busyWith: () =>
        copy
          .of(castsTable)
          .ownedBy(row)
          .find(({ phase }) => phase !== 'recovering')?.ability,
      forbiddingState: () => {
        const known = shown.states.find((candidate) => candidate.id === state);
        return known && !known.allows.includes('use') ? known.id : undefined;
      },
      // What is sent now is asked in the next tick at the earliest.
      wait: () => Math.max(0, ready - copy.tick - 1),
      storeWait: () => (ability?.stored !== undefined && stored <= 0 ? Math.max(0, refill - copy.tick - 1) : 0),
      unmet: () => undefined,
      onTheWay: () => ability?.still === true && (this.heading.x !== 0 || this.heading.y !== 0),
      aim: () => undefined,
      short: () => {
        const short = costsFor(copy, row, id, ability?.costs ?? []).find(({ attribute, amount }) => {
          const present = values.value(row, attribute);
          // A copy is told rounded numbers: only what is short by more than that is known to be short.
          return present !== undefined && present + 1 <= amount;
        });
        return short && { attribute: short.attribute, needs: short.amount, present: values.value(row, short.attribute)! };
      },
    };
    return refusalOf(view);
  }
}
