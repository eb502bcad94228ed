import type { ActorEntry } from '../concepts/actors/index.js';
import { placedActions } from '../ruleset/actions.js';
import { type Finding, type Path, pointer } from '../ruleset/problem.js';
import type { Then } from '../ruleset/registry.js';
import { labelOf, type Rules } from '../ruleset/rules.js';
import { brought } from './collect.js';
import { entriesOf } from './entries.js';
import { Possible } from './possible.js';

/** Actions that are about an attribute of whom they are for. */
const OF_ATTRIBUTE = new Set(['heal', 'hurt', 'give', 'take', 'set']);

/** What kinds of actor are given, cost or hurt by, and do not have; and what is taken by whom it is hardly meant for. */
export function lackingFindings(rules: Rules): readonly Finding[] {
  const known: Known = {
    rules,
    possible: new Possible(rules),
    types: entriesOf<Kind>(rules, 'actors'),
  };
  return [
    ...inPickups(known),
    ...inContainers(known),
    ...inCosts(known),
    ...forPlayers(known),
    ...inReactions(known),
    ...inOwnLists(known),
    ...ofTargets(known),
    ...withoutLife(known),
  ];
}

/** A kind of actor, with what other concepts say of it. */
type Kind = ActorEntry & {
  readonly life?: string;
  readonly onSpawn?: readonly unknown[];
  readonly onDefeat?: readonly unknown[];
  readonly respawn?: unknown;
};

interface Known {
  readonly rules: Rules;
  readonly possible: Possible;
  readonly types: readonly Kind[];
}

const has = (type: ActorEntry, attribute: string) => type.attributes.some((one) => one.attribute === attribute);
const name = ({ rules }: Known, attribute: string) => labelOf(rules, 'attributes', attribute).toLowerCase();

/** What actions of a list do to an attribute of whoever has the list. */
function attributesOf(list: unknown, path: Path): readonly { readonly attribute: string; readonly path: string }[] {
  return placedActions(list as Then | undefined, path).flatMap(({ action, path: at }) =>
    OF_ATTRIBUTE.has(action.do) && (action.to ?? 'self') === 'self'
      ? [{ attribute: String(action['attribute']), path: pointer([...at, 'attribute']) }]
      : [],
  );
}

function carrying({ rules }: Known, types: readonly ActorEntry[], attribute: string): Finding['fix'] {
  const all = entriesOf<ActorEntry>(rules, 'actors');
  return {
    label: `Let ${types.map(({ label }) => label).join(' and ')} have it`,
    patch: types.map((type) => {
      const at = pointer(['actors', all.indexOf(type), 'attributes']);
      return type.attributes.length === 0
        ? { op: 'add' as const, path: at, value: [{ attribute }] }
        : { op: 'add' as const, path: `${at}/-`, value: { attribute } };
    }),
  };
}

function inPickups(known: Known): readonly Finding[] {
  const { rules, possible } = known;
  const there = brought(rules, 'actors');
  // What a table drops is mostly for whom it fell to: all else lies where anybody touches it.
  const lying = brought(rules, 'pickups');
  return entriesOf(known.rules, 'pickups').flatMap((entry, i): readonly Finding[] => {
    const takers = possible.whoCan(String(entry['who'] ?? 'true'));
    const players = takers.filter(({ kind }) => kind === 'player');
    const others = takers.filter(({ id, kind }) => kind !== 'player' && there.has(id));
    const moved = attributesOf(entry['then'], ['pickups', i, 'then']);
    const path = pointer(['pickups', i]);
    const found = moved.flatMap(({ attribute, path: at }): readonly Finding[] => {
      const lacking = players.filter((type) => !has(type, attribute));
      if (lacking.length === 0) return [];
      const who = lacking.map(({ label }) => label).join(' and ');
      return [
        {
          kind: 'lacksAttribute',
          path: at,
          message: `${who} can take ${entry.label} and lacks ${name(known, attribute)}: they get nothing of it. Let them have it, or say who may take it.`,
          fix: carrying(known, lacking, attribute),
        },
      ];
    });
    if (takers.length > 0 && players.length === 0)
      found.push({
        kind: 'notForPlayers',
        path: `${path}/who`,
        message: `No player can ever take ${entry.label}: “${String(entry['who'])}” holds for ${takers.map(({ label }) => label).join(' and ')} alone.`,
      });
    // A thing has no use for anything, and whoever lives has none for what they lack.
    const vain = others.filter(
      (type) => ['prop', 'character'].includes(type.kind) || (moved.length > 0 && moved.every(({ attribute }) => !has(type, attribute))),
    );
    if (players.length > 0 && vain.length > 0 && lying.has(entry.id))
      found.push({
        kind: 'takenByOthers',
        path,
        message: `${vain.map(({ label }) => label).join(' and ')} can take ${entry.label} as well, by touching it, and has no use for it. Say in who what only players have.`,
      });
    return found;
  });
}

function inContainers(known: Known): readonly Finding[] {
  const players = known.types.filter(({ kind }) => kind === 'player');
  return entriesOf(known.rules, 'containers').flatMap((entry, i) =>
    ((entry['holds'] ?? []) as readonly { readonly gives?: string }[]).flatMap(({ gives }, k): readonly Finding[] => {
      const lacking = players.filter((type) => gives !== undefined && !has(type, gives));
      if (gives === undefined || lacking.length === 0) return [];
      return [
        {
          kind: 'lacksAttribute',
          path: pointer(['containers', i, 'holds', k, 'gives']),
          message: `${entry.label} gives ${name(known, gives)}, and ${lacking.map(({ label }) => label).join(' and ')} lacks it: it stays in there. Let them have it.`,
          fix: carrying(known, lacking, gives),
        },
      ];
    }),
  );
}

function inCosts(known: Known): readonly Finding[] {
  return entriesOf(known.rules, 'abilities').flatMap((entry, i) => {
    const users = known.types.filter(({ abilities }) => abilities.includes(entry.id));
    return ((entry['costs'] ?? []) as readonly { readonly attribute: string }[]).flatMap(({ attribute }, k): readonly Finding[] => {
      const lacking = users.filter((type) => !has(type, attribute));
      if (lacking.length === 0) return [];
      return [
        {
          kind: 'lacksAttribute',
          path: pointer(['abilities', i, 'costs', k, 'attribute']),
          message: `${lacking.map(({ label }) => label).join(' and ')} has ${entry.label} and lacks ${name(known, attribute)}, which it costs: it can never be used. Let them have it.`,
          fix: carrying(known, lacking, attribute),
        },
      ];
    });
  });
}

/** Lists that follow for players, by chapter, and where they stand in an entry. */
const LISTS_OF_PLAYERS: readonly (readonly [string, RegExp])[] = [
  ['quests', /^(onStart|then|onFail|steps)$/],
  ['achievements', /^then$/],
  ['tracks', /^onLevel$/],
  ['offers', /^(then|gets|costs)$/],
  ['interactions', /^(then|onBreak)$/],
];

/** What players are given, or pay with, in lists that are theirs alone, and lack all of them. */
function forPlayers(known: Known): readonly Finding[] {
  const players = known.types.filter(({ kind }) => kind === 'player');
  if (players.length === 0) return [];
  return LISTS_OF_PLAYERS.flatMap(([chapter, fields]) =>
    entriesOf(known.rules, chapter).flatMap((entry, i) =>
      Object.keys(entry)
        .filter((field) => fields.test(field))
        .flatMap((field) => spokenIn(entry[field], [chapter, i, field]))
        .flatMap(({ attribute, path }): readonly Finding[] => {
          const lacking = players.filter((type) => !has(type, attribute));
          if (lacking.length < players.length) return [];
          return [
            {
              kind: 'lacksAttribute',
              path,
              message: `${lacking.map(({ label }) => label).join(' and ')} lacks ${name(known, attribute)}: nothing comes of this. Let them have it.`,
              fix: carrying(known, lacking, attribute),
            },
          ];
        }),
    ),
  );
}

/** Attributes that actions for oneself, and the parts of a trade, speak of; wherever in a value they stand. */
function spokenIn(value: unknown, path: Path): readonly { readonly attribute: string; readonly path: string }[] {
  if (Array.isArray(value)) return value.flatMap((one: unknown, i) => spokenIn(one, [...path, i]));
  if (typeof value !== 'object' || value === null) return [];
  const { do: action, to = 'self', attribute, amount } = value as Readonly<Record<string, unknown>>;
  const own =
    typeof attribute === 'string' && to === 'self' && (action === undefined ? amount !== undefined : OF_ATTRIBUTE.has(String(action)));
  return [
    ...(own ? [{ attribute, path: pointer([...path, 'attribute']) }] : []),
    ...Object.entries(value).flatMap(([key, part]) => spokenIn(part, [...path, key])),
  ];
}

/** What reactions do to whom an event is about, where its kind is known and lacks it. */
function inReactions(known: Known): readonly Finding[] {
  return entriesOf(known.rules, 'reactions').flatMap((entry, i) => {
    const { type, who = 'subject', on } = (entry['on'] ?? {}) as Readonly<Record<string, string>>;
    // A fall names the kind of who fell; of any kind that can, where nothing is said.
    const about = known.types.filter(({ id, life }) => (type === undefined ? life !== undefined : id === type));
    if (about.length === 0 || on !== 'actorDefeated' || who !== 'subject') return [];
    return attributesOf(entry['then'], ['reactions', i, 'then']).flatMap(({ attribute, path }): readonly Finding[] =>
      about
        .filter((kind) => !has(kind, attribute))
        .slice(0, 1)
        .map(({ label }) => ({
          kind: 'lacksAttribute',
          path,
          message: `This is for ${type === undefined ? 'whoever fell, also for ' : ''}${label.toLowerCase()}, which ${type === undefined ? '' : 'fell and '}lacks ${name(known, attribute)}. Say for whom it is: source is whoever did it.`,
        })),
    );
  });
}

/** What kinds of actor do to themselves as they come and as they fall. */
function inOwnLists(known: Known): readonly Finding[] {
  return known.types.flatMap((type, i) =>
    (['onSpawn', 'onDefeat'] as const).flatMap((field) =>
      attributesOf(type[field], ['actors', i, field]).flatMap(({ attribute, path }): readonly Finding[] =>
        has(type, attribute)
          ? []
          : [
              {
                kind: 'lacksAttribute',
                path,
                message: `${type.label} lacks ${name(known, attribute)}: nothing comes of this.${field === 'onDefeat' ? ' It is for who falls: write source for whoever felled it.' : ' Let it have that.'}`,
                fix: carrying(known, [type], attribute),
              },
            ],
      ),
    ),
  );
}

/** What an interaction does to the character that offers it, and that lacks it. */
function ofTargets(known: Known): readonly Finding[] {
  return entriesOf(known.rules, 'interactions').flatMap((entry, i) => {
    const offering = known.types.filter(({ interactions = [] }) => (interactions as readonly string[]).includes(entry.id));
    return placedActions(entry['then'] as Then, ['interactions', i, 'then']).flatMap(({ action, path }): readonly Finding[] => {
      const attribute = String(action['attribute']);
      const lacking = offering.filter((type) => !has(type, attribute));
      if (!OF_ATTRIBUTE.has(action.do) || action.to !== 'target' || lacking.length === 0 || lacking.length < offering.length) return [];
      return [
        {
          kind: 'lacksAttribute',
          path: pointer([...path, 'to']),
          message: `This is for ${lacking.map(({ label }) => label.toLowerCase()).join(' and ')}, which lacks ${name(known, attribute)}: target is who offers ${entry.label}, and self its visitor.`,
          fix: { label: 'Have it be for the visitor', patch: [{ op: 'remove', path: pointer([...path, 'to']) }] },
        },
      ];
    });
  });
}

/** Foes that are hurt and never fall, and lists for a fall that never comes. */
function withoutLife(known: Known): readonly Finding[] {
  return known.types.flatMap((type, i): readonly Finding[] => {
    const { life, onDefeat, respawn } = type;
    if (life !== undefined) return [];
    const path = pointer(['actors', i]);
    const pool = type.attributes.find(
      ({ attribute }) =>
        known.possible.isHurt(attribute) &&
        entriesOf(known.rules, 'attributes').some(({ id, kind }) => id === attribute && kind === 'pool'),
    );
    const fix: Finding['fix'] = pool && {
      label: `${name(known, pool.attribute)} is its life`,
      patch: [{ op: 'add', path: `${path}/life`, value: pool.attribute }],
    };
    if ((onDefeat ?? []).length > 0)
      return [
        {
          kind: 'neverDefeated',
          path: `${path}/onDefeat`,
          message: `${type.label} never falls, and something is to follow when it does: say which pool is its life.`,
          ...(fix && { fix }),
        },
      ];
    if (type.kind === 'player' && respawn !== undefined)
      return [
        {
          kind: 'neverDefeated',
          path: `${path}/respawn`,
          message: `${type.label} never falls, and is to come back when it does: say which pool is its life.`,
          ...(fix && { fix }),
        },
      ];
    if (type.kind !== 'foe' || !pool) return [];
    return [
      {
        kind: 'neverDefeated',
        path,
        message: `${type.label} has ${name(known, pool.attribute)}, which is hurt, and has no life: it never falls, however much it is hurt. Say that it is its life.`,
        ...(fix && { fix }),
      },
    ];
  });
}
