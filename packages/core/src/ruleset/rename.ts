import { ID_PATTERN } from './fields.js';
import { type Mention, mentionsOf, placeOfMention } from './mentions.js';
import { pointer, type PatchOperation } from './problem.js';
import type { Rules } from './rules.js';

/** What is in the way of a new id, or the one step that brings it about everywhere. */
export type Renaming =
  { readonly patch: readonly PatchOperation[]; readonly problem?: undefined } | { readonly patch?: undefined; readonly problem: string };

/**
 * Renames an entry: rewrites every reference and every formula that speaks of it, in one step, and notes the id that it
 * had, so that what was saved under it follows. Formulas keep their spelling but for the name.
 * @param note whether the old id is noted; not for an entry so new that nothing can have been saved under it
 */
export function renameEntry(rules: Rules, chapter: string, from: string, to: string, note = true): Renaming {
  const { ids = [], former } = rules.chapters.get(chapter) ?? {};
  const position = ids.indexOf(from);
  if (position < 0) return { problem: `There is no ${from} to rename.` };
  if (to === from) return { patch: [] };
  const written = (rules.document[chapter] as readonly unknown[] | undefined)?.length ?? 0;
  if (position >= written) return { problem: `${from} is one that every ruleset has: it keeps its id. Begin one of your own instead.` };
  if (!ID_PATTERN.test(to)) return { problem: 'An id is camelCase: a small letter, then letters and digits, at most 48 in all.' };
  if (ids.includes(to)) return { problem: `${to} is taken by another entry of this chapter.` };
  const owner = former?.get(to);
  if (owner !== undefined && owner !== position)
    return { problem: `${to} was the id of ${ids[owner]} before: what was saved under it belongs there.` };
  const patch: PatchOperation[] = [{ op: 'replace', path: pointer([chapter, position, 'id']), value: to }];
  for (const { by, mention } of mentionsOf(rules, chapter, from)) {
    const value = mention.mark.kind === 'reference' ? to : renamedIn(mention, chapter, from, to);
    patch.push({ op: 'replace', path: pointer(placeOfMention(by, mention)), value });
  }
  const known = rules.chapters.get(chapter)!.entries[position].formerly ?? [];
  const noted = [...known.filter((old) => old !== to), ...(note ? [from] : [])].slice(-50);
  const list = pointer([chapter, position, 'formerly']);
  if (noted.length > 0) patch.push({ op: 'add', path: list, value: noted });
  else if (known.length > 0) patch.push({ op: 'remove', path: list });
  return { patch };
}

/** A formula with one name replaced wherever it stands for that entry. */
function renamedIn({ value: text, speaksOf }: Mention, chapter: string, from: string, to: string): string {
  // White space may stand between a party and its name: the name itself comes next.
  const places = speaksOf.filter((r) => r.chapter === chapter && r.id === from).map((r) => text.indexOf(from, r.at));
  // From the end, so that earlier places stay where they are.
  return [...new Set(places)].sort((a, b) => b - a).reduce((whole, at) => whole.slice(0, at) + to + whole.slice(at + from.length), text);
}
