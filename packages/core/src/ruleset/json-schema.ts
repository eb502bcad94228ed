import { z } from 'zod';
import { marks } from './marks.js';
import { registry } from './registry.js';
import type { Rules } from './rules.js';

/**
 * The JSON Schema (2020-12) of rulesets. With rules at hand, what refers to an entry is one of the ids that they have: an
 * editor then offers them.
 */
export function rulesetSchema(rules?: Rules): Record<string, unknown> {
  const schema = z.toJSONSchema(registry().document, {
    io: 'input',
    unrepresentable: 'any',
    reused: rules ? 'inline' : 'ref',
    cycles: 'ref',
    override: ({ zodSchema, jsonSchema }) => {
      const mark = marks.get(zodSchema as unknown as z.ZodType);
      if (mark?.kind !== 'reference' || !rules) return;
      const ids = rules.chapters.get(mark.chapter)?.ids ?? [];
      if (ids.length > 0) jsonSchema.enum = [...ids];
    },
  });
  const title = rules ? `Eager Ember ruleset “${rules.document.name}”` : 'Eager Ember ruleset, version 1';
  return { title, ...(schema as Record<string, unknown>) };
}
