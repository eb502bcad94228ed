import { readRuleset, renameEntry } from '../../index.js';
import { pool, rulesetWith } from '../../testing/rulesets.js';

describe('The id of an entry', () => {
  it('is followed into the cells of a table', () => {
    const { rules } = readRuleset(
      rulesetWith({
        attributes: [pool('health')],
        checks: [
          {
            id: 'one',
            label: 'One',
            given: [{ name: 'ada' }],
            stages: [
              {
                when: [{ on: 'ada', action: { do: 'heal', attribute: 'row.of', amount: 1 } }],
                then: [{ value: 'row.of', amount: 'row.is' }],
              },
            ],
            each: { columns: ['of', 'is'], rows: [['health', 'health + 0']] },
          },
        ],
      }),
    );
    const { patch } = renameEntry(rules!, 'attributes', 'health', 'vigour');
    expect(patch!.flatMap((one) => (one.path.startsWith('/checks') && 'value' in one ? [[one.path, one.value]] : []))).toEqual([
      ['/checks/0/each/rows/0/0', 'vigour'],
      ['/checks/0/each/rows/0/1', 'vigour + 0'],
    ]);
  });
});
