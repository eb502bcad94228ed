import { collect } from '../../analysis/collect.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import { registry } from '../../ruleset/registry.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import type { Look } from '../../world/concept.js';
import { actorChapter, type ActorEntry } from '../actors/schema.js';
import { lacking, lacks, nameOf, ownIn } from '../attributes/lacking.js';
import { possibleUnder } from '../attributes/possible.js';
import { attributeChapter } from '../attributes/schema.js';
import { reactionChapter } from '../reactions/schema.js';

/** Lives that never end or end at once, and what follows from a fall for whom it is hardly meant. */
export const findings: readonly Look<unknown>[] = [
  (_, rules) => inReactions(rules),
  (_, rules) => inOwnLists(rules),
  (_, rules) => withoutLife(rules),
  (_, rules) => forTheFallen(rules),
  (_, rules) => fallingAtOnce(rules),
];

/** A fall that is to count for whoever brought it about, and counts for the fallen. */
function forTheFallen(rules: Rules): readonly Finding[] {
  return collect(rules).patterns.flatMap(({ pattern, place }): readonly Finding[] => {
    const { on, who = 'subject', type } = pattern as typeof pattern & { readonly type?: string };
    const section = registry().sections.get(place.chapter);
    const forPlayers = section?.kind === 'chapter' && section.forPlayers;
    if (on !== 'actorDefeated' || who !== 'subject' || type === undefined || !forPlayers) return [];
    if (actorChapter.find(rules, type)?.kind === 'player') return [];
    return [
      {
        kind: 'forTheFallen',
        path: place.path,
        message: `This counts for who fell, and ${labelOf(rules, 'actors', type).toLowerCase()} is no player: it never counts for anybody. Have it count for its source, whoever did it.`,
        fix: { label: 'Count it for whoever did it', patch: [{ op: 'add', path: `${place.path}/who`, value: 'source' }] },
      },
    ];
  });
}

/** What reactions to a fall do to who fell, where their kind is known and lacks it. */
function inReactions(rules: Rules): readonly Finding[] {
  return reactionChapter.of(rules).flatMap((entry, i) => {
    const { on, who = 'subject', type } = entry.on as typeof entry.on & { readonly type?: string };
    // A fall names the kind of who fell; of any kind that can, where nothing is said.
    const about = actorChapter.of(rules).filter(({ id, life }) => (type === undefined ? life !== undefined : id === type));
    if (about.length === 0 || on !== 'actorDefeated' || who !== 'subject') return [];
    return ownIn(entry.then, ['reactions', i, 'then']).flatMap(({ attribute, path }): readonly Finding[] =>
      about
        .filter((kind) => lacks(kind, attribute))
        .slice(0, 1)
        .map(({ label }) => ({
          kind: 'lacksAttribute',
          path,
          message: `This is for ${type === undefined ? 'whoever fell, also for ' : ''}${label.toLowerCase()}, which ${type === undefined ? '' : 'fell and '}lacks ${nameOf(rules, attribute)}. Say for whom it is: source is whoever did it.`,
        })),
    );
  });
}

/** What kinds of actor do to themselves as they come and as they fall. */
function inOwnLists(rules: Rules): readonly Finding[] {
  return actorChapter.of(rules).flatMap((type, i) =>
    (['onSpawn', 'onDefeat'] as const).flatMap((field) =>
      ownIn(type[field], ['actors', i, field]).flatMap(({ attribute, path }): readonly Finding[] => {
        if (!lacks(type, attribute)) return [];
        const what = field === 'onDefeat' ? 'It is for who falls: write source for whoever felled it.' : 'Let it have that.';
        return [lacking(rules, [type], attribute, path, `${type.label} lacks ${nameOf(rules, attribute)}: nothing comes of this. ${what}`)];
      }),
    ),
  );
}

/** Foes that are hurt and never fall, and lists for a fall that never comes. */
function withoutLife(rules: Rules): readonly Finding[] {
  const possible = possibleUnder(rules);
  return actorChapter.of(rules).flatMap((type, i): readonly Finding[] => {
    if (type.life !== undefined) return [];
    const path = pointer(['actors', i]);
    const pool = type.attributes.find(
      ({ attribute }) => possible.isHurt(attribute) && attributeChapter.find(rules, attribute)?.kind === 'pool',
    )?.attribute;
    const found = neverFalling(rules, type, pool);
    if (!found) return [];
    const fix: Finding['fix'] =
      pool === undefined
        ? undefined
        : {
            label: `${nameOf(rules, pool)} is its life`,
            patch: [{ op: 'add', path: `${path}/life`, value: pool }],
          };
    return [{ kind: 'neverDefeated', path: `${path}${found.at}`, message: found.message, ...(fix && { fix }) }];
  });
}

function neverFalling(rules: Rules, { label, kind, onDefeat, respawn }: ActorEntry, pool: string | undefined) {
  if ((onDefeat ?? []).length > 0)
    return { at: '/onDefeat', message: `${label} never falls, and something is to follow when it does: say which pool is its life.` };
  if (kind === 'player' && respawn !== undefined)
    return { at: '/respawn', message: `${label} never falls, and is to come back when it does: say which pool is its life.` };
  if (kind !== 'foe' || pool === undefined) return undefined;
  return {
    at: '',
    message: `${label} has ${nameOf(rules, pool)}, which is hurt, and has no life: it never falls, however much it is hurt. Say that it is its life.`,
  };
}

/** Kinds of actor that begin with nothing of their life, and lives that start at their end. */
function fallingAtOnce(rules: Rules): readonly Finding[] {
  const types = actorChapter.of(rules);
  const lives = new Set(types.flatMap(({ life }) => (life === undefined ? [] : [life])));
  return [
    ...types.flatMap(({ label, life, attributes }, i) =>
      attributes.flatMap(({ attribute, start }, k): readonly Finding[] =>
        start === 0 && attribute === life
          ? [
              {
                kind: 'startsEmpty',
                path: pointer(['actors', i, 'attributes', k, 'start']),
                message: `${label} begins with none of its life: it falls as it comes.`,
              },
            ]
          : [],
      ),
    ),
    ...attributeChapter.of(rules).flatMap(({ id, label, kind, start, max }, i): readonly Finding[] =>
      kind === 'pool' && start === 0 && max !== 0 && lives.has(id)
        ? [
            {
              kind: 'startsEmpty',
              path: pointer(['attributes', i, 'start']),
              message: `${label} is a life and starts at its end: whoever has it falls as they come.`,
            },
          ]
        : [],
    ),
  ];
}
