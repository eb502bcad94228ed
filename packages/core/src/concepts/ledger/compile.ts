import type { CompileContext } from '../../ruleset/context.js';
import { playerKinds } from '../actors/index.js';
import type { AttributeEntry } from '../attributes/index.js';
import { type EconomyRules } from './schema.js';
import { type CompiledLedger } from './state.js';

export function compileLedger(context: CompileContext): CompiledLedger {
  const economy = context.section<EconomyRules | undefined>('economy');
  const currency = economy && context.entry<AttributeEntry>('attributes', economy.currency);
  if (currency && currency.kind !== 'counter')
    context.problem(['economy', 'currency'], `${currency.label} is a ${currency.kind}: money is a counter.`);
  return { economy, currency: economy ? context.index('attributes', economy.currency) : -1, players: playerKinds(context) };
}
