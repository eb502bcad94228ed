import { amountFindings } from '../analysis/amounts.js';
import { lackingFindings } from '../analysis/lacking.js';
import { neverFindings } from '../analysis/never.js';
import { nothingFindings } from '../analysis/nothing.js';
import { shownFindings } from '../analysis/shown.js';
import { whomFindings } from '../analysis/whom.js';
import { pointer, type Finding, type PatchOperation } from './problem.js';
import { readsOf, usesOf } from './references.js';
import { registry } from './registry.js';
import type { Rules } from './rules.js';
import { walk } from './walk.js';
import { entriesIn } from './chapter.js';

/** Chapters whose entries stand for themselves: nobody has to speak of a kind of actor, a team or a situation. */
const STANDING = new Set([
  'actors',
  'teams',
  'situations',
  'states',
  'reactions',
  'tracks',
  'trees',
  'achievements',
  'quests',
  'markets',
  'shops',
]);
/** What only tries entries out does not make use of them. */
const ONLY_TRIED = new Set(['situations']);

/** Everything that its author will hardly have meant, concept by concept, then what nobody speaks of. */
export function findingsOf(rules: Rules): readonly Finding[] {
  const own = registry().concepts.flatMap((concept) => concept.findings?.(rules.compiled.get(concept.id) as never, rules) ?? []);
  return [
    ...own,
    ...amountFindings(rules),
    ...lackingFindings(rules),
    ...whomFindings(rules),
    ...nothingFindings(rules),
    ...shownFindings(rules),
    ...neverFindings(rules),
    ...unused(rules),
  ];
}

function unused(rules: Rules): readonly Finding[] {
  const spoken = new Set<string>();
  walk(registry().document, rules.document, [], (mark, value, path) => {
    const [chapter, position] = path;
    if (ONLY_TRIED.has(String(chapter))) return;
    const self = typeof position === 'number' ? `${chapter}/${rules.chapters.get(String(chapter))?.ids[position]}` : '';
    const read = mark.kind === 'reference' ? [{ chapter: mark.chapter, id: value }] : readsOf(value, rules.vocabulary, mark.place);
    for (const { chapter: of, id } of read) if (`${of}/${id}` !== self) spoken.add(`${of}/${id}`);
  });
  const found: Finding[] = [];
  for (const [key, section] of registry().sections) {
    if (section.kind !== 'chapter' || STANDING.has(key)) continue;
    rules.chapters.get(key)!.entries.forEach((entry, i) => {
      if (spoken.has(`${key}/${entry.id}`)) return;
      found.push({
        kind: 'unused',
        path: pointer([key, i]),
        message: `Nobody speaks of ${entry.label}: ${UNUSED[key] ?? 'nothing refers to it. Use it, or take it out.'}`,
        fix: { label: `Delete ${entry.label}`, patch: deletion(rules, key, entry.id, pointer([key, i])) },
      });
    });
  }
  return found;
}

/** Takes an entry out that only situations speak of: those that try it out go along, from others the pins that need it. */
function deletion(rules: Rules, chapter: string, id: string, own: string): readonly PatchOperation[] {
  const situations = entriesIn<Readonly<Record<string, unknown>>>(rules, 'situations');
  const tried = usesOf(rules, chapter, id).flatMap(({ path }) => {
    const [, key, position, , pin] = path.split('/');
    if (key !== 'situations') return [];
    const about = situations[Number(position)][TRIES[chapter] ?? ''];
    return [about === id ? `/situations/${position}` : `/situations/${position}/pins/${pin}`];
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

/** The field by which a situation says that it tries out an entry of a chapter. */
const TRIES: Readonly<Record<string, string>> = { attributes: 'attribute', effects: 'effect', abilities: 'ability' };

const UNUSED: Readonly<Record<string, string>> = {
  attributes: 'no kind of actor carries it and no formula reads it. Have an actor carry it, or delete it.',
  statuses: 'nothing grants it and nothing asks for it. Have an effect grant it, or delete it.',
  effects: 'nothing applies it. Apply it from an ability, a pickup, a threshold or another effect, or delete it.',
  abilities: 'no kind of actor has it. Give it to one, or delete it.',
  clips: 'no cast and no recovery is as long as it. Time an ability by it, or delete it.',
  groups: 'no ability is in it. Put some in it, or delete it.',
  pickups: 'the arena does not place it, no spawner makes it and no action puts it down. Place it, or delete it.',
  zones: 'the arena places it nowhere. Place it, or delete it.',
  spawners: 'the arena places it nowhere. Place it, or delete it.',
  interactions: 'no kind of actor offers it. Give it to one, or delete it.',
  dialogues: 'no action begins it. Begin it from an interaction, or delete it.',
  containers: 'no kind of actor is one. Let an actor be it, or delete it.',
  offers: 'no shop sells it. Have one sell it, or delete it.',
  loot: 'no foe drops it, no container holds it, no other table has it. Have an action roll it, or delete it.',
  curves: 'no formula reads it. Read it with curve(…), or delete it.',
};
