import { drop, type Mistake, mistake, put } from './mistake.js';
import { counter, give, hurt } from './parts.js';

const FELLED_BY_LAMPREY = [put('/attributes/-', counter('felled')), put('/actors/0/attributes/-', { attribute: 'felled' })];
const LAMP = { id: 'lamp', label: 'Lamp', costs: [{ attribute: 'scrip', amount: 3 }], gets: [] };

/** What comes of two things together, of a formula that says a number, and of what no one reads again before it is played. */
export const FURTHER: readonly Mistake[] = [
  mistake('fight', 'hurts by a sum that is nothing', put('/abilities/0/onHit/0/amount', '10 - 10'), 'nothing happens'),
  mistake('drops', 'a weight that is a sum below nothing', put('/loot/0/entries/0/weight', '0 - 3'), 'below 0'),
  mistake('market', 'upkeep as text, below nothing', put('/offers/0/upkeep', '-2'), 'below 0'),
  mistake('swift', 'percent as text, for times 1.4', put('/effects/0/modifiers/0/amount', '1.4'), 'write 40'),
  mistake('drops', 'no rolls', put('/loot/0/rolls', 0), 'none of its entries ever falls'),
  mistake('resistance', 'a zone that acts in each tick', put('/zones/0/every/time', '0s'), 'acts in each tick'),
  mistake('channel', 'pulses in each tick', put('/abilities/0/channel/every', '0ms'), 'pulses in each tick'),
  mistake('crate', 'full again at once', put('/containers/0/refills', '0s'), 'full again'),
  mistake('exchange', 'more of the same', put('/interactions/0/then/0/gets/0', { attribute: 'brass', amount: 7 }), 'a gain each time'),
  mistake(
    'tale',
    'lines that lead to each other',
    [drop('/dialogues/0/lines/1/choices'), put('/dialogues/0/lines/1/next', 'one')],
    'no end',
    '/dialogues/0',
  ),
  mistake('tale', 'a name in a line', put('/dialogues/0/lines/0/text', 'Well done, {player}.'), 'as it stands'),
  mistake('rest', 'a name in a prompt', put('/interactions/0/prompt', 'Pay {price}'), 'as it stands'),
  mistake('medal', 'what always holds', put('/achievements/1/if', 'scrip >= 0'), 'always holds'),
  mistake('medal', 'what always holds, said twice', put('/achievements/1/if', 'scrip > -1 or felled > 5'), 'always holds'),
  mistake(
    'fight',
    'a fall of any kind counts for the fallen',
    [...FELLED_BY_LAMPREY, put('/reactions', [{ id: 'tally', label: 'Tally', on: { on: 'actorDefeated' }, then: [give('felled', 1)] }])],
    'also for lamprey',
    '/reactions/0',
  ),
  mistake(
    'fight',
    'a fall counts for who falls',
    [...FELLED_BY_LAMPREY, put('/actors/1/onDefeat', [give('felled', 1)])],
    'whoever felled it',
    '/actors/1/onDefeat',
  ),
  mistake(
    'fight',
    'begins with what it lacks',
    [put('/attributes/-', counter('felled')), put('/actors/0/onSpawn', [give('felled', 1)])],
    'lacks felled',
    '/actors/0',
  ),
  mistake(
    'resistance',
    'hurts what it lacks as it comes',
    [put('/attributes/-', { id: 'air', label: 'Air', kind: 'pool', max: 9 }), put('/actors/0/onSpawn', [hurt('air', 2)])],
    'lacks air',
    '/actors/0',
  ),
  mistake(
    'errand',
    'waits for what no shop sells',
    [
      put('/economy', { currency: 'scrip' }),
      put('/offers', [LAMP]),
      put('/quests/0/steps/0/goals/0', { id: 'own', line: 'Own {have}/{need}', on: { on: 'offerBought', offer: 'lamp' }, count: 1 }),
    ],
    'No shop sells',
    '/offers/0',
  ),
];
