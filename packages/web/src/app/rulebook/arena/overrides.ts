import type { RulesetJson } from '../../shared/api';
import { entriesOf } from '../entries';
import { entryOf, kindOf, type PlacedJson } from './things';

/** Something that a placed thing can say otherwise than its entry, as a sentence with one part. */
export interface Override {
  /** What the chip says that adds it. */
  readonly name: string;
  readonly at: string;
  readonly before: string;
  readonly after: string;
  /** What it begins as: what the entry says. */
  readonly begins: unknown;
  /** What it adds to what is said of an interaction, where it is about one. */
  readonly ask?: { readonly interaction: string; readonly field: string; readonly value: unknown };
}

/** What can be said otherwise of a placed thing, in the order of its kind. */
export function overridesOf(document: RulesetJson | undefined, thing: PlacedJson): readonly Override[] {
  const entry = entryOf(document, thing) ?? {};
  const own = entry as Readonly<Record<string, unknown>>;
  const plain = (name: string, before: string, otherwise: unknown, after = '', field = name): Override => ({
    name,
    at: `with/${field}`,
    before,
    after,
    begins: own[field] ?? otherwise,
  });
  switch (kindOf(thing)) {
    case 'pickup':
      return [
        plain('touch', 'This one is taken within', 10, '', 'radius'),
        plain('who', 'This one is for whom', 'true', ' holds'),
        plain('gone', 'Once it is taken, this one is gone', 'perPlayer'),
        plain('time unclaimed', 'This one is gone unclaimed after', '10s', '', 'lasts'),
        plain('time to come back', 'This one comes back after', '20s', '', 'returns'),
      ];
    case 'zone':
      return [plain('who', 'This one is for whom', 'true', ' holds')];
    case 'spawner':
      return [
        plain('count', 'This one makes', 1, ' at a time'),
        plain('most', 'Of this one’s, at most', 3, ' are there at once'),
        plain('near', 'This one makes something only while a player is within', 300),
        plain('spread', 'What this one makes appears up to', 30, ' from its point'),
      ];
    case 'actor':
      return [plain('name', 'This one is called', own['label'], '', 'label'), ...asksOf(document, thing, own), ...holdsOf(document, own)];
  }
}

function asksOf(document: RulesetJson | undefined, thing: PlacedJson, entry: Readonly<Record<string, unknown>>): readonly Override[] {
  const asks = (thing.with?.['asks'] ?? []) as readonly { interaction: string }[];
  return ((entry['interactions'] ?? []) as readonly string[]).flatMap((id): readonly Override[] => {
    const one = entriesOf(document, 'interactions').find((interaction) => interaction.id === id);
    if (!one) return [];
    const found = asks.findIndex(({ interaction }) => interaction === id);
    const at = `with/asks/${found < 0 ? asks.length : found}`;
    const label = one.label.toLowerCase();
    const price = one['price'] as { attribute: string; amount: unknown; say?: string } | undefined;
    const attribute = entriesOf(document, 'attributes').find((other) => other.id === price?.attribute);
    return [
      ...(price
        ? [
            {
              name: `price of ${label}`,
              at: `${at}/price/amount`,
              before: `For ${label} this one asks`,
              after: ` ${attribute?.label.toLowerCase() ?? price.attribute}`,
              begins: price.amount,
              ask: { interaction: id, field: 'price', value: price },
            },
          ]
        : []),
      {
        name: `prompt of ${label}`,
        at: `${at}/prompt`,
        before: `It offers ${label} as`,
        after: '',
        begins: one['prompt'],
        ask: { interaction: id, field: 'prompt', value: one['prompt'] },
      },
      {
        name: `reach of ${label}`,
        at: `${at}/reach`,
        before: `Its ${label} reaches`,
        after: '',
        begins: one['reach'] ?? 60,
        ask: { interaction: id, field: 'reach', value: one['reach'] ?? 60 },
      },
      {
        name: `time of ${label}`,
        at: `${at}/busy`,
        before: `Its ${label} takes`,
        after: '',
        begins: one['busy'] ?? '5s',
        ask: { interaction: id, field: 'busy', value: one['busy'] ?? '5s' },
      },
    ];
  });
}

function holdsOf(document: RulesetJson | undefined, entry: Readonly<Record<string, unknown>>): readonly Override[] {
  const container = entriesOf(document, 'containers').find(({ id }) => id === entry['container']);
  if (!container) return [];
  const one = (name: string, field: string, before: string, otherwise: unknown, after = ''): Override => ({
    name,
    at: `with/holds/${field}`,
    before,
    after,
    begins: container[field] ?? otherwise,
  });
  return [
    one('opening', 'opening', 'This one opens in', '1s'),
    one('closing', 'closing', 'This one closes in', '1s'),
    one('visitors', 'visitors', 'Of this one,', 'one'),
    one('reach', 'reach', 'This one is opened from within', 40),
    one('filled anew', 'refills', 'This one is filled anew', '60s', ' after it was first open'),
  ];
}
