import { type Finding, pointer } from '../../ruleset/problem.js';
import { everythingOf } from '../../ruleset/questions.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import { atEach } from '../../analysis/each.js';
import type { Look } from '../../world/concept.js';
import { World } from '../../world/world.js';
import { spawnActor } from '../actors/index.js';
import { attributes } from '../attributes/index.js';
import { isDuration, toMilliseconds } from '../../ruleset/fields.js';
import { timing } from './timing.js';
import type { Ability, CompiledAbilities, Stretch } from './compile.js';
import { numbersOf } from './numbers.js';
import type { AbilityEntry } from './schema.js';
import { fillTooltip, hasRoom, wrapText } from './tooltip.js';
import { effectChapter } from '../effects/schema.js';
import { actorChapter } from '../actors/schema.js';
import { lacking, lacks, nameOf, namesOf } from '../attributes/lacking.js';
import { doesNothing } from './does-nothing.js';
import { hurtsOwn } from './hurts-own.js';
import { abilityChapter } from './schema.js';

const CHAPTER = 'abilities';
const at = (i: number, ...path: (string | number)[]) => pointer([CHAPTER, i, ...path]);

export const findings: readonly Look<CompiledAbilities>[] = [
  ({ list, entries }, rules) =>
    list.flatMap((ability, i) => [
      ...costs(ability, rules),
      ...reach(ability, entries[i]),
      ...groups(ability, rules),
      ...breaks(ability, rules),
      ...emptyLists(ability, entries[i]),
    ]),
  (_, rules) => timing(rules),
  ({ list }, rules) => texts(list, rules),
  (_, rules) => costsLacking(rules),
  (_, rules) => hurtsOwn(rules),
  (_, rules) => doesNothing(rules),
];

/** What abilities say. Numbers are worked out by running the rules, where there may be no room for them. */
function texts(list: readonly Ability[], rules: Rules): readonly Finding[] {
  const tight = list.filter(({ tooltip }) => tooltip && !hasRoom(tooltip));
  if (tight.length === 0) return [];
  const user = users(everythingOf(rules));
  return tight.flatMap((ability) => text(ability, user));
}

/** Costs in what those who have the ability lack. */
const costsLacking = atEach(abilityChapter, (entry, i, rules) => {
  const owners = actorChapter.of(rules).filter(({ abilities }) => abilities.includes(entry.id));
  return entry.costs.flatMap(({ attribute }, k): readonly Finding[] => {
    const without = owners.filter((type) => lacks(type, attribute));
    if (without.length === 0) return [];
    const message = `${namesOf(without)} has ${entry.label} and lacks ${nameOf(rules, attribute)}, which it costs: it can never be used. Let them have it.`;
    return [lacking(rules, without, attribute, at(i, 'costs', k, 'attribute'), message)];
  });
});

/** Costs above what anybody who has the ability can ever have. */
function costs(ability: Ability, rules: Rules): readonly Finding[] {
  const { list } = attributes.of(rules);
  return ability.costs.flatMap((cost, k): readonly Finding[] => {
    const price = cost.amount.constant;
    const { max } = list[cost.attribute];
    // A maximum that is another stat can be what that one can be.
    const most = max?.constant ?? list.find((attribute) => attribute.id === max?.bare?.id)?.max?.constant;
    if (price === undefined || most === undefined || price <= most) return [];
    const label = labelOf(rules, 'attributes', cost.id);
    return [
      {
        kind: 'unaffordable',
        path: at(ability.index, 'costs', k, 'amount'),
        message: `${ability.label} costs ${price} ${label.toLowerCase()}, and ${label.toLowerCase()} never gets above ${most}: nobody can ever use it.`,
        fix: { label: `Make it ${most}`, patch: [{ op: 'replace', path: at(ability.index, 'costs', k, 'amount'), value: most }] },
      },
    ];
  });
}

/** Projectiles that are over before they get as far as they can be aimed. */
function reach(ability: Ability, entry: AbilityEntry): readonly Finding[] {
  const { deliver, target } = ability;
  if (deliver?.by !== 'projectile' || entry.deliver?.by !== 'projectile') return [];
  const [speed, lifetime, range] = [deliver.speed.constant, deliver.lifetime.constant, target.range?.constant];
  if (speed === undefined || lifetime === undefined || range === undefined || speed * lifetime >= range - 1e-9) return [];
  const needed = speed <= 0 ? undefined : Math.ceil((range / speed) * 100) / 100;
  return [
    {
      kind: 'shortFlight',
      path: at(ability.index, 'deliver', speed <= 0 ? 'speed' : 'lifetime'),
      message:
        speed <= 0
          ? `The projectile of ${ability.label} stands still: it never gets anywhere. Say how far it flies in a second.`
          : `${ability.label} can be aimed ${range} away, and its projectile is over after ${Math.round(speed * lifetime * 10) / 10}: it never gets there.`,
      ...(needed !== undefined && {
        fix: {
          label: `Let it fly ${needed} s`,
          patch: [{ op: 'replace', path: at(ability.index, 'deliver', 'lifetime'), value: `${needed}s` }],
        },
      }),
    },
  ];
}

/** Groups that let the others go before a cast of this one is even over. */
function groups(ability: Ability, rules: Rules): readonly Finding[] {
  const cast = bySpeed(ability.cast, rules, 'least');
  if (cast === undefined || ability.chargeAtEnd) return [];
  return ability.groups.flatMap((group, k): readonly Finding[] => {
    const lasts = group.ticks / rules.tickRate;
    if (group.members.length === 1 || lasts >= cast) return [];
    const position = rules.chapters.get('groups')!.ids.indexOf(group.id);
    const needed = `${Math.ceil(cast * 100) / 100}s`;
    return [
      {
        kind: 'groupShorterThanCast',
        path: at(ability.index, 'groups', k),
        message: `${labelOf(rules, 'groups', group.id)} keeps the others waiting for ${lasts} s, and casting ${ability.label.toLowerCase()} takes up to ${Math.round(cast * 100) / 100} s: they are ready before it is over.`,
        fix: { label: `Make the group ${needed}`, patch: [{ op: 'replace', path: pointer(['groups', position, 'lasts']), value: needed }] },
      },
    ];
  });
}

/** Seconds of a stretch at the least or at the most that the stat can be which hastens it; undefined where a formula tells. */
function bySpeed(part: Stretch | undefined, rules: Rules, which: 'least' | 'most'): number | undefined {
  if (part?.base === undefined) return undefined;
  if (part.haste < 0) return part.base;
  const { min, max, starts } = attributes.of(rules).list[part.haste];
  const bound = which === 'least' ? min.constant : max?.constant;
  const speed = bound !== undefined && bound > 0 ? bound : starts.find((start) => start?.amount?.constant !== undefined)?.amount?.constant;
  return speed === undefined || speed <= 0 ? undefined : part.base / speed;
}

/** Casts that need a status throughout which no effect grants for as long as the fastest cast takes. */
function breaks(ability: Ability, rules: Rules): readonly Finding[] {
  const cast = bySpeed(ability.cast, rules, 'most');
  if (cast === undefined) return [];
  const effects = effectChapter.of(rules);
  return ability.requires.flatMap((requirement, k): readonly Finding[] => {
    if (!requirement.throughout || requirement.status < 0) return [];
    const status = rules.chapters.get('statuses')!.ids[requirement.status];
    const granting = effects.filter((effect) => effect.grants.includes(status));
    const times = granting.map((effect) =>
      effect.lifetime === 'timed' && isDuration(effect.lasts) ? toMilliseconds(effect.lasts) / 1000 : Infinity,
    );
    const best = Math.max(...times);
    if (granting.length === 0 || best >= cast) return [];
    return [
      {
        kind: 'castOutlastsStatus',
        path: at(ability.index, 'requires', k),
        message: `${ability.label} needs ${labelOf(rules, 'statuses', status).toLowerCase()} throughout, which lasts ${best} s at most, and no haste makes its cast shorter than ${Math.round(cast * 100) / 100} s: it always breaks.`,
        fix: {
          label: 'Ask for it only at the start',
          patch: [{ op: 'replace', path: at(ability.index, 'requires', k, 'throughout'), value: false }],
        },
      },
    ];
  });
}

/** Lists of what happens to who is hit where nobody can be. */
function emptyLists(ability: Ability, entry: AbilityEntry): readonly Finding[] {
  if (ability.target.at !== 'point' || ability.deliver || !entry.onHit?.length) return [];
  return [
    {
      kind: 'hitsNobody',
      path: at(ability.index, 'onHit'),
      message: `${ability.label} is aimed at a point and sends nothing there: it never hits anybody. Have it deliver an area.`,
      fix: {
        label: 'Deliver an area of radius 60',
        patch: [{ op: 'add', path: at(ability.index, 'deliver'), value: { by: 'area', radius: 60 } }],
      },
    },
  ];
}

/** Somebody who has an ability, as they begin. */
interface User {
  readonly world: World;
  readonly actor: number;
}

/** Finds somebody who has an ability: one of each kind, all in one world, which is begun when the first is asked for. */
function users(rules: Rules): (ability: string) => User | undefined {
  const types = actorChapter.of(rules);
  const actors = new Map<number, number>();
  let world: World | undefined;
  return (ability) => {
    const type = types.findIndex(({ abilities }) => abilities.includes(ability));
    if (type < 0) return undefined;
    world ??= World.start(rules, 1);
    const actor = actors.get(type) ?? spawnActor(world, type, -1, types[type].label);
    actors.set(type, actor);
    return { world, actor };
  };
}

/** Tooltips that do not fit their box with the numbers that their bearer begins with. */
function text(ability: Ability, user: (id: string) => User | undefined): readonly Finding[] {
  const { tooltip } = ability;
  const having = tooltip && user(ability.id);
  if (!having) return [];
  const { world, actor } = having;
  const lines = wrapText(fillTooltip(tooltip, world, actor, numbersOf(world, ability, actor)), tooltip.width).length;
  if (lines <= tooltip.lines) return [];
  return [
    {
      kind: 'textTooLong',
      path: at(ability.index, 'tooltip', 'text'),
      message: `The tooltip of ${ability.label} takes ${lines} lines of ${tooltip.width} characters, and its box has ${tooltip.lines}.`,
      fix: {
        label: `Give the box ${lines} lines`,
        patch: [{ op: 'add', path: at(ability.index, 'tooltip', 'lines'), value: Math.min(20, lines) }],
      },
    },
  ];
}
