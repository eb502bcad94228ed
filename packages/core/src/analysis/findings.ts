import { entriesIn } from '../ruleset/chapter.js';
import { pointer, type Finding, type PatchOperation } from '../ruleset/problem.js';
import { readsOf, usesOf } from '../ruleset/references.js';
import { registry } from '../ruleset/registry.js';
import type { Rules } from '../ruleset/rules.js';
import { walk } from '../ruleset/walk.js';
import type { AnyEntry } from '../world/concept.js';
import { onlyTries } from './collect.js';
import { describedFindings } from './described.js';

/** Everything that its author will hardly have meant, concept by concept, then what nobody speaks of. */
export function findingsOf(rules: Rules): readonly Finding[] {
  const own = registry().concepts.flatMap((concept) => concept.findings?.(rules.compiled.get(concept.id) as never, rules) ?? []);
  return [...own, ...describedFindings(rules), ...unused(rules)];
}

function unused(rules: Rules): readonly Finding[] {
  const spoken = new Set<string>();
  walk(registry().document, rules.document, [], (mark, value, path) => {
    const [chapter, position] = path;
    if (onlyTries(String(chapter))) return;
    const self = typeof position === 'number' ? `${chapter}/${rules.chapters.get(String(chapter))?.ids[position]}` : '';
    const read = mark.kind === 'reference' ? [{ chapter: mark.chapter, id: value }] : readsOf(value, rules.vocabulary, mark.place);
    for (const { chapter: of, id } of read) if (`${of}/${id}` !== self) spoken.add(`${of}/${id}`);
  });
  const found: Finding[] = [];
  for (const [key, section] of registry().sections) {
    if (section.kind !== 'chapter' || section.unused === undefined) continue;
    rules.chapters.get(key)!.entries.forEach((entry, i) => {
      if (spoken.has(`${key}/${entry.id}`)) return;
      found.push({
        kind: 'unused',
        path: pointer([key, i]),
        message: `Nobody speaks of ${entry.label}: ${section.unused}`,
        fix: { label: `Delete ${entry.label}`, patch: deletion(rules, key, entry.id, pointer([key, i])) },
      });
    });
  }
  return found;
}

/** Takes an entry out that is only tried out: what is all about it goes along, and of others the parts that speak of it. */
function deletion(rules: Rules, chapter: string, id: string, own: string): readonly PatchOperation[] {
  const tried = usesOf(rules, chapter, id).flatMap(({ path }) => {
    const [, key, position, ...inside] = path.split('/');
    const section = registry().sections.get(key);
    if (section?.kind !== 'chapter' || section.tries === undefined) return [];
    const about = section.tries(entriesIn<AnyEntry>(rules, key)[Number(position)]);
    const entry = `/${key}/${position}`;
    return [about?.[0] === chapter && about[1] === id ? entry : `${entry}/${inside.slice(0, 2).join('/')}`];
  });
  const whole = tried.filter((path) => !tried.some((other) => path.startsWith(`${other}/`)));
  // From the end of each list, so that places still to come stay where they are.
  const numbers = (path: string) =>
    path
      .split('/')
      .map((part) => (/^\d+$/.test(part) ? part.padStart(6, '0') : part))
      .join('/');
  const paths = [...new Set([own, ...whole])].sort((a, b) => (numbers(a) < numbers(b) ? 1 : -1));
  return paths.map((path) => ({ op: 'remove', path }));
}
