import { ANY, parseFormula, rangeOf } from '../formula/index.js';
import { type Finding, pointer } from '../ruleset/problem.js';
import type { Rules } from '../ruleset/rules.js';
import { collect } from './collect.js';
import { entriesOf, type Entry } from './entries.js';

/** An amount that is written as a number, and where it stands. */
interface Written {
  readonly path: string;
  readonly value: number;
  readonly what: string;
  /** The attribute that it is an amount of. */
  readonly of?: string;
  /** Whether 0 means something. */
  readonly zero?: boolean;
}

interface Part {
  readonly attribute: string;
  readonly amount: unknown;
}

/** What an action does with its amount, where that can only be something. */
const MOVES: Readonly<Record<string, string>> = {
  hurt: 'hurts by',
  heal: 'heals by',
  give: 'gives',
  take: 'takes',
  award: 'awards',
  givePoints: 'gives',
};
/** What does the opposite. */
const OPPOSITES: Readonly<Record<string, string>> = { hurt: 'heal', heal: 'hurt', give: 'take', take: 'give' };

/** Amounts that are below nothing, nothing at all, or a part of what is counted whole; shares that are written in percent. */
export function amountFindings(rules: Rules): readonly Finding[] {
  return [...[...written(rules)].flatMap((one) => ofOne(rules, one)), ...chances(rules), ...rolls(rules)];
}

function* written(rules: Rules): Iterable<Written> {
  for (const { action, place } of collect(rules).actions) {
    const name = action.do;
    const of = typeof action['attribute'] === 'string' ? action['attribute'] : undefined;
    if (MOVES[name] !== undefined)
      for (const value of numbersIn(action['amount']))
        yield { path: `${place.path}/amount`, value, what: `${MOVES[name]} ${value}`, ...(of !== undefined && { of }) };
    if (name === 'trade')
      for (const side of ['pays', 'gets'] as const) for (const part of parts(action[side], `${place.path}/${side}`, `${side} `)) yield part;
  }
  yield* inEntries(rules, 'abilities', (entry, path) => parts(entry['costs'], `${path}/costs`, `${entry.label} costs `, true));
  yield* inEntries(rules, 'offers', (entry, path) => [
    ...parts(entry['costs'], `${path}/costs`, `${entry.label} costs `, true),
    ...parts(entry['gets'], `${path}/gets`, `${entry.label} gives `),
    ...numbersIn(entry['upkeep']).map((value) => ({
      path: `${path}/upkeep`,
      value,
      what: `The upkeep of ${entry.label} is ${value}`,
      zero: true,
    })),
  ]);
  yield* inEntries(rules, 'interactions', ({ label, price }, path) =>
    price === undefined
      ? []
      : parts([price], `${path}/price`, `${label} asks `, true).map((one) => ({ ...one, path: `${path}/price/amount` })),
  );
  yield* inEntries(rules, 'tracks', ({ label, sources }, path) =>
    ((sources ?? []) as readonly Part[]).flatMap(({ amount }, k) =>
      numbersIn(amount).map((value) => ({ path: `${path}/sources/${k}/amount`, value, what: `${label} earns ${value}` })),
    ),
  );
  yield* inEntries(rules, 'loot', (entry, path) =>
    LOOT_LISTS.flatMap((list) =>
      ((entry[list] ?? []) as readonly { readonly gives?: string; readonly quantity?: unknown }[]).flatMap(({ gives, quantity }, k) =>
        numbersIn(quantity).map((value) => ({
          path: `${path}/${list}/${k}/quantity`,
          value,
          what: `${entry.label} drops ${value}`,
          ...(gives !== undefined && { of: gives }),
        })),
      ),
    ),
  );
  yield* inEntries(rules, 'loot', (entry, path) =>
    ((entry['entries'] ?? []) as readonly { readonly id: string; readonly weight?: unknown }[]).flatMap(({ id, weight }, k) =>
      numbersIn(weight).map((value) => ({
        path: `${path}/entries/${k}/weight`,
        value,
        what: `The weight of ${id} in ${entry.label} is ${value}`,
        zero: true,
      })),
    ),
  );
  yield* inEntries(rules, 'spawners', ({ label, what }, path) =>
    ((what ?? []) as readonly { readonly weight: unknown }[]).flatMap(({ weight }, k) =>
      numbersIn(weight).map((value) => ({ path: `${path}/what/${k}/weight`, value, what: `A weight of ${label} is ${value}`, zero: true })),
    ),
  );
  yield* inEntries(rules, 'abilities', ({ label, target, deliver }, path) => [
    ...numbersIn((target as { readonly range?: unknown } | undefined)?.range).map((value) => ({
      path: `${path}/target/range`,
      value,
      what: `${label} reaches ${value} far`,
    })),
    ...(deliver && (deliver as { readonly by: string }).by === 'area'
      ? numbersIn((deliver as { readonly radius?: unknown }).radius)
      : []
    ).map((value) => ({ path: `${path}/deliver/radius`, value, what: `The area of ${label} has the radius ${value}` })),
  ]);
  yield* inEntries(rules, 'containers', ({ holds }, path) =>
    ((holds ?? []) as readonly { readonly label: string; readonly gives?: string; readonly amount?: unknown }[]).flatMap((one, k) =>
      numbersIn(one.amount).map((value) => ({
        path: `${path}/holds/${k}/amount`,
        value,
        what: `${one.label} gives ${value}`,
        ...(one.gives !== undefined && { of: one.gives }),
      })),
    ),
  );
}

const LOOT_LISTS = ['always', 'entries'] as const;

const NOTHING_KNOWN = { name: () => ANY, call: () => ANY };

/** The numbers of an amount: itself, what a formula comes to whoever asks, or the lower end of its luck. */
export function numbersIn(amount: unknown): readonly number[] {
  if (typeof amount === 'number') return [amount];
  if (typeof amount === 'string') {
    const { low, high } = rangeOf(parseFormula(amount), NOTHING_KNOWN);
    return low === high ? [low] : [];
  }
  const random = (amount as { readonly random?: readonly number[] } | undefined)?.random;
  return random ? random.slice(0, 1) : [];
}

function parts(list: unknown, path: string, before: string, zero = false): readonly Written[] {
  return ((list ?? []) as readonly Part[]).flatMap(({ attribute, amount }, k) =>
    numbersIn(amount).map((value) => ({ path: `${path}/${k}/amount`, value, what: `${before}${value}`, of: attribute, zero })),
  );
}

function* inEntries(rules: Rules, chapter: string, of: (entry: Entry, path: string) => readonly Written[]): Iterable<Written> {
  for (const [i, entry] of entriesOf(rules, chapter).entries()) yield* of(entry, pointer([chapter, i]));
}

function ofOne(rules: Rules, { path, value, what, of, zero = false }: Written): readonly Finding[] {
  const attribute = of === undefined ? undefined : entriesOf(rules, 'attributes').find(({ id }) => id === of);
  const name = attribute ? ` ${attribute.label.toLowerCase()}` : '';
  const set = (to: number, label: string): Finding['fix'] => ({ label, patch: [{ op: 'replace', path, value: to }] });
  // What an action does begins with a verb, all else with whose it is.
  const said = `${/^[a-z]/.test(what) ? 'It ' : ''}${what}${name}`;
  if (value < 0) {
    const opposite = OPPOSITES[/^(hurt|heal|give|take)s/.exec(what)?.[1] ?? ''];
    return [
      {
        kind: 'belowZero',
        path,
        message: `${said}: that is below 0, and an amount says how much. Write ${-value}${opposite === undefined ? '' : `, or have it ${opposite}`}.`,
        fix: set(-value, `Make it ${-value}`),
      },
    ];
  }
  if (value === 0 && !zero) return [{ kind: 'nothingAtAll', path, message: `${said}: nothing happens. Say how much.` }];
  const whole = attribute && (attribute['kind'] === 'counter' || attribute['whole'] === true);
  if (!whole || Number.isInteger(value)) return [];
  return [
    {
      kind: 'partOfWhole',
      path,
      message: `${said}, which is counted in whole things: that comes to ${Math.round(value)}. Say a whole number, or count it in fractions.`,
      fix: set(Math.max(1, Math.round(value)), `Make it ${Math.max(1, Math.round(value))}`),
    },
  ];
}

/** Chances from 0 to 1 that are written as percent. */
function chances(rules: Rules): readonly Finding[] {
  const containers = entriesOf<{ readonly holds?: readonly { readonly label: string; readonly chance?: unknown }[] }>(rules, 'containers');
  return containers.flatMap(({ holds = [] }, i) =>
    holds.flatMap(({ label, chance }, k): readonly Finding[] => {
      if (typeof chance !== 'number' || (chance >= 0 && chance <= 1)) return [];
      const path = pointer(['containers', i, 'holds', k, 'chance']);
      const meant = chance > 1 && chance <= 100 ? Math.round(chance * 10) / 1000 : chance < 0 ? 0 : 1;
      return [
        {
          kind: 'chanceBeyond',
          path,
          message: `A chance is from 0 to 1, and ${chance} is ${chance < 0 ? 'never' : `always: for ${chance} % write ${meant}`}. It is the chance of ${label.toLowerCase()}.`,
          fix: { label: `Make it ${meant}`, patch: [{ op: 'replace', path, value: meant }] },
        },
      ];
    }),
  );
}

/** Tables that are rolled less than no time, or part of a time. */
function rolls(rules: Rules): readonly Finding[] {
  const tables = entriesOf<{ readonly label: string; readonly rolls?: unknown; readonly entries?: readonly unknown[] }>(rules, 'loot');
  return tables.flatMap(({ label, rolls: times, entries = [] }, i): readonly Finding[] => {
    if (typeof times !== 'number' || (Number.isInteger(times) && (times > 0 || (times === 0 && entries.length === 0)))) return [];
    const path = pointer(['loot', i, 'rolls']);
    const meant = Math.max(1, Math.round(times));
    return [
      {
        kind: 'partOfWhole',
        path,
        message: `${label} is rolled ${times} times: ${times < 0 ? 'that is below 0, so nothing falls' : times === 0 ? 'none of its entries ever falls' : 'rolls are whole'}. Say a whole number.`,
        fix: { label: `Roll ${meant}`, patch: [{ op: 'replace', path, value: meant }] },
      },
    ];
  });
}
