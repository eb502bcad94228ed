import { actorTable, rowInHandle, seatsTable } from '@eager-ember/core';
import { withCompany } from '../testing/company.js';
import type { Harness, RoomInfo, Screen } from '../testing/harness.js';

describe('Progress, on the wire', () => {
  let harness: Harness;
  let room: RoomInfo;
  let truth: Screen;
  let north: Screen;
  let south: Screen;
  withCompany((company) => ({ harness, room, truth, north, south } = company));

  /** What a screen was told of north. */
  const told = ({ copy }: Screen, table: string, column: string) => copy!.value(table, north.welcome!.row!, column);

  it('tells everybody of a level, and of skills and achievements their owner alone', async () => {
    truth.poke('north', { do: 'award', track: 'standing', amount: 600 });
    truth.poke('north', { do: 'unlock', achievement: 'firstBlood' });
    north.ask({ do: 'learn', tree: 'diversTrade', node: 'deepBreath' });
    await north.until('it is learned', () => told(north, 'trees', 'diversTrade.deepBreath.rank') === 1);
    await south.until('the level is told', () => told(south, 'tracks', 'standing.level') === 4);
    expect([told(north, 'trees', 'diversTrade'), told(north, 'achievements', 'firstBlood.done')]).toEqual([4, 1]);
    expect([told(south, 'trees', 'diversTrade'), told(south, 'achievements', 'firstBlood.done')]).toEqual([undefined, undefined]);
    expect(south.news.some(({ event }) => ['achievementUnlocked', 'nodeLearned', 'pointsGained'].includes(event))).toBeFalse();
    expect(south.news.filter(({ event }) => event === 'levelReached').length).toBe(3);
  });

  it('keeps a party together in one crew, also after a restart of its room', async () => {
    const { ruleset } = await harness.json<{ ruleset: string }>(`/api/rooms/${room.id}`);
    await Promise.all([truth, north, south].map((screen) => screen.close()));
    const { id, seats } = await harness.json<RoomInfo>('/api/rooms', {
      method: 'POST',
      body: { ruleset, seats: 4, party: ['north', 'east', 'west'] },
    });
    const all = harness.screen(id);
    await all.ready();
    const crews = () => {
      const { copy } = all;
      return Object.fromEntries(
        copy!
          .of(seatsTable)
          .all()
          .map(({ actor = 0 }) => {
            const { name, team } = copy!.of(actorTable).row(rowInHandle(actor));
            return [name, team];
          }),
      );
    };
    const { north: one, east, west, south: alone } = crews();
    expect([east, west]).toEqual([one, one]);
    expect(alone).not.toBe(one);
    expect(seats.length).toBe(4);
    await all.close();
  });

  it('tells of a secret achievement nobody but who has it, not even that it is there', async () => {
    truth.poke('north', { do: 'unlock', achievement: 'lastBreath' });
    await north.until('it is told', () => north.copy!.rows('secretsFound').length === 1);
    for (const screen of [north, south]) expect(JSON.stringify(screen.copy!.schema)).not.toMatch(/lastBreath|last breath/);
    expect(south.copy!.rows('secretsFound')).toEqual([]);
    expect(JSON.stringify(south.copy!.contents())).not.toContain('last breath');
    expect(JSON.stringify(south.news)).not.toContain('last breath');
  });

  it('tells of a quest nobody before they are offered it; of its lines who is on it; and refuses the rest', async () => {
    const ids = ({ copy }: Screen, table: string) => copy!.rows(table).map((row) => copy!.value(table, row, 'id'));
    const lines = ({ copy }: Screen) =>
      copy!.rows('questLines').map((row) => `${copy!.value('questLines', row, 'line')} ${copy!.value('questLines', row, 'have')}`);
    truth.poke('north', { do: 'offerQuest', quest: 'theManifest' });
    await north.until('it is offered', () => ids(north, 'questLog').includes('theManifest'));
    for (const screen of [north, south]) expect(JSON.stringify(screen.copy!.schema)).not.toMatch(/theManifest|Manifest”/);
    expect(ids(south, 'questLog')).not.toContain('theManifest');
    expect(JSON.stringify([south.copy!.contents(), south.news])).not.toMatch(/theManifest|The Manifest/);
    south.ask({ do: 'acceptQuest', quest: 'theManifest' });
    await south.until('it is refused', () => south.news.some(({ refusal }) => refusal));
    expect(south.news.find(({ refusal }) => refusal)!.text).toBe('You know of no such quest.');
    north.ask({ do: 'acceptQuest', quest: 'theManifest' });
    north.ask({ do: 'acceptQuest', quest: 'theManifest' });
    await north.until('it is accepted once', () => north.news.some(({ refusal }) => refusal));
    expect(north.news.filter(({ event }) => event === 'questStarted').length).toBe(1);
    expect(lines(north)).toEqual(['Reach the wreck 0']);
    expect(lines(south)).toEqual([]);
    // Being done with it is nothing that a seat can ask for.
    north.ask({ do: 'finishQuest', quest: 'theManifest' });
    truth.poke('north', { do: 'countGoal', quest: 'theManifest', amount: 1 });
    await north.until('the step is done', () => lines(north).join() === 'Pages in hand {have}/{need} 0');
  });

  it('refuses claims for what was not earned, and changes nothing', async () => {
    for (const input of [
      { do: 'learn', tree: 'diversTrade', node: 'salvor' },
      { do: 'learn', tree: 'diversTrade', node: '__proto__' },
      { do: 'unlearn', tree: 'diversTrade', node: 'deepBreath' },
      { do: 'respec', tree: 'diversTrade' },
      { do: 'switch', team: 'watchers' },
      { do: 'switch', team: 'gannet' },
    ])
      north.ask(input);
    const refused = () => north.news.filter(({ refusal }) => refusal).length;
    await north.until('all are refused', () => refused() === 6);
    expect([told(north, 'trees', 'diversTrade'), told(north, 'trees', 'diversTrade.spent')]).toEqual([1, 0]);
    expect(told(north, 'actors', 'team')).toBe('petrel');
    expect(south.news.some(({ refusal }) => refusal)).toBeFalse();
    // Giving oneself something is no request of a seat.
    north.ask({ do: 'award', track: 'standing', amount: 5000 });
    north.ask({ do: 'unlock', achievement: 'firstBlood' });
    truth.poke('south', { do: 'give', attribute: 'scrip', amount: 1 });
    await south.until('a tick has passed', () => south.value('scrip') === 1);
    expect([told(north, 'tracks', 'standing.level'), told(north, 'achievements', 'firstBlood.done')]).toEqual([1, 0]);
  });
});
