import { readRuleset, sentenceOf } from '../../index.js';
import { counter, input, join, poke, rulesetWith, Trial } from '../../testing/rulesets.js';
import { place, QUAY, Visit } from '../../testing/surroundings.js';
import { talksWaitingTable } from './tables.js';

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

  const two = (more: Record<string, unknown> = {}) => ({
    attributes: [counter('scrip')],
    dialogues: ['first', 'second', 'third'].map((id) => ({
      id,
      label: `The ${id}`,
      lines: [{ id: 'a', text: `${id}!`, for: '500ms', then: [{ do: 'give', attribute: 'scrip', amount: 1 }] }],
    })),
    ...more,
  });
  const talk = (dialogue: string, more: Record<string, unknown> = {}) => poke('north', { do: 'talk', dialogue, ...more });
  const told = (trial: Trial) =>
    trial.events
      .filter(({ name }) => name.startsWith('dialogue') || name === 'lineSpoken')
      .map(({ name, data }) => `${name} ${data['dialogue']}${data['why'] ? ` ${data['why']}` : ''}`);

  it('waits while its visitor hears another, in turn, and loses nothing of what it does', () => {
    const trial = Trial.of(two());
    trial.step(talk('first'), talk('second'), talk('third'));
    trial.run(0.3);
    trial.restore();
    trial.run(2);
    expect(told(trial)).toEqual(['first', 'second', 'third'].flatMap((id) => [`lineSpoken ${id}`, `dialogueEnded ${id}`]));
    expect([trial.value('scrip'), talksWaitingTable.in(trial.world).count]).toEqual([3, 0]);
    const waited = trial.events.filter(({ name }) => name === 'lineSpoken').map(({ tick }) => tick);
    expect(waited[1] - waited[0]).toBeLessThanOrEqual(11);
  });

  it('is dropped with a word where that is written, and is not said twice', () => {
    const trial = Trial.of(two());
    trial.step(talk('first'), talk('second', { meanwhile: 'dropped' }), talk('first'), talk('third'), talk('third'));
    trial.run(2);
    expect(told(trial)).toEqual([
      'lineSpoken first',
      'dialogueDropped second busy',
      'dialogueDropped first again',
      'dialogueDropped third again',
      'dialogueEnded first',
      'lineSpoken third',
      'dialogueEnded third',
    ]);
    expect(trial.events.filter(({ name }) => name === 'dialogueDropped').map((event) => sentenceOf(trial.rules, event))[0]).toBe(
      'The second is dropped: north hears another',
    );
    const many = Trial.of(two({ dialogues: Array.from({ length: 14 }, (_, i) => ({ ...two().dialogues[0], id: `d${i}` })) }));
    many.step(...Array.from({ length: 14 }, (_, i) => talk(`d${i}`)));
    expect(told(many).filter((line) => line.endsWith('full')).length).toBe(3);
  });

  it('outside a visit is spoken by a voice, and by nobody else', () => {
    const trial = Trial.of(two({ dialogues: [{ ...two().dialogues[0], voice: 'Harbour radio' }, two().dialogues[1]] }));
    trial.step(talk('first'), talk('second'));
    trial.run(2);
    expect(trial.named('lineSpoken').map(({ data }) => data['speaker'])).toEqual(['Harbour radio', 'The second']);
  });

  it('counts for whoever waits for it to end, whoever heard it', () => {
    const goals = [{ id: 'g', line: 'Hear it', on: { on: 'dialogueEnded', dialogue: 'first', who: 'anyone' } }];
    const quest = { id: 'q', label: 'Q', offered: [{ by: 'start' }], begins: 'atOnce', steps: [{ id: 's', label: 'S', goals }] };
    const heard = { id: 'heard', label: 'Heard', on: { on: 'dialogueEnded', who: 'anyone' } };
    const trial = Trial.of(two({ quests: [quest], achievements: [heard] }), [join('north'), join('south')]);
    trial.step(talk('first'));
    trial.run(1);
    for (const event of ['questDone', 'achievementUnlocked'])
      expect(
        trial
          .named(event)
          .map(({ who }) => who)
          .sort(),
      ).toEqual(['north', 'south']);
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
