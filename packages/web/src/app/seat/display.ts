import {
  abilitiesTable,
  actorTable,
  attributesTable,
  bodiesTable,
  type Copy,
  costsFor,
  effectsTable,
  type Shape,
  statesTable,
  statusesTable,
  type ToldRowOf,
  type WireSchema,
} from '@eager-ember/core';

/** What concepts tell displays of the rules, as this interface draws it. */
export type Display = {
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
};

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

export const displayOf = (schema: WireSchema): Display => schema.display as Display;

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
  const { team } = copy.of(actorTable).row(row);
  return displayOf(copy.schema).teams.find(({ id }) => id === team);
}

/** What the crew of a seat is called. */
export const crewOf = (copy: Copy, row: number): string | undefined => teamOf(copy, row)?.label;

export function actorsOf(copy: Copy): readonly ActorView[] {
  const display = displayOf(copy.schema);
  const [known, bodies, states] = [copy.of(actorTable), copy.of(bodiesTable), copy.of(statesTable)];
  return known.rows().map((row) => {
    const { type: kind, name = '' } = known.row(row);
    const type = display.actors.find(({ id }) => id === kind);
    const { x = 0, y = 0, facingX = 0, facingY = 0 } = bodies.row(row);
    return {
      row,
      name,
      team: teamOf(copy, row),
      radius: radiusOf(copy, type?.radius ?? 12, row),
      x,
      y,
      kind: type?.kind ?? 'player',
      down: states.row(row).state === 'down',
      facing: { x: facingX, y: facingY },
    };
  });
}

/** A body's radius: a number, or what was told of the attribute that says it. */
function radiusOf(copy: Copy, radius: number | string, row: number): number {
  return typeof radius === 'number' ? radius : (copy.entries(attributesTable).value(row, radius) ?? 12);
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
  const values = copy.entries(attributesTable);
  const value = (id: string) => values.value(row, id);
  const known = display.attributes.filter(({ id }) => value(id) !== undefined);
  const bars = known
    .filter((a) => a.kind === 'pool')
    .map((a) => barOf(a, value(a.id)!, a.max ?? values.value(row, a.id, 'max'), values.value(row, a.id, 'min') ?? a.min));
  const figures = known
    .filter((a) => a.kind !== 'pool')
    .map((a) => ({ id: a.id, label: a.label, text: value(a.id)!.toFixed(a.decimals), icon: a.icon }));
  const owned = copy.of(abilitiesTable).ownedBy(row);
  const abilities = owned.map((one) => abilityOf(copy, display, row, one, value));
  const instances = copy.of(effectsTable);
  const effects = instances.rowsOf(row).map((at): EffectView => {
    const { effect, ends = 0, stacks = 0, uses = 0, muted = false } = instances.row(at);
    return {
      row: at,
      label: display.effects.find(({ id }) => id === effect)?.label ?? '',
      left: ends === 0 ? undefined : secondsLeft(copy, ends),
      stacks,
      uses,
      waits: muted,
    };
  });
  const grants = copy.entries(statusesTable);
  const statuses = display.statuses.filter(({ id }) => (grants.value(row, id) ?? 0) > 0).map(({ label }) => label);
  const { state: doing } = copy.of(statesTable).row(row);
  const state = doing === 'idle' || doing === 'moving' ? '' : (display.states.find(({ id }) => id === doing)?.label ?? '');
  return { bars, figures, abilities, effects, statuses, state };
}

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

function abilityOf(
  copy: Copy,
  display: Display,
  row: number,
  owned: ToldRowOf<typeof abilitiesTable>,
  value: (id: string) => number | undefined,
): AbilityView {
  const { ability: id = '', ready = 0, cooldown = 0, stored = 0, refill = 0 } = owned;
  const info = display.abilities.find((ability) => ability.id === id);
  // One that is used up waits for the next use in store, whatever else it waits for.
  const empty = info?.stored !== undefined && stored <= 0;
  const left = Math.max(secondsLeft(copy, ready), empty ? secondsLeft(copy, refill) : 0);
  const whole = Math.max(cooldown / copy.schema.tickRate, empty ? left : 0);
  const short = costsFor(copy, row, id, info?.costs ?? []).find((cost) => (value(cost.attribute) ?? Infinity) < cost.amount);
  const label = display.attributes.find((a) => a.id === short?.attribute)?.label.toLowerCase();
  return {
    id,
    label: info?.label ?? id,
    left,
    passed: whole > 0 ? 1 - left / whole : 1,
    lacks: short ? `needs ${short.amount} ${label}` : '',
    store: info?.stored === undefined ? '' : `${stored} of ${info.stored}`,
  };
}

/** What of the actors' attributes the truth knows and a copy was not told, in words. */
export function untold(truth: Copy, copy: Copy): string {
  const told = displayOf(truth.schema).attributes;
  const [there, here] = [truth.entries(attributesTable), copy.entries(attributesTable)];
  const actors = truth.of(actorTable);
  const parts = actors.rows().flatMap((row) => {
    const hidden = told.filter(({ id }) => there.value(row, id) !== undefined && here.value(row, id) === undefined);
    const shown = hidden.slice(0, 3).map((a) => a.label.toLowerCase());
    if (hidden.length > 3) shown.push(`${hidden.length - 3} more`);
    return hidden.length > 0 ? [`${actors.row(row).name ?? ''}’s ${shown.join(', ')}`] : [];
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
