import { counter, pool, stat, Trial } from './rulesets.js';

/** A diver whose speed is 100 and whose suit is full, with counters for what is announced. */
export const SPEED = [
  stat('finSpeed', 100, { max: 900 }),
  pool('suit', { start: 100 }),
  ...['starts', 'stacksHad', 'ends', 'usedUp'].map((id) => counter(id)),
];

export const giveOne = (attribute: string) => [{ do: 'give', attribute, amount: 1 }];

/** An effect that adds 10 to the speed, and counts its starts and ends. */
export const effect = (id: string, more: Record<string, unknown>) => ({
  id,
  label: id,
  modifiers: [{ attribute: 'finSpeed', operation: 'add', amount: 10 }],
  onStart: giveOne('starts'),
  onEnd: [
    { reason: 'any', then: giveOne('ends') },
    { reason: 'used', then: giveOne('usedUp') },
  ],
  ...more,
});

export const withEffects = (...effects: unknown[]) =>
  Trial.of({
    attributes: SPEED,
    effects,
    statuses: [
      { id: 'winded', label: 'Winded' },
      { id: 'silted', label: 'Silted' },
    ],
  });

/** Puts an effect on the seat `north`, from another seat where one is named. */
export const applyTo = (trial: Trial, id = 'e', from?: string) =>
  trial.step({ kind: 'poke', args: { seat: 'north', ...(from && { from }), action: { do: 'apply', effect: id } } });

export const speedOf = (trial: Trial) => trial.value('finSpeed');
