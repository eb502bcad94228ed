import type { z } from 'zod';
import { marks } from './fields.js';
import { registry } from './registry.js';

/** What can be put in one place of an action's sentence. */
export type ArgumentKind = { readonly kind: 'reference'; readonly chapter: string } | { readonly kind: 'amount' | 'number' | 'text' };

/** An action as a spec can say it. */
export interface ActionDescription {
  readonly do: string;
  readonly label: string;
  readonly sentence: string;
  readonly args: readonly { readonly name: string; readonly optional: boolean; readonly kind: ArgumentKind }[];
}

function kindOf(schema: z.ZodType): { optional: boolean; kind: ArgumentKind } {
  const mark = marks.get(schema);
  if (mark?.kind === 'reference') return { optional: false, kind: { kind: 'reference', chapter: mark.chapter } };
  const { def } = (schema as unknown as { _zod: { def: { type: string; innerType?: z.ZodType } } })._zod;
  if (def.type === 'optional') return { ...kindOf(def.innerType!), optional: true };
  return { optional: false, kind: { kind: def.type === 'union' ? 'amount' : def.type === 'number' ? 'number' : 'text' } };
}

/** Every action there is, for pickers and sentences. */
export function describeActions(): readonly ActionDescription[] {
  return [...registry().actions].map(([name, spec]) => ({
    do: name,
    label: spec.label,
    sentence: spec.sentence,
    args: Object.entries(spec.args).map(([arg, schema]) => ({ name: arg, ...kindOf(schema) })),
  }));
}
