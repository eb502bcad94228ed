import { entriesIn } from '../ruleset/chapter.js';
import { atOnce } from '../ruleset/parts.js';
import { mentionsIn } from '../ruleset/mentions.js';
import { pointer, type Finding, type PatchOperation } from '../ruleset/problem.js';
import { usesOf } from '../ruleset/references.js';
import { registry } from '../ruleset/registry.js';
import type { Rules } from '../ruleset/rules.js';
import type { AnyEntry } from '../world/concept.js';
import { collect, onlyTries } from './collect.js';
import { describedFindings, describedIn } from './described.js';
import { netOf } from './net.js';

/** Everything that its author will hardly have meant, concept by concept, then what nobody speaks of. */
export function findingsOf(rules: Rules): readonly Finding[] {
  return atOnce(findingsInParts(rules));
}

/** The same, as work in parts: what all concepts ask of a ruleset first, then one concept after the other. */
export function* findingsInParts(rules: Rules): Generator<void, readonly Finding[]> {
  const found: Finding[] = [];
  for (const prepare of [mentionsIn, collect, netOf, describedIn]) {
    prepare(rules);
    yield;
  }
  for (const concept of registry().concepts) {
    if (!concept.findings) continue;
    found.push(...concept.findings(rules.compiled.get(concept.id) as never, rules));
    yield;
  }
  found.push(...describedFindings(rules));
  yield;
  found.push(...unused(rules));
  return found;
}

function unused(rules: Rules): readonly Finding[] {
  const spoken = new Set<string>();
  for (const part of mentionsIn(rules)) {
    if (onlyTries(part.chapter)) continue;
    const self = `${part.chapter}/${part.id}`;
    for (const { speaksOf } of part.mentions)
      for (const { chapter, id } of speaksOf) if (`${chapter}/${id}` !== self) spoken.add(`${chapter}/${id}`);
  }
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
