import { atEach } from '../../analysis/each.js';
import { isEmpty, isHeard } from '../../analysis/entries.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { abilityChapter, type AbilityEntry } from './schema.js';

/** What an ability announces as it is used: whoever waits for one of these makes something of it. */
const ANNOUNCED = ['abilityUsed', 'castStarted', 'abilityHit', 'abilityMissed', 'areaLanded', 'channelPulsed', 'channelEnded'];

/** Abilities that do nothing, or whose pulses or deliveries do. */
export const doesNothing = atEach(abilityChapter, (entry, i, rules) => {
  const path = pointer(['abilities', i]);
  return [...emptyLists(rules, entry, path), ...idleArea(entry, path)];
});

function emptyLists(rules: Rules, entry: AbilityEntry, path: string): readonly Finding[] {
  if (isHeard(rules, ANNOUNCED, 'ability', entry.id)) return [];
  const { channel, label } = entry;
  const lists = [entry.onStart, entry.then, entry.onHit, entry.onMiss, entry.onBreak, channel?.then, channel?.onEnd];
  const nothing = (at: string, message: string): readonly Finding[] => [{ kind: 'doesNothing', path: at, message }];
  if (lists.every(isEmpty)) return nothing(path, `${label} does nothing: say what follows from it, in then or in onHit.`);
  if (channel && isEmpty(channel.then) && isEmpty(channel.onEnd))
    return nothing(`${path}/channel`, `Nothing follows from a pulse of ${label}: say what does.`);
  if (entry.deliver !== undefined && isEmpty(entry.onHit) && isEmpty(entry.onMiss))
    return nothing(`${path}/deliver`, `What ${label} sends does nothing to whom it meets: say what, in onHit.`);
  return [];
}

/** An area that stays and does nothing meanwhile. */
function idleArea({ label, deliver }: AbilityEntry, path: string): readonly Finding[] {
  if (deliver?.by !== 'area' || deliver.lasts === undefined || deliver.every !== undefined) return [];
  return [
    {
      kind: 'doesNothing',
      path: `${path}/deliver/lasts`,
      message: `The area of ${label} stays for ${deliver.lasts} and does nothing meanwhile: it hits as it lands. Say how often it hits, or have it not stay.`,
      fix: { label: 'Have it hit every second', patch: [{ op: 'add', path: `${path}/deliver/every`, value: '1s' }] },
    },
  ];
}
