import { onlyTries } from '../../analysis/collect.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import { usesOf } from '../../ruleset/references.js';
import type { Rules } from '../../ruleset/rules.js';
import type { Look } from '../../world/concept.js';
import { offerChapter, shopChapter } from './schema.js';
import { lackedByPlayers } from '../attributes/lacking.js';

/** Offers that others wait for and that no shop sells. */
export const findings: readonly Look<unknown>[] = [
  (_, rules) => neverSold(rules),
  (_, rules) => lackedByPlayers(rules, 'offers', ['then', 'gets', 'costs']),
];

function neverSold(rules: Rules): readonly Finding[] {
  const offers = offerChapter.of(rules);
  const shops = shopChapter.of(rules);
  const sold = new Set(shops.flatMap(({ sells }) => sells));
  return offers.flatMap(({ id, label }, i): readonly Finding[] => {
    if (sold.has(id)) return [];
    // Of what nobody speaks of, that is told.
    const uses = usesOf(rules, 'offers', id).filter(({ chapter }) => chapter === undefined || !onlyTries(chapter));
    if (uses.length === 0) return [];
    const fix: Finding['fix'] =
      shops.length === 0
        ? undefined
        : { label: `Have ${shops[0].label} sell it`, patch: [{ op: 'add', path: pointer(['shops', 0, 'sells', '-']), value: id }] };
    return [
      {
        kind: 'neverSold',
        path: pointer(['offers', i]),
        message: `No shop sells ${label}, and ${uses.length === 1 ? 'something waits' : `${uses.length} things wait`} for it: nobody can ever have it. Have a shop sell it.`,
        ...(fix && { fix }),
      },
    ];
  });
}
