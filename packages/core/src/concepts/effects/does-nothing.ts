import { isReferredTo } from '../../analysis/collect.js';
import { atEach } from '../../analysis/each.js';
import { isEmpty, isHeard } from '../../analysis/entries.js';
import { mentionsOf } from '../../ruleset/mentions.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import { question, type Question } from '../../ruleset/questions.js';
import { sameMembers } from '../../ruleset/recording.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import { actorChapter } from '../actors/schema.js';
import { effectChapter, type EffectEntry } from './schema.js';

/** Effects that do nothing to whoever has them, or change what nobody carries. */
export const doesNothing = atEach(effectChapter, (entry, i, rules) => {
  const path = pointer(['effects', i]);
  const carried = carriedUnder(rules);
  const counts = () =>
    isHeard(rules, ['effectStarted', 'effectEnded', 'effectStacked'], 'effect', entry.id) ||
    mentionsOf(rules, 'effects', entry.id).some(({ mention: { value } }) => new RegExp(`count\\(\\s*${entry.id}\\b`).test(value));
  return [
    ...(isReferredTo(rules, 'effects', entry.id) && !does(entry) && !counts()
      ? [
          {
            kind: 'doesNothing',
            path,
            message: `${entry.label} does nothing to whoever has it: say what it changes, grants or does.`,
          },
        ]
      : []),
    ...(entry.periodic && isEmpty(entry.periodic.then)
      ? [
          {
            kind: 'doesNothing',
            path: `${path}/periodic/then`,
            message: `${entry.label} is to do something again and again, and nothing is said: say what.`,
          },
        ]
      : []),
    ...inModifiers(rules, entry, path, carried),
  ];
});

/** The attributes that any kind of actor has. */
const carriedUnder: Question<ReadonlySet<string>> = question(
  (rules) => new Set(actorChapter.of(rules).flatMap(({ attributes }) => attributes.map(({ attribute }) => attribute))),
  sameMembers,
);

function does({ modifiers, grants, onStart, onStack, onEnd, reactions, ends, periodic, lifetime }: EffectEntry): boolean {
  const lists = [modifiers, grants, onStart, onStack, onEnd, reactions];
  return lists.some((list) => !isEmpty(list)) || ends !== undefined || periodic !== undefined || lifetime === 'untilUsed';
}

function inModifiers(rules: Rules, { modifiers }: EffectEntry, path: string, carried: ReadonlySet<string>): readonly Finding[] {
  return modifiers.flatMap(({ attribute, operation, amount }, k): readonly Finding[] => {
    const name = labelOf(rules, 'attributes', attribute);
    const nothing = ['add', 'percent'].includes(operation) ? amount === 0 : operation === 'times' && amount === 1;
    return [
      ...(nothing
        ? [
            {
              kind: 'changesNothing',
              path: `${path}/modifiers/${k}/amount`,
              message: `This changes nothing of ${name.toLowerCase()}: say how much.`,
            },
          ]
        : []),
      ...(carried.has(attribute)
        ? []
        : [
            {
              kind: 'nobodyCarries',
              path: `${path}/modifiers/${k}/attribute`,
              message: `${name} is changed, and no kind of actor has it. Have one carry it.`,
            },
          ]),
    ];
  });
}
