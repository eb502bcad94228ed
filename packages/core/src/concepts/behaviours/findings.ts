import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import type { ActorEntry } from '../actors/index.js';
import { actorChapter } from '../actors/schema.js';
import { attributeChapter } from '../attributes/schema.js';

/** Foes that have abilities and no mind to use them, and bodies that move otherwise than was meant. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  const types = actorChapter.of(rules);
  return [...types.flatMap((type, i) => ofMoving(rules, type, i)), ...mindless(types)];
}

interface Moving {
  readonly label: string;
  readonly speed?: string;
  readonly behaviour?: unknown;
}

/** What moves by what comes and goes, and who turns back before they have seen anybody. */
function ofMoving(rules: Rules, { label, speed, behaviour }: Moving, i: number): readonly Finding[] {
  const found: Finding[] = [];
  const stat = attributeChapter.of(rules).find(({ id }) => id === speed);
  if (stat && stat.kind !== 'stat')
    found.push({
      kind: 'speedByPool',
      path: pointer(['actors', i, 'speed']),
      message: `${label} moves by ${stat.label.toLowerCase()}, a ${stat.kind}, which comes and goes: it slows down as that does. Say a stat.`,
    });
  const { within, leash } = (behaviour ?? {}) as { readonly within?: number; readonly leash?: number };
  if (within !== undefined && leash !== undefined && leash < within)
    found.push({
      kind: 'leashTooShort',
      path: pointer(['actors', i, 'behaviour', 'leash']),
      message: `${label} goes after whom it sees within ${within}, and turns back ${leash} from home. Let it go at least as far as it sees.`,
      fix: {
        label: `Let it go ${within} far`,
        patch: [{ op: 'replace', path: pointer(['actors', i, 'behaviour', 'leash']), value: within }],
      },
    });
  return found;
}

function mindless(types: readonly (ActorEntry & { readonly behaviour?: unknown })[]): readonly Finding[] {
  return types.flatMap(({ label, kind, abilities, behaviour }, i): readonly Finding[] =>
    kind !== 'foe' || abilities.length === 0 || behaviour !== undefined
      ? []
      : [
          {
            kind: 'neverUses',
            path: pointer(['actors', i]),
            message: `${label} has abilities and no behaviour: it never uses them. Have it stand and use them on whom they reach, or chase.`,
            fix: {
              label: 'Let it stand and use them',
              patch: [{ op: 'add', path: pointer(['actors', i, 'behaviour']), value: { do: 'stand' } }],
            },
          },
        ],
  );
}
