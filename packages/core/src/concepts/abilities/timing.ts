import { atEach } from '../../analysis/each.js';
import { isDuration, toMilliseconds } from '../../ruleset/fields.js';
import { placedActions } from '../../ruleset/actions.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Then } from '../../ruleset/registry.js';
import { question, type Question } from '../../ruleset/questions.js';
import { sameMembers } from '../../ruleset/recording.js';
import { labelOf, positionOf, type Rules } from '../../ruleset/rules.js';
import type { EffectEntry } from '../effects/index.js';
import { abilityChapter, type AbilityEntry } from './schema.js';
import { attributeChapter } from '../attributes/schema.js';
import { effectChapter } from '../effects/schema.js';

const seconds = (time: unknown): number | undefined =>
  isDuration(time) ? toMilliseconds(time) / 1000 : typeof time === 'number' ? time : undefined;

/** Times of an ability that do not go together: pulses that never come, haste by what comes and goes, cover that ends too early. */
export const timing = atEach(abilityChapter, (entry, i, rules) => [
  ...pulses(entry, i),
  ...haste(entry, i, rules),
  ...cover(entry, i, rules),
]);

function pulses({ label, channel }: AbilityEntry, i: number): readonly Finding[] {
  const [every, lasts] = [seconds(channel?.every), seconds(channel?.lasts)];
  if (every === undefined || lasts === undefined || every <= lasts) return [];
  return [
    {
      kind: 'neverPulses',
      path: pointer(['abilities', i, 'channel', 'every']),
      message: `${label} is to pulse every ${every} s and is held for ${lasts} s: it never does. Have it pulse more often, or last longer.`,
    },
  ];
}

/** Whether a modifier can make less of what it modifies. */
const isLess = ({ operation, amount }: EffectEntry['modifiers'][number]) =>
  typeof amount !== 'number' || (operation === 'times' || operation === 'set' || operation === 'atMost' ? amount <= 0 : amount < 0);

/** The attributes that an effect may make less of. */
const slowed: Question<ReadonlySet<string>> = question(
  (rules) => new Set(effectChapter.of(rules).flatMap(({ modifiers }) => modifiers.filter(isLess).map(({ attribute }) => attribute))),
  sameMembers,
);

function haste(entry: AbilityEntry, i: number, rules: Rules): readonly Finding[] {
  return (['cast', 'recovery'] as const).flatMap((part): readonly Finding[] => {
    const hastened = attributeChapter.find(rules, entry[part]?.haste ?? '');
    if (!hastened) return [];
    const { id, label, kind, min } = hastened;
    const path = pointer(['abilities', i, part, 'haste']);
    if (kind !== 'stat')
      return [
        {
          kind: 'hasteByPool',
          path,
          message: `${label} is a ${kind}, which comes and goes: at 100 of it the ${part} of ${entry.label} is a hundred times as fast, at 0 it hardly ends. Have a stat hasten it, 1 being as it is written.`,
        },
      ];
    if (typeof min !== 'number' || min > 0 || !slowed(rules).has(id)) return [];
    return [
      {
        kind: 'hasteCanBeNothing',
        path,
        message: `${label} can be 0, and then the ${part} of ${entry.label} hardly ever ends. Give ${label.toLowerCase()} a minimum above 0.`,
        fix: {
          label: 'Give it the minimum 0.1',
          patch: [{ op: 'replace', path: pointer(['attributes', positionOf(rules, 'attributes', id), 'min']), value: 0.1 }],
        },
      },
    ];
  });
}

/** An effect that its user has for about as long as an area takes to land, and not for as long. */
function cover({ label, deliver, then, onStart }: AbilityEntry, i: number, rules: Rules): readonly Finding[] {
  const delay = deliver?.by === 'area' ? seconds(deliver.delay) : undefined;
  if (delay === undefined || delay === 0) return [];
  const lists = [
    ...placedActions(then as Then, ['abilities', i, 'then']),
    ...placedActions(onStart as Then | undefined, ['abilities', i, 'onStart']),
  ];
  return lists.flatMap(({ action, path }): readonly Finding[] => {
    const isOwn = action.do === 'apply' && (action.to ?? 'self') === 'self';
    const effect = isOwn ? effectChapter.find(rules, String(action['effect'])) : undefined;
    const lasts = effect?.lifetime === 'timed' ? seconds(effect.lasts) : undefined;
    if (!effect || lasts === undefined || lasts === delay || lasts < delay / 2 || lasts > delay * 1.5 || effect.grants.length === 0)
      return [];
    return [
      {
        kind: 'coverDiffers',
        path: pointer(path),
        message: `${label} lands after ${delay} s, and ${labelOf(rules, 'effects', effect.id).toLowerCase()}, which its user has meanwhile, lasts ${lasts} s: it ends ${lasts < delay ? 'before' : 'after'} that. Make both as long.`,
        fix: {
          label: `Let it last ${delay} s`,
          patch: [{ op: 'replace', path: pointer(['effects', positionOf(rules, 'effects', effect.id), 'lasts']), value: `${delay}s` }],
        },
      },
    ];
  });
}
