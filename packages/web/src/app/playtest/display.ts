import { type Copy, costsFor, type Shape, type WireSchema } from '@eager-ember/core';

/** What concepts tell displays of the rules, as this interface draws it. */
export interface Display {
  readonly attributes: readonly AttributeDisplay[];
  readonly abilities: readonly {
    readonly id: string;
    readonly label: string;
    readonly costs: readonly { readonly attribute: string; readonly amount: number }[];
    readonly aim: string;
    /** Most uses in store, where some are kept. */
    readonly stored?: number;
    readonly colour?: string;
    /** Of what it sends flying. */
    readonly radius?: number;
  }[];
  readonly states: readonly { readonly id: string; readonly label: string; readonly allows: readonly string[] }[];
  readonly effects: readonly { readonly id: string; readonly label: string }[];
  readonly statuses: readonly { readonly id: string; readonly label: string }[];
  readonly pickups: readonly {
    readonly id: string;
    readonly label: string;
    readonly radius: number;
    readonly shape: string;
    /** The attribute of which it gives what it is worth, where luck has decided that as it appeared. */
    readonly gives?: string;
  }[];
  readonly zones: readonly {
    readonly id: string;
    readonly label: string;
    readonly index: number;
    readonly x: number;
    readonly y: number;
    readonly colour?: string;
    readonly radius?: number;
    readonly width?: number;
    readonly height?: number;
  }[];
  readonly interactions: readonly { readonly id: string; readonly prompt: string }[];
  readonly containers: readonly { readonly actor: string; readonly id: string; readonly takes: string }[];
  readonly tracks?: readonly { readonly id: string; readonly label: string; readonly levels: number; readonly needs: readonly number[] }[];
  readonly trees?: readonly TreeDisplay[];
  readonly achievements?: {
    readonly list: readonly {
      readonly id: string;
      readonly label: string;
      readonly text: string;
      readonly count: number;
      readonly points: number;
      readonly hud: boolean;
    }[];
    /** How many there are that nobody is told of. */
    readonly secrets: number;
  };
  readonly days?: { readonly currency: string; readonly key: boolean; readonly ruin?: string; readonly goal?: string };
  readonly markets?: readonly {
    readonly id: string;
    readonly label: string;
    readonly goods: readonly { readonly id: string; readonly label: string }[];
  }[];
  readonly shops?: {
    readonly shops: readonly { readonly id: string; readonly label: string; readonly sells: readonly string[] }[];
    readonly offers: readonly { readonly id: string; readonly label: string; readonly tiers: number; readonly stock: number }[];
  };
  readonly teams: readonly TeamDisplay[];
  readonly actors: readonly { readonly id: string; readonly label: string; readonly kind: string; readonly radius: number | string }[];
  readonly arena: {
    readonly width: number;
    readonly height: number;
    readonly walls: readonly { readonly x: number; readonly y: number; readonly width: number; readonly height: number }[];
  };
}

export interface AttributeDisplay {
  readonly id: string;
  readonly label: string;
  readonly kind: 'pool' | 'stat' | 'counter';
  readonly decimals: number;
  readonly unit: string;
  readonly group: string;
  readonly see: string;
  readonly min: number;
  readonly max?: number;
  readonly colour?: string;
  readonly icon?: string;
}

/** A skill tree as a seat is told of it: its shape, and what there is to read. */
export interface TreeDisplay extends Shape {
  readonly id: string;
  readonly label: string;
  readonly how: string;
  readonly price?: { readonly attribute: string; readonly amount: number };
  /** The ids of the tracks, by the numbers that needs speak of. */
  readonly tracks: readonly string[];
  readonly nodes: readonly (Shape['nodes'][number] & {
    readonly id: string;
    readonly label: string;
    readonly note: string;
    readonly x: number;
    readonly y: number;
  })[];
}

export interface TeamDisplay {
  readonly id: string;
  readonly label: string;
  readonly colour: string;
  readonly pattern: string;
  readonly mark: string;
  /** Whether it takes players. */
  readonly open?: boolean;
}

export const displayOf = (schema: WireSchema): Display => schema.display as unknown as Display;

/** An actor as a copy knows it. */
export interface ActorView {
  readonly row: number;
  readonly name: string;
  readonly team: TeamDisplay | undefined;
  readonly radius: number;
  readonly x: number;
  readonly y: number;
  readonly kind: string;
  readonly down: boolean;
  readonly facing: { readonly x: number; readonly y: number };
}

/** The team of an actor, as far as the copy was told. */
export function teamOf(copy: Copy, row: number): TeamDisplay | undefined {
  return displayOf(copy.schema).teams.find((team) => team.id === copy.value('actors', row, 'team'));
}

export function actorsOf(copy: Copy): readonly ActorView[] {
  const display = displayOf(copy.schema);
  return copy.rows('actors').map((row) => {
    const type = display.actors.find((actor) => actor.id === copy.value('actors', row, 'type'));
    const number = (column: string) => Number(copy.value('bodies', row, column) ?? 0);
    return {
      row,
      name: String(copy.value('actors', row, 'name') ?? ''),
      team: teamOf(copy, row),
      radius: radiusOf(copy, type?.radius ?? 12, row),
      x: number('x'),
      y: number('y'),
      kind: type?.kind ?? 'player',
      down: copy.value('states', row, 'state') === 'down',
      facing: { x: number('facingX'), y: number('facingY') },
    };
  });
}

/** A body's radius: a number, or what was told of the attribute that says it. */
function radiusOf(copy: Copy, radius: number | string, row: number): number {
  return typeof radius === 'number' ? radius : Number(copy.value('attributes', row, radius) ?? 12);
}

export interface BarView {
  readonly id: string;
  readonly label: string;
  readonly value: number;
  readonly text: string;
  readonly share: number;
  readonly max: number;
  readonly colour: string | undefined;
  readonly icon: string | undefined;
}

export interface AbilityView {
  readonly id: string;
  readonly label: string;
  /** Seconds until it is ready; 0 when it is. */
  readonly left: number;
  /** How much of the cooldown has passed, 0 to 1. */
  readonly passed: number;
  /** What it lacks, in words. */
  readonly lacks: string;
  /** Uses in store of how many, where some are kept. */
  readonly store: string;
}

export interface EffectView {
  readonly row: number;
  readonly label: string;
  /** Seconds; none where only an event ends it. */
  readonly left: number | undefined;
  readonly stacks: number;
  /** Events that it still takes to use it up; 0 for one that is not used up. */
  readonly uses: number;
  /** A stronger one of its kind counts. */
  readonly waits: boolean;
}

/** What a seat's heads-up display shows. */
export interface HudView {
  readonly bars: readonly BarView[];
  readonly figures: readonly { readonly id: string; readonly label: string; readonly text: string; readonly icon: string | undefined }[];
  readonly abilities: readonly AbilityView[];
  readonly effects: readonly EffectView[];
  readonly statuses: readonly string[];
  /** The state that it is in, where it is more than standing or moving. */
  readonly state: string;
}

const secondsLeft = (copy: Copy, tick: number) => Math.max(0, Math.ceil(((tick - copy.tick) * 10) / copy.schema.tickRate - 1e-9) / 10);

/** Reads an actor's display from a copy: only what the copy was told. */
export function hudOf(copy: Copy, row: number): HudView {
  const display = displayOf(copy.schema);
  const value = (id: string) => copy.value('attributes', row, id) as number | undefined;
  const known = display.attributes.filter(({ id }) => value(id) !== undefined);
  const bars = known
    .filter((a) => a.kind === 'pool')
    .map((a) => barOf(a, value(a.id)!, a.max ?? value(`${a.id}.max`), value(`${a.id}.min`) ?? a.min));
  const figures = known
    .filter((a) => a.kind !== 'pool')
    .map((a) => ({ id: a.id, label: a.label, text: value(a.id)!.toFixed(a.decimals), icon: a.icon }));
  const owned = copy.rows('abilities').filter((r) => isOwn(copy, 'abilities', r, row));
  const abilities = owned.map((r) => abilityOf(copy, display, row, r, value));
  const effects = copy
    .rows('effects')
    .filter((r) => isOwn(copy, 'effects', r, row))
    .map((r): EffectView => {
      const number = (column: string) => Number(copy.value('effects', r, column) ?? 0);
      return {
        row: r,
        label: display.effects.find((e) => e.id === copy.value('effects', r, 'effect'))?.label ?? '',
        left: number('ends') === 0 ? undefined : secondsLeft(copy, number('ends')),
        stacks: number('stacks'),
        uses: number('uses'),
        waits: number('muted') === 1,
      };
    });
  const statuses = display.statuses.filter(({ id }) => Number(copy.value('statuses', row, id) ?? 0) > 0).map(({ label }) => label);
  const doing = copy.value('states', row, 'state');
  const state = doing === 'idle' || doing === 'moving' ? '' : (display.states.find(({ id }) => id === doing)?.label ?? '');
  return { bars, figures, abilities, effects, statuses, state };
}

const ROW_MASK = 0xfffff;
/** The row that a handle of an actor names. */
export const rowOf = (handle: number) => handle & ROW_MASK;
const isOwn = (copy: Copy, table: string, row: number, actor: number) => rowOf(Number(copy.value(table, row, 'actor') ?? -1)) === actor;

function barOf({ id, label, decimals, colour, icon }: AttributeDisplay, value: number, max: number | undefined, min: number): BarView {
  const end = max ?? value;
  return {
    id,
    label,
    value,
    text: value.toFixed(decimals),
    max: end,
    colour,
    icon,
    share: end > min ? Math.min(1, Math.max(0, (value - min) / (end - min))) : 0,
  };
}

function abilityOf(copy: Copy, display: Display, row: number, owned: number, value: (id: string) => number | undefined): AbilityView {
  const id = String(copy.value('abilities', owned, 'ability'));
  const info = display.abilities.find((ability) => ability.id === id);
  const number = (column: string) => Number(copy.value('abilities', owned, column) ?? 0);
  // One that is used up waits for the next use in store, whatever else it waits for.
  const empty = info?.stored !== undefined && number('stored') <= 0;
  const left = Math.max(secondsLeft(copy, number('ready')), empty ? secondsLeft(copy, number('refill')) : 0);
  const whole = Math.max(number('cooldown') / copy.schema.tickRate, empty ? left : 0);
  const short = costsFor(copy, row, id, info?.costs ?? []).find((cost) => (value(cost.attribute) ?? Infinity) < cost.amount);
  const label = display.attributes.find((a) => a.id === short?.attribute)?.label.toLowerCase();
  return {
    id,
    label: info?.label ?? id,
    left,
    passed: whole > 0 ? 1 - left / whole : 1,
    lacks: short ? `needs ${short.amount} ${label}` : '',
    store: info?.stored === undefined ? '' : `${number('stored')} of ${info.stored}`,
  };
}

/** What of the actors' attributes the truth knows and a copy was not told, in words. */
export function untold(truth: Copy, copy: Copy): string {
  const told = displayOf(truth.schema).attributes;
  const parts = truth.rows('actors').flatMap((row) => {
    const hidden = told.filter(
      ({ id }) => truth.value('attributes', row, id) !== undefined && copy.value('attributes', row, id) === undefined,
    );
    const shown = hidden.slice(0, 3).map((a) => a.label.toLowerCase());
    if (hidden.length > 3) shown.push(`${hidden.length - 3} more`);
    return hidden.length > 0 ? [`${truth.value('actors', row, 'name')}’s ${shown.join(', ')}`] : [];
  });
  return parts.join('; ');
}

/** Where a copy says other than the truth of the same tick; undefined where they can't be compared at the moment. */
export function difference(truth: Copy, copy: Copy): string | undefined {
  if (truth.tick !== copy.tick) return undefined;
  for (const { name, columns } of copy.schema.tables)
    for (const row of copy.rows(name))
      for (const column of columns) {
        const seen = copy.value(name, row, column.name);
        const real = truth.value(name, row, column.name);
        if (seen !== undefined && seen !== real) return `${name} ${row} ${column.name}: ${seen}, in truth ${real}`;
      }
  return '';
}
