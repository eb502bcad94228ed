import { placedActions } from '../../ruleset/actions.js';
import { entriesIn } from '../../ruleset/chapter.js';
import { type Finding, type Path, pointer } from '../../ruleset/problem.js';
import { registry, type Then } from '../../ruleset/registry.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import type { AnyEntry } from '../../world/concept.js';
import { actorChapter, type ActorEntry } from '../actors/schema.js';

/** An attribute that is spoken of, and where. */
interface Spoken {
  readonly attribute: string;
  readonly path: string;
}

/** Whether actions of that name are about an attribute of whom they are for. */
export const isOfAttribute = (name: string): boolean => registry().actions.get(name)?.ofAttribute === true;

export const lacks = (type: ActorEntry, attribute: string): boolean => !type.attributes.some((one) => one.attribute === attribute);

export const nameOf = (rules: Rules, attribute: string): string => labelOf(rules, 'attributes', attribute).toLowerCase();

export const namesOf = (types: readonly ActorEntry[]): string => types.map(({ label }) => label).join(' and ');

export const playersIn = (rules: Rules): readonly ActorEntry[] => actorChapter.of(rules).filter(({ kind }) => kind === 'player');

/** What actions of a list do to an attribute of whoever has the list. */
export function ownIn(list: unknown, path: Path): readonly Spoken[] {
  return placedActions(list as Then | undefined, path).flatMap(({ action, path: at }) =>
    isOfAttribute(action.do) && (action.to ?? 'self') === 'self'
      ? [{ attribute: String(action['attribute']), path: pointer([...at, 'attribute']) }]
      : [],
  );
}

/** That kinds of actor lack an attribute, and how they come to have it. */
export function lacking(rules: Rules, types: readonly ActorEntry[], attribute: string, path: string, message: string): Finding {
  const all = actorChapter.of(rules);
  return {
    kind: 'lacksAttribute',
    path,
    message,
    fix: {
      label: `Let ${namesOf(types)} have it`,
      patch: types.map((type) => {
        const at = pointer(['actors', all.indexOf(type), 'attributes']);
        return type.attributes.length === 0
          ? { op: 'add' as const, path: at, value: [{ attribute }] }
          : { op: 'add' as const, path: `${at}/-`, value: { attribute } };
      }),
    },
  };
}

/**
 * What players are given, or pay with, in lists that are theirs alone, and lack all of them.
 * @param fields the fields of an entry in which such lists stand
 */
export function lackedByPlayers(rules: Rules, chapter: string, fields: readonly string[]): readonly Finding[] {
  const players = playersIn(rules);
  if (players.length === 0) return [];
  return entriesIn<AnyEntry>(rules, chapter).flatMap((entry, i) =>
    fields
      .flatMap((field) => spokenIn(entry[field], [chapter, i, field]))
      .flatMap(({ attribute, path }): readonly Finding[] => {
        if (!players.every((type) => lacks(type, attribute))) return [];
        const message = `${namesOf(players)} lacks ${nameOf(rules, attribute)}: nothing comes of this. Let them have it.`;
        return [lacking(rules, players, attribute, path, message)];
      }),
  );
}

/** Attributes that actions for oneself, and the parts of a trade, speak of; wherever in a value they stand. */
function spokenIn(value: unknown, path: Path): readonly Spoken[] {
  if (Array.isArray(value)) return value.flatMap((one: unknown, i) => spokenIn(one, [...path, i]));
  if (typeof value !== 'object' || value === null) return [];
  const { do: action, to = 'self', attribute, amount } = value as Readonly<Record<string, unknown>>;
  const own =
    typeof attribute === 'string' && to === 'self' && (action === undefined ? amount !== undefined : isOfAttribute(String(action)));
  return [
    ...(own ? [{ attribute, path: pointer([...path, 'attribute']) }] : []),
    ...Object.entries(value).flatMap(([key, part]) => spokenIn(part, [...path, key])),
  ];
}
