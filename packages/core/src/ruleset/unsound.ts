import type { z } from 'zod';
import { ID_PATTERN } from './fields.js';
import type { Path } from './problem.js';
import { isObject } from './raw.js';
import { FORMAT } from './registry.js';
import type { RulesetDocument } from './rules.js';
import { VERSION } from './upgrade.js';

/** A document without its misshapen parts, and where its entries stood before. */
export interface Remainder {
  readonly document: RulesetDocument;
  readonly standing: (path: string) => string;
  /** Whether what stands at a place speaks of something that was taken out. */
  readonly shaken: (path: string) => boolean;
}

/** Takes out what has a wrong shape, so that the rest can still be looked at; undefined where nothing sound remains. */
export function withoutUnsound(
  raw: Record<string, unknown>,
  issues: readonly z.core.$ZodIssue[],
  schema: z.ZodObject,
): Remainder | undefined {
  const copy = JSON.parse(JSON.stringify(raw)) as Record<string, unknown>;
  const dropped = new Map<string, Set<number>>();
  for (const issue of issues) {
    const [key, position] = issue.path as [string, unknown];
    if (issue.code === 'unrecognized_keys') {
      // What it stood in may have been taken out already.
      const holder = at(copy, issue.path as Path);
      if (isObject(holder)) for (const unknown of issue.keys) Reflect.deleteProperty(holder, unknown);
    } else if (typeof position === 'number') dropped.set(key, (dropped.get(key) ?? new Set()).add(position));
    else Reflect.deleteProperty(copy, key);
  }
  const kept = new Map<string, number[]>();
  for (const [key, gone] of dropped) {
    const list = copy[key] as unknown[];
    kept.set(
      key,
      list.map((_, i) => i).filter((i) => !gone.has(i)),
    );
    copy[key] = list.filter((_, i) => !gone.has(i));
  }
  const parsed = schema.safeParse({ ...copy, format: FORMAT, version: VERSION, name: 'Remainder' });
  if (!parsed.success) return undefined;
  const standing = (path: string) =>
    path.replace(/^\/([^/]+)\/(\d+)/, (all, key: string, position: string) =>
      kept.has(key) ? `/${key}/${kept.get(key)![Number(position)]}` : all,
    );
  // An id may be anything there, also what can't be put in words.
  const gone = [...dropped].flatMap(([key, positions]) =>
    [...positions].map((i) => at(raw, [key, i, 'id'])).filter((id): id is string => typeof id === 'string' && id !== ''),
  );
  const names = gone.length === 0 ? undefined : new RegExp(`\\b(${gone.filter((id) => ID_PATTERN.test(id)).join('|') || '-'})\\b`);
  const shaken = (path: string) => {
    // Its entry, or what is placed: whatever of it is looked at may come of what it speaks of.
    const [key, position, third] = path.split('/').slice(1);
    const place = [key, position, third].slice(0, /^\d+$/.test(position ?? '') ? 2 : 3);
    return names !== undefined && names.test(JSON.stringify(at(copy, place)) ?? '');
  };
  return { document: parsed.data as RulesetDocument, standing, shaken };
}

function at(value: unknown, path: Path): unknown {
  return path.reduce<unknown>((v, key) => (v as Record<string | number, unknown> | undefined)?.[key], value);
}
