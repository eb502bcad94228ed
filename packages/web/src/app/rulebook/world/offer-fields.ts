import { Directive } from '@angular/core';
import { SpecFields } from '../spec/spec-fields';

/** What the specs of everything that is offered within reach have in common. */
@Directive()
export abstract class OfferFields extends SpecFields {
  /** What can be paid and given: pools and counters. */
}
