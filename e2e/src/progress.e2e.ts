import type { KeyInput } from 'puppeteer-core';
import { type Screen, seat } from './screen.js';
import { eachWalk } from './suite.js';
import type { Trial } from './trial.js';
import type { Workbench } from './workbench.js';

const node = (id: string) => `ee-tree-plan [data-node="${id}"]`;
const owned = (id: string, name = 'north') => `${seat(name)} ee-skill-window [data-node="${id}"]`;

describe('Progress that stays with a player', () => {
  let workbench: Workbench;
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ workbench, screen, trial } = walk));

  /** Chooses a node without a click: in a walk that would learn it. */
  const step = async (id: string, key: KeyInput = 'Enter') => {
    await screen.page.waitForSelector(node(id));
    await screen.page.$eval(node(id), (e) => (e as HTMLElement).focus());
    await screen.page.keyboard.press(key);
  };
  /** Plays a room with north at level 8, and three of its eight points in the way to Calm. */
  const learned = async () => {
    await trial.harmless();
    await screen.play(await trial.room(2, 'saved'));
    await screen.poke('award', 'standing', { Amount: '5000' });
    await screen.sees(`${seat('north')} [data-tree]`, '8 free');
    await screen.click('button', 'Diver’s Trade, 8 free');
    for (const [name, id, ranks] of [
      ['Deep breath', 'deepBreath', '1/3'],
      ['Deep breath', 'deepBreath', '2/3'],
      ['Calm', 'calm', '1/1'],
    ]) {
      // By the keyboard: what was learned moves the lines below it.
      await screen.press('button', `Learn ${name}`);
      await screen.sees(owned(id), ranks);
    }
    await screen.sees(`${seat('north')} [data-free]`, '5');
  };

  it('shows what a track takes, how long the way is, and what one grant does', async () => {
    await screen.visit(trial.at('tracks'));
    await screen.sees('[data-way]', '2 h 47 min to level 10: 6663 in all.');
    await screen.sees('[data-grant]', /level 2.*level 8/);
    await screen.write('input[aria-label="Experience a minute"]', '80');
    await screen.sees('[data-way]', '1 h 23 min to level 10');
    await screen.write('input[aria-label="A grant of"]', '100');
    await screen.sees('[data-grant]', /^level 2[^3-9]*$/);
    await screen.edit('what a level takes', '120 * level ^ 1.5');
    await screen.sees('[data-way]', '2 h 47 min to level 10: 13325.9');
    await screen.page.waitForSelector('ee-track-evidence .ghost');
    await screen.edit('what a level takes', '50 - level * 10');
    await screen.sees('ee-track-sentences .refusal', 'a level takes more than nothing');
    await screen.page.keyboard.press('Escape');
    await screen.takeBack();
    await screen.sees('[data-way]', '6663');
    await screen.saved();
  });

  it('lays a tree out by hand and by itself', async () => {
    await screen.visit(trial.at('trees'));
    await screen.sees('ee-tree-sentences', 'Deep breath has 3 ranks');
    await step('salvor', 'ArrowDown');
    await screen.page.waitForSelector(`${node('salvor')}[aria-label="Salvor, at 9, 4"]`);
    await screen.takeBack();
    await screen.page.waitForSelector(`${node('salvor')}[aria-label="Salvor, at 9, 3"]`);
    await screen.click('button', 'by itself');
    await screen.page.waitForSelector(`${node('deepBreath')}[aria-label="Deep breath, at 1, 0"]`);
    await screen.saved();
  });

  it('walks a tree with so many points', async () => {
    await screen.visit(trial.at('trees'));
    await screen.click('button', 'Walk it');
    await screen.sees('[data-points]', '0 spent, 10 free');
    await step('calm');
    await screen.sees('[data-says]', 'Calm needs Deep breath at rank 2 first.');
    await step('deepBreath');
    await screen.sees('[data-points]', '1 spent, 9 free');
    await step('deepBreath');
    await screen.sees('[data-points]', '2 spent, 8 free');
    await step('calm');
    await screen.sees('[data-points]', '3 spent, 7 free');
    await step('deepBreath', 'Backspace');
    await screen.sees('[data-says]', 'Calm rests on Deep breath: give that back first.');
    await step('whiteHeat');
    await screen.sees('[data-says]', 'White heat needs Steady hand or Thrifty valve first.');
  });

  it('counts in a room: levels one after the other, points to spend, and refusals in words', async () => {
    await screen.visit(trial.at('tracks'));
    await screen.click('link', 'Playtest');
    await screen.click('button', 'Play with two seats');
    await screen.sees(`${seat('north')} [data-track="standing"]`, /Standing 1 0 of 60/);
    await screen.sees(`${seat('south')} [data-tree]`, '1 free');
    await screen.poke('award', 'standing', { Amount: '5000' });
    await screen.sees(`${seat('north')} [data-track="standing"]`, /Standing 8 1314 of 1358/);
    await screen.sees('ee-trace', /north reaches standing 8/);
    await screen.sees(`${seat('north')} [data-tree]`, '8 free');
    await screen.sees(`${seat('south')} [data-tree]`, '1 free');
    await screen.click('button', 'Diver’s Trade, 8 free');
    await screen.sees(owned('calm'), 'Calm needs Deep breath at rank 2 first.');
  });

  it('is spent on skills, kept over a kill of the server, and told to its owner alone', async () => {
    await learned();
    await screen.lacks(`${owned('deepBreath')} button[aria-label="Give back Deep breath"]`);
    await screen.sees(`${seat('north')} [data-effect="Deep breath"]`, '×2');
    await screen.roomIsStored();
    await workbench.restart();
    await screen.page.reload();
    await screen.sees(`${seat('north')} [data-track="standing"]`, /Standing 8/);
    await screen.sees(`${seat('north')} [data-tree]`, '5 free');
    await screen.sees(`${seat('south')} [data-track="standing"]`, /Standing 1/);
  });

  it('follows an edit: the points of a node that is gone come back, and that is told', async () => {
    await learned();
    await screen.roomIsStored();
    await screen.click('link', 'Rulebook');
    await screen.click('link', 'Skills');
    await step('calm', 'Shift');
    await screen.sees('ee-tree-sentences', 'Node Calm has');
    await screen.click('button', 'delete Calm');
    await screen.lacks(node('calm'));
    // What it takes from whom is shown first.
    await screen.sees('.banner', 'Calm, ranks 1 → nothing');
    await screen.click('button', 'Take it from them');
    await screen.saved();
    await screen.click('link', 'Playtest');
    await screen.sees(`${seat('north')} [data-tree]`, '6 free');
    await screen.sees('ee-trace', /Diver’s Trade has changed: north gets 1 point of Diver’s Trade back/);
  });

  it('shows where players go, and refuses who would unbalance the crews, in words', async () => {
    await screen.visit(trial.at('teams'));
    await screen.sees('ee-team-evidence [data-team="petrel"]', /first third fifth seventh/);
    await screen.sees('ee-team-evidence [data-team="watchers"]', 'nobody is assigned here');
    await screen.sees('[aria-label="Who asks for another team"]', 'second asks for Petrel Petrel is full: 4 are in it');
    await screen.edit('most players', '2');
    await screen.sees('ee-team-evidence [data-team="petrel"]', '2 of 2');
    await screen.takeBack();
    await screen.saved();
    await screen.play(await trial.room());
    await screen.sees(`${seat('south')} [data-roster="petrel"]`, 'P Petrel north');
    await screen.seesPass(`${seat('north')} .refusal`, 'That would unbalance the teams: Gannet would have 2, Petrel 0.', () =>
      screen.tap(`${seat('north')} button[aria-label="Ask to join Gannet"]`),
    );
    await screen.sees(`${seat('north')} [data-roster="gannet"]`, 'G Gannet south');
  });

  it('unlocks achievements once, tells how far the others are, and of the secret one only who has it', async () => {
    await screen.visit(trial.at('achievements'));
    await screen.sees('ee-achievement-list h2', '9 in all, 190 points, 3 counting, 1 secret');
    await trial.harmless();
    await screen.play(await trial.room());
    await screen.poke('award', 'standing', { Amount: '5000' });
    await screen.sees(`${seat('north')} [data-achievements]`, /Achievements, 1 of 9/);
    await screen.sees(`${seat('south')} [data-achievements]`, /Achievements, 0 of 9/);
    await screen.sees(`${seat('north')} [data-following="lampreyBane"]`, '0/10');
    await screen.seesPass(`${seat('north')} ee-flourishes`, 'north unlocks First fall', () => screen.poke('unlock', 'firstBlood'));
    await screen.tap(`${seat('north')} [data-achievements]`);
    await screen.sees(`${seat('north')} [data-achievement="firstBlood"]`, 'unlocked: First fall');
    await screen.sees(`${seat('north')} [data-achievement="podRunner"]`, '0/20');
    await screen.sees(`${seat('north')} ee-achievement-window`, 'One more is secret.');
    await screen.poke('set', 'oxygen', { Amount: '5.5' });
    await screen.sees(`${seat('north')} ee-achievement-window`, /On the last breath/);
    await screen.lacks(`${seat('south')} ee-achievement-window section`);
    await screen.poke('forgetAchievements');
    await screen.sees(`${seat('north')} [data-done]`, /^[01]$/);
    await screen.sees(`${seat('north')} [data-track="standing"]`, /Standing 8/);
  });
});
