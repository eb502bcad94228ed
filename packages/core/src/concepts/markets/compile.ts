import type { CompileContext } from '../../ruleset/context.js';
import type { AttributeEntry } from '../attributes/index.js';
import { type Market } from './state.js';
import { type MarketEntry } from './schema.js';

export function compileMarket(context: CompileContext, entry: MarketEntry, index: number): Market {
  const path = ['markets', index, 'goods'];
  if (context.section('economy') === undefined)
    context.problem(['markets', index], `${entry.label} pays in no money: say under "economy" which counter is money.`);
  return {
    index,
    id: entry.id,
    label: entry.label,
    at: entry.at === undefined ? -1 : context.index('actors', entry.at),
    reach: entry.reach,
    rule: context.ruleAt(['markets', index]),
    goods: entry.goods.map(({ good, price: written, whole }, k) => {
      const attribute = context.fields<AttributeEntry, 'kind' | 'label'>('attributes', good, 'kind', 'label');
      if (attribute && attribute.kind !== 'counter')
        context.problem([...path, k, 'good'], `${attribute.label} is a ${attribute.kind}: goods are counters.`);
      if (entry.goods.findIndex((other) => other.good === good) < k) context.problem([...path, k, 'good'], `${good} stands here already.`);
      if (good === context.section<{ currency?: string } | undefined>('economy')?.currency)
        context.problem([...path, k, 'good'], `${attribute?.label ?? good} is the money itself: it is not for sale.`);
      if (whole && 'walk' in written && written.walk.step > 0 && written.walk.step < 1)
        context.problem(
          [...path, k, 'price', 'walk', 'step'],
          `A price in whole amounts can’t move by ${written.walk.step}: let it step by 1 or more, or say "whole": false.`,
        );
      return {
        attribute: context.index('attributes', good),
        id: good,
        label: attribute?.label ?? good,
        whole,
        price: written,
        luck: context.purpose([...path, good, 'price']),
      };
    }),
  };
}
