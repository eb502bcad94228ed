import type { z } from 'zod';
import { isTime, marks } from './fields.js';
import { registry } from './registry.js';

/** What can be put in one place of an action's sentence. */
export type ArgumentKind =
  | { readonly kind: 'reference'; readonly chapter: string; readonly kinds?: readonly string[] }
  /** One of a few words. */
  | { readonly kind: 'word'; readonly options: readonly string[] }
  | { readonly kind: 'amount' | 'condition' | 'duration' | 'number' | 'text' }
  /** A list of actions, several of which one is picked by weight, or amounts of attributes. */
  | { readonly kind: 'then' | 'branches' | 'parts' };

/** An action as a spec can say it. */
export interface ActionDescription {
  readonly do: string;
  readonly label: string;
  readonly sentence: string;
  /** It steers the list that it stands in, and is for nobody in particular. */
  readonly steers: boolean;
  readonly args: readonly { readonly name: string; readonly optional: boolean; readonly kind: ArgumentKind }[];
}

interface Definition {
  readonly type: string;
  readonly innerType?: z.ZodType;
  readonly element?: z.ZodType;
  readonly shape?: Readonly<Record<string, z.ZodType>>;
  readonly entries?: Readonly<Record<string, string>>;
}

const definition = (schema: z.ZodType) => schema._zod.def as Definition;

function kindOf(schema: z.ZodType): { optional: boolean; kind: ArgumentKind } {
  const mark = marks.get(schema);
  if (mark?.kind === 'reference') {
    const { kind, chapter, kinds } = mark;
    return { optional: false, kind: { kind, chapter, ...(kinds && { kinds }) } };
  }
  if (mark?.kind === 'formula') return { optional: false, kind: { kind: mark.place.yields === 'condition' ? 'condition' : 'amount' } };
  const def = definition(schema);
  if (def.type === 'optional') return { ...kindOf(def.innerType!), optional: true };
  if (def.type === 'array') {
    const { type, shape } = definition(def.element!);
    return { optional: false, kind: { kind: type === 'lazy' ? 'then' : shape?.['attribute'] ? 'parts' : 'branches' } };
  }
  if (def.type === 'enum') return { optional: false, kind: { kind: 'word', options: Object.values(def.entries ?? {}) } };
  if (def.type === 'union') return { optional: false, kind: { kind: 'amount' } };
  if (def.type === 'number') return { optional: false, kind: { kind: 'number' } };
  return { optional: false, kind: { kind: isTime(schema) ? 'duration' : 'text' } };
}

/** Every action there is, for pickers and sentences. */
export function describeActions(): readonly ActionDescription[] {
  return [...registry().actions].map(([name, spec]) => ({
    do: name,
    label: spec.label,
    sentence: spec.sentence,
    steers: spec.steer !== undefined,
    args: Object.entries(spec.args).map(([arg, schema]) => ({ name: arg, ...kindOf(schema) })),
  }));
}

/** An event as a pattern can wait for it. */
export interface EventDescription {
  readonly on: string;
  readonly label: string;
  /** Fields that name an entry, with its chapter. */
  readonly entries: readonly { readonly name: string; readonly chapter: string }[];
  /** Fields that are one of a few words. */
  readonly words: readonly { readonly name: string; readonly options: readonly string[] }[];
  /** Amounts that its condition can read, as in `event.asked`. */
  readonly amounts: readonly string[];
}

/** Every event that can be waited for. */
export function describeEvents(): readonly EventDescription[] {
  return [...registry().events].flatMap(([on, { label, carries }]) =>
    carries
      ? [
          {
            on,
            label,
            entries: Object.entries(carries.entries ?? {}).map(([name, chapter]) => ({ name, chapter })),
            words: Object.entries(carries.words ?? {}).map(([name, options]) => ({ name, options })),
            amounts: carries.amounts ?? [],
          },
        ]
      : [],
  );
}
