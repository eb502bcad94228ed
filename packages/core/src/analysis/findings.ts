import equal from 'fast-deep-equal';
import { entriesIn } from '../ruleset/chapter.js';
import { atOnce } from '../ruleset/parts.js';
import { mentionsInParts, mentionsInSection } from '../ruleset/mentions.js';
import { pointer, type Finding, type PatchOperation } from '../ruleset/problem.js';
import { question, type Question } from '../ruleset/questions.js';
import { sameItems, sameMembers } from '../ruleset/recording.js';
import { usesOf } from '../ruleset/references.js';
import { registry } from '../ruleset/registry.js';
import { positionOf, type Rules } from '../ruleset/rules.js';
import type { AnyEntry } from '../world/concept.js';
import { collectSection, onlyTries } from './collect.js';
import { describedFindings, describedInParts } from './described.js';
import { chapterOf, keyOf, netOf } from './net.js';

/** Everything that its author will hardly have meant, concept by concept, then what nobody speaks of. */
export function findingsOf(rules: Rules): readonly Finding[] {
  return atOnce(findingsInParts(rules));
}

/** The same, as work in parts. Of rules that follow from others, as a document is edited, only that which an edit can reach is new. */
export function* findingsInParts(rules: Rules): Generator<void, readonly Finding[]> {
  const found: Finding[] = [];
  for (const section of registry().sections.keys()) {
    yield* lookThrough(rules, section);
    collectSection(rules, section);
    yield;
  }
  netOf(rules);
  yield;
  for (const [of] of looking()) {
    found.push(...ofConcept(rules, of));
    yield;
  }
  found.push(...describedFindings(rules));
  yield;
  for (const [chapter] of registry().sections) found.push(...unusedIn(rules, chapter));
  return found;
}

/** Sections whose entries were looked through one by one. */
const lookedThrough = new WeakSet<object>();

/** Looks through the entries of a section that nobody has looked at, one in each part: what is asked of it all after that takes little. */
function* lookThrough(rules: Rules, section: string): Generator<void> {
  const whole = rules.document[section];
  if (typeof whole !== 'object' || whole === null || lookedThrough.has(whole)) return;
  yield* mentionsInParts(rules, section);
  yield* describedInParts(rules, section);
  lookedThrough.add(whole);
}

/** Every function with which a concept looks for findings, by the concept and the function's number. */
const looking = () => (looks ??= looksOf(registry().concepts));
let looks: ReturnType<typeof looksOf> | undefined;

const looksOf = (concepts: Rules['registry']['concepts']) =>
  new Map(concepts.flatMap(({ id, findings = [] }) => [findings].flat().map((look, i) => [`${id}/${i}` as string, { id, look }] as const)));

const ofConcept: Question<readonly Finding[]> = question((rules, of) => {
  const { id, look } = looking().get(of)!;
  return look(rules.compiled.get(id) as never, rules);
});

/** The entries that others than they themselves speak of in a section, as `chapter/id`. */
const othersIn: Question<readonly string[]> = question((rules, section) => {
  if (onlyTries(section)) return [];
  const spoken = new Set<string>();
  for (const part of mentionsInSection(rules, section)) {
    const self = keyOf(part.chapter, part.id ?? '');
    for (const { speaksOf } of part.mentions)
      for (const { chapter, id } of speaksOf) if (keyOf(chapter, id) !== self) spoken.add(keyOf(chapter, id));
  }
  return [...spoken];
}, sameItems);

const spokenOf: Question<ReadonlySet<string>> = question(
  (rules) => new Set([...registry().sections.keys()].flatMap((section) => othersIn(rules, section))),
  sameMembers,
);

const unusedIn: Question<readonly Finding[]> = question((rules, key) => {
  const unused = chapterOf(key)?.unused;
  if (unused === undefined) return [];
  const spoken = spokenOf(rules);
  return rules.chapters.get(key)!.entries.flatMap((entry, i): readonly Finding[] => {
    const of = keyOf(key, entry.id);
    if (spoken.has(of)) return [];
    const path = pointer([key, i]);
    return [
      {
        kind: 'unused',
        path,
        message: `Nobody speaks of ${entry.label}: ${unused}`,
        fix: { label: `Delete ${entry.label}`, patch: deletion(rules, of) },
      },
    ];
  });
});

/** Takes an entry out that is only tried out: what is all about it goes along, and of others the parts that speak of it. */
const deletion: Question<readonly PatchOperation[]> = question((rules, of) => {
  const [chapter, id] = of.split('/');
  const own = pointer([chapter, positionOf(rules, chapter, id)]);
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
}, equal);
