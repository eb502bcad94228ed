import { atEach } from '../../analysis/each.js';
import { brought } from '../../analysis/collect.js';
import type { Finding } from '../../ruleset/problem.js';
import { pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { lacking, lacks, nameOf, namesOf, ownIn } from '../attributes/lacking.js';
import { possibleUnder } from '../attributes/possible.js';
import { pickupChapter, type PickupEntry } from './schema.js';

/** Pickups whose takers have no use for them, or are hardly those that are meant. */
export const withoutUse = atEach(pickupChapter, ofOne);

function ofOne(entry: PickupEntry, i: number, rules: Rules): readonly Finding[] {
  const there = brought(rules, 'actors');
  // What a table drops is mostly for whom it fell to: all else lies where anybody touches it.
  const lying = brought(rules, 'pickups');
  const takers = possibleUnder(rules).whoCan(entry.who ?? 'true');
  const players = takers.filter(({ kind }) => kind === 'player');
  const others = takers.filter(({ id, kind }) => kind !== 'player' && there.has(id));
  const moved = ownIn(entry.then, ['pickups', i, 'then']);
  const path = pointer(['pickups', i]);
  const found = moved.flatMap(({ attribute, path: at }): readonly Finding[] => {
    const without = players.filter((type) => lacks(type, attribute));
    if (without.length === 0) return [];
    const message = `${namesOf(without)} can take ${entry.label} and lacks ${nameOf(rules, attribute)}: they get nothing of it. Let them have it, or say who may take it.`;
    return [lacking(rules, without, attribute, at, message)];
  });
  if (takers.length > 0 && players.length === 0)
    found.push({
      kind: 'notForPlayers',
      path: `${path}/who`,
      message: `No player can ever take ${entry.label}: “${entry.who}” holds for ${namesOf(takers)} alone.`,
    });
  // A thing has no use for anything, and whoever lives has none for what they lack.
  const vain = others.filter(
    (type) => ['prop', 'character'].includes(type.kind) || (moved.length > 0 && moved.every(({ attribute }) => lacks(type, attribute))),
  );
  if (players.length > 0 && vain.length > 0 && lying.has(entry.id))
    found.push({
      kind: 'takenByOthers',
      path,
      message: `${namesOf(vain)} can take ${entry.label} as well, by touching it, and has no use for it. Say in who what only players have.`,
    });
  return found;
}
