import { registry } from './registry.js';
import { pointer, type Problem } from './problem.js';

/** A document as somebody wrote it, of whatever shape its parts are. */
export type RawDocument = Readonly<Record<string, unknown>>;

export const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

export function* chapterKeys(): Iterable<string> {
  for (const [key, section] of registry().sections) if (section.kind === 'chapter') yield key;
}

/** The ids of a chapter by position; empty where an entry has none. */
export function rawIds(raw: RawDocument, chapter: string): string[] {
  const list = raw[chapter];
  return Array.isArray(list) ? list.map((entry) => (isObject(entry) && typeof entry['id'] === 'string' ? entry['id'] : '')) : [];
}

/** Ids that two entries of a chapter have, or one had and another has. */
export function duplicateIds(raw: RawDocument): Problem[] {
  const problems: Problem[] = [];
  for (const key of chapterKeys()) {
    const ids = rawIds(raw, key);
    const firsts = new Map<string, number>();
    ids.forEach((id, i) => {
      const first = firsts.get(id);
      if (first === undefined) firsts.set(id, i);
      else if (id !== '')
        problems.push({ path: pointer([key, i, 'id']), message: `${id} is taken by entry ${first} of this chapter: ids are unique.` });
    });
    problems.push(...formerIds(raw, key, ids));
  }
  return problems;
}

/** What was saved under a former id follows its entry: it can belong to one only. */
function formerIds(raw: RawDocument, key: string, ids: readonly string[]): Problem[] {
  const owners = new Map(ids.map((id, i) => [id, i]));
  const list = Array.isArray(raw[key]) ? raw[key] : [];
  return list.flatMap((entry: unknown, i) => {
    const former = isObject(entry) && Array.isArray(entry['formerly']) ? entry['formerly'] : [];
    return former.flatMap((old: unknown, k) => {
      const owner = owners.get(String(old));
      if (owner === undefined) owners.set(String(old), i);
      return owner === undefined || typeof old !== 'string'
        ? []
        : [
            {
              path: pointer([key, i, 'formerly', k]),
              message: `${old} is an id of entry ${owner} of this chapter, present or former: what was saved under it can follow one entry only.`,
            },
          ];
    });
  });
}
