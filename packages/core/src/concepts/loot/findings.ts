import { type Possible, possibleUnder } from '../attributes/possible.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import type { CompiledLoot, LootTable } from './compile.js';
import type { AlwaysJson, LootEntryJson, LootTableJson } from './schema.js';
import { entriesIn } from '../../ruleset/chapter.js';
import { type ActorEntry } from '../actors/schema.js';
import { pickupChapter } from '../pickups/schema.js';

const CHAPTER = 'loot';
/** Chances below this are told as such: nobody will ever see one. */
const ONE_IN = 1e-6;

/** Tables that give nothing, lines that can never fall or hardly ever do, and weights that are taken for percentages. */
export function findings({ entries, list }: CompiledLoot, rules: Rules): readonly Finding[] {
  if (entries.length === 0) return [];
  const possible = possibleUnder(rules);
  return list.flatMap((table, i) => {
    const json = entries[i];
    const path = [CHAPTER, i];
    return [
      ...empty(table, json, path),
      ...rolls(json, path),
      ...weights(table, json, path),
      ...json.entries.flatMap((entry, k) => lines(possible, rules, json, entry, [...path, 'entries', k])),
      ...json.always.flatMap((entry, k) => lines(possible, rules, json, entry, [...path, 'always', k])),
      ...exhausted(table, json, path),
    ];
  });
}

/** Tables that are rolled less than no time, or part of a time. */
function rolls({ label, rolls: times, entries }: LootTableJson, at: At): readonly Finding[] {
  if (typeof times !== 'number' || (Number.isInteger(times) && (times > 0 || (times === 0 && entries.length === 0)))) return [];
  const path = pointer([...at, 'rolls']);
  const meant = Math.max(1, Math.round(times));
  return [
    {
      kind: 'partOfWhole',
      path,
      message: `${label} is rolled ${times} times: ${times < 0 ? 'that is below 0, so nothing falls' : times === 0 ? 'none of its entries ever falls' : 'rolls are whole'}. Say a whole number.`,
      fix: { label: `Roll ${meant}`, patch: [{ op: 'replace', path, value: meant }] },
    },
  ];
}

type At = readonly (string | number)[];

function empty(table: LootTable, { label, entries, always }: LootTableJson, path: At): readonly Finding[] {
  if (entries.length === 0 && always.length === 0)
    return [{ kind: 'emptyTable', path: pointer(path), message: `${label} has no entries: whoever rolls it gets nothing.` }];
  const gone = entries.length > 0 && (table.steady?.sum ?? 1) === 0;
  return gone
    ? [
        {
          kind: 'noWeight',
          path: pointer([...path, 'entries']),
          message: `The weights of ${label} are all 0: its rolls give nothing. Give one entry a weight.`,
          fix: {
            label: `Weight 1 for ${table.entries[0].label.toLowerCase()}`,
            patch: [{ op: 'replace', path: pointer([...path, 'entries', 0, 'weight']), value: 1 }],
          },
        },
      ]
    : [];
}

function weights(table: LootTable, { label, entries }: LootTableJson, path: At): readonly Finding[] {
  const sum = table.steady?.sum;
  if (sum === undefined || sum === 0) return [];
  const found: Finding[] = [];
  const at = pointer([...path, 'entries']);
  const [only] = entries;
  if (entries.length === 1 && only.weight !== 1)
    found.push({
      kind: 'weightsAreShares',
      path: at,
      message: `Weights are shares: ${table.entries[0].label.toLowerCase()} is the only entry of ${label}, so it is certain at every roll, whatever its weight. For it to fall now and then, add an entry that is nothing.`,
      fix: {
        label: 'Add nothing, weight 1',
        patch: [{ op: 'add', path: pointer([...path, 'entries', '-']), value: { id: 'nothing', weight: 1 } }],
      },
    });
  // Near a hundred, or all below one: it was meant to add up.
  else if (entries.length > 1 && sum !== 100 && sum !== 1 && Math.abs(sum - 100) < 10)
    found.push({
      kind: 'weightsAreShares',
      path: at,
      message: `Weights are shares, not percents: those of ${label} add up to ${Number(sum.toFixed(4))}. The chances beside them are what counts.`,
    });
  table.entries.forEach(({ label: what, weight }, k) => {
    if (weight.constant === 0)
      found.push({
        kind: 'neverFalls',
        path: pointer([...path, 'entries', k, 'weight']),
        message: `${what} has no weight in ${label}: it never falls. Give it one, or take it out.`,
        fix: { label: `Take ${what.toLowerCase()} out`, patch: [{ op: 'remove', path: pointer([...path, 'entries', k]) }] },
      });
    else if (weight.constant !== undefined && weight.constant / sum < ONE_IN && table.streak?.at !== k)
      found.push({
        kind: 'hardlyEver',
        path: pointer([...path, 'entries', k, 'weight']),
        message: `${what} falls at under one roll of ${label} in a million: hardly anybody will ever see it. Raise its weight, or give it a streak breaker.`,
      });
  });
  return found;
}

function lines(possible: Possible, rules: Rules, json: LootTableJson, entry: AlwaysJson | LootEntryJson, path: At): readonly Finding[] {
  const found: Finding[] = [];
  const name = entry.label ?? entry.id;
  if (entry.if !== undefined && possible.whoCan(entry.if, ['player']).length === 0)
    found.push({
      kind: 'neverFalls',
      path: pointer([...path, 'if']),
      message: `${name} is in ${json.label} only while ${entry.if}, and no player can ever meet that.`,
    });
  const types = entriesIn<ActorEntry & { readonly abilities: readonly string[] }>(rules, 'actors');
  const players = types.filter(({ kind }) => kind === 'player');
  if (entry.ability !== undefined && !players.some(({ abilities }) => abilities.includes(entry.ability!)))
    found.push({
      kind: 'nobodyHas',
      path: pointer([...path, 'ability']),
      message: `No kind of player has ${entry.ability}: whoever finds it in ${json.label} cannot use it.`,
    });
  if (entry.gives !== undefined && !players.some(({ attributes }) => attributes.some(({ attribute }) => attribute === entry.gives)))
    found.push({
      kind: 'nobodyHas',
      path: pointer([...path, 'gives']),
      message: `No kind of player has ${entry.gives}: what ${json.label} gives of it is lost.`,
    });
  const pickup = pickupChapter.find(rules, entry.pickup ?? '');
  if (pickup && pickup.lasts === undefined)
    found.push({
      kind: 'dropsStay',
      path: pointer([...path, 'pickup']),
      message: `${pickup.label} lies until somebody takes it: what ${json.label} drops and nobody wants fills the arena. Say how long it lies.`,
    });
  return found;
}

/** More rolls than there are entries to draw. */
function exhausted({ replaced, rolls, entries, label }: LootTable, _json: LootTableJson, path: At): readonly Finding[] {
  const most = rolls.constant ?? (rolls.formula ? 0 : rolls.most);
  if (replaced || entries.length === 0 || most <= entries.length) return [];
  return [
    {
      kind: 'tooManyRolls',
      path: pointer([...path, 'rolls']),
      message: `${label} draws ${most} times without putting back, and has ${entries.length} ${entries.length === 1 ? 'entry' : 'entries'}: the rolls after that give nothing.`,
    },
  ];
}
