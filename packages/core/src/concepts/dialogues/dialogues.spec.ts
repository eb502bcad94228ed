import { readRuleset } from '../../index.js';
import { input, rulesetWith } from '../../testing/rulesets.js';
import { place, QUAY, Visit } from '../../testing/surroundings.js';

const lines = (visit: Visit) => visit.named('lineSpoken').map(({ data }) => `${data['speaker']}: ${data['text']}`);
const choose = (visit: Visit, choice: number, seat = 'north') => visit.step(input(seat, { do: 'choose', choice }));

describe('A dialogue', () => {
  it('has its lines stand for their time, one after the other', () => {
    const visit = Visit.at(460);
    visit.ask();
    expect(lines(visit)).toEqual(['Chart-keeper: You want the wreck.']);
    visit.run(1.95);
    expect(lines(visit).length).toBe(1);
    visit.run(0.05);
    expect(lines(visit)[1]).toBe('north: We all do.');
    visit.run(1);
    expect(visit.rows('choices').map(({ number, text }) => [number, visit.world.text(text)])).toEqual([
      [0, 'Yes.'],
      [1, 'No.'],
    ]);
  });

  it('goes on as is chosen, does what that does, and ends its visit with it', () => {
    const visit = Visit.at(460);
    visit.ask();
    visit.run(3);
    choose(visit, 0);
    expect(visit.value('scrip')).toBe(41);
    expect(lines(visit).at(-1)).toBe('Chart-keeper: Then go.');
    choose(visit, 0);
    expect(visit.value('scrip')).toBe(41);
    expect(visit.rows('visits').length).toBe(1);
    visit.run(1.1);
    expect(visit.told().slice(-2)).toEqual(['dialogueEnded over', 'visitEnded done']);
    const silent = Visit.at(460);
    silent.ask();
    silent.run(8);
    expect(silent.told().slice(-2)).toEqual(['dialogueEnded silence', 'visitEnded done']);
    const declined = Visit.at(460);
    declined.ask();
    declined.run(3);
    choose(declined, 2);
    choose(declined, 1);
    expect(declined.told().slice(-2)).toEqual(['dialogueEnded over', 'visitEnded done']);
  });

  it('has one of the crew near by answer, by chance, the same under the same seed', () => {
    const speakers = (seed: number) => {
      const visit = Visit.at(460, {}, ['north', 'south', 'east', 'west'], seed);
      visit.poke(place(100), 'west');
      visit.ask();
      visit.run(2);
      return visit.named('lineSpoken')[1].data['speaker'];
    };
    const drawn = Array.from({ length: 20 }, (_, seed) => speakers(seed));
    expect(new Set(drawn)).toEqual(new Set(['south', 'east']));
    expect(speakers(7)).toBe(drawn[7]);
  });

  it('breaks off when its visitor walks off, and a restart changes nothing', () => {
    const visit = Visit.at(460);
    visit.ask();
    visit.run(1);
    visit.restart();
    visit.poke(place(100));
    expect(visit.told().slice(-2).sort()).toEqual(['dialogueEnded broken', 'visitEnded walkedOff']);
    visit.run(5);
    expect([visit.rows('talks').length, visit.rows('choices').length, lines(visit).length]).toEqual([0, 0, 1]);
  });

  it('passes over lines that do not hold', () => {
    const [first, ...others] = QUAY.dialogues[0].lines;
    const dialogues = [{ ...QUAY.dialogues[0], lines: [{ ...first, if: 'scrip > 100' }, ...others] }];
    const visit = Visit.at(460, { dialogues });
    visit.ask();
    expect(lines(visit)).toEqual(['north: We all do.']);
  });

  it('says which line it does not have', () => {
    const dialogues = [
      {
        ...QUAY.dialogues[0],
        lines: [
          { id: 'one', text: 'x', for: '1s', next: 'tow' },
          { id: 'two', text: 'y', for: '1s' },
        ],
      },
    ];
    expect(readRuleset(rulesetWith({ ...QUAY, dialogues })).problems).toEqual([
      { path: '/dialogues/0/lines/0/next', message: 'This dialogue has no line tow. Did you mean two?' },
    ]);
  });
});
