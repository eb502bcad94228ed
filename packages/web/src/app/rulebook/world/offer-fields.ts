import { Directive } from '@angular/core';
import { amount, condition, duration, entry, flag, numberFrom, share, text } from '../spec/formats';
import { SpecFields } from '../spec/spec-fields';

/** What the specs of everything that is offered within reach have in common. */
@Directive()
export abstract class OfferFields extends SpecFields {
  protected readonly reach = numberFrom(1, 1000);
  protected readonly sight = flag({ true: 'not through walls', false: 'also through walls' });
  protected readonly condition = condition;
  protected readonly duration = duration;
  protected readonly amount = amount;
  protected readonly words = text;
  protected readonly share = share;
  /** What can be paid and given: pools and counters. */
  protected readonly counted = entry('attributes', (e) => e['kind'] !== 'stat');
}
