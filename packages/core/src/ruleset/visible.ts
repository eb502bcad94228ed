import type { Visibility } from '../world/columns.js';
import { entryOf, type Rules } from './rules.js';

/**
 * Who may see an entry of an actor: by what its chapter says of it, or its own `see`. An entry that is not there is seen by
 * nobody: what was only guessed tells nothing.
 */
export function visibilityOf(rules: Rules, chapter: string, id: string): Visibility {
  const entry = entryOf<{ id: string; see?: Visibility }>(rules, chapter, id);
  if (!entry) return 'server';
  const section = rules.registry.sections.get(chapter);
  const said = section?.kind === 'chapter' ? section.see?.(entry, rules) : undefined;
  return said ?? entry.see ?? (isUnknown(rules, chapter, entry) ? 'server' : 'everyone');
}

/** Whether no seat knows of an entry before it is told of it. */
export function isUnknown(rules: Rules, chapter: string, entry: { readonly id: string; readonly see?: Visibility }): boolean {
  const section = rules.registry.sections.get(chapter);
  if (section?.kind !== 'chapter') return false;
  return section.secret ? section.secret(entry, rules) : (section.see?.(entry, rules) ?? entry.see) === 'server';
}

/** Whether any seat may see an entry of any actor. */
export const isTold = (rules: Rules, chapter: string, id: string): boolean => visibilityOf(rules, chapter, id) !== 'server';

/** Who sees rows that tell of an entry of a chapter, by its position: those said here, and nobody of one that only the server knows. */
export function asTold(rules: Rules, chapter: string, see: Visibility): readonly Visibility[] {
  return (rules.chapters.get(chapter)?.ids ?? []).map((id) => (isTold(rules, chapter, id) ? see : 'server'));
}

/** Whether seats know from the beginning that there is an entry. */
export function isKnown(rules: Rules, chapter: string, id: string): boolean {
  const entry = entryOf(rules, chapter, id);
  return entry !== undefined && !isUnknown(rules, chapter, entry);
}
