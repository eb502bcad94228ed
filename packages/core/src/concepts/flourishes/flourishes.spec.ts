import { announcementsFor, type Viewer } from '../../index.js';
import { join, pool, Trial } from '../../testing/rulesets.js';

describe('A flourish', () => {
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
