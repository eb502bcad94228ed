import { announcementsFor, readRuleset, type Viewer } from '../../index.js';
import { join, pool, rulesetWith, Trial } from '../../testing/rulesets.js';

describe('A flourish', () => {
  it('names who and what its text says, and is refused where it can’t', () => {
    const teams = [{ id: 'petrel', label: 'The Petrel', open: true }];
    const flourish = (text: string) => [{ do: 'flourish', text, to: 'everyone' }];
    const reactions = [{ id: 'r', label: 'R', on: { on: 'teamChanged' }, then: flourish('{subject} joined {team}, {self}') }];
    const abilities = [{ id: 'ping', label: 'Ping', then: flourish('{self} of {team} pings') }];
    const trial = Trial.of({ teams, reactions, abilities }, [join('north', { team: 'petrel' })]);
    trial.use('ping');
    expect(trial.named('flourish').map(({ data }) => data['text'])).toEqual([
      'north joined The Petrel, north',
      'north of The Petrel pings',
    ]);
    const { problems } = readRuleset(rulesetWith({ abilities: [{ ...abilities[0], then: flourish('{subjct} waves') }] }));
    expect(problems.map(({ path, message }) => `${path}: ${message}`)).toEqual([
      "/abilities/0/then/0/text: A text can't name {subjct}. Did you mean {subject}? It names one of {self}, {source}, {target}, {subject}, {team}.",
    ]);
  });

  it('is told to whom it is for, and to nobody else', () => {
    const trial = new Trial(Trial.of({ attributes: [pool('suit')] }).rules, [join('north'), join('south')]);
    const events = trial.poke({ do: 'flourish', text: 'Air is low', sound: 'tick', shake: 0.4 });
    const heard = (seat: string) => {
      const viewer: Viewer = { actor: trial.actor(seat), team: -1 };
      return announcementsFor(trial.world, events, viewer).map((news) => [news.text, news.data]);
    };
    expect(heard('south')).toEqual([]);
    expect(heard('north')).toEqual([
      ['north is shown: “Air is low”, sound tick, the screen shakes', { text: 'Air is low', sound: 'tick', shake: 0.4 }],
    ]);
  });
});
