import { type Screen, seat, value } from './screen.js';
import { eachWalk } from './suite.js';
import type { Trial } from './trial.js';
import type { Workbench } from './workbench.js';

const lines = (name = 'north') => `${seat(name)} ee-quest-lines`;
const quest = (id: string) => `${lines()} [data-quest="${id}"]`;
const offered = (prompt: string) => `${seat('north')} ee-around button ::-p-text(${prompt})`;
/** Beside the Chart-keeper, in the wreck, beside the page furthest off. */
const [KEEPER, WRECK, PAGE] = ['230, 100', '475, 420', '60, 200'];

describe('Quests', () => {
  let workbench: Workbench;
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ workbench, screen, trial } = walk));

  const put = (where: string, name = 'north') => screen.poke('place', undefined, { Where: where, Seat: name });
  /** Plays a room with north beside the Chart-keeper, and nothing nesting in the wreck. */
  const besideTheKeeper = async () => {
    await trial.harmless();
    await trial.edit(({ arena }) => (arena.placed = arena.placed.filter(({ spawner }) => spawner !== 'lampreyNest')));
    await screen.play(await trial.room(2, 'saved'));
    // What is offered from the start stands before everything else until it is answered.
    await screen.sees(`${lines()} .offer`, 'First Descent');
    await screen.page.keyboard.press('o');
    await screen.sees(quest('firstDescent'), 'Air canister taken');
    await put(KEEPER);
  };
  /** Has north be done with a quest. */
  const done = async (id: string, title: string) => {
    await screen.poke('offerQuest', id, { Seat: 'north' });
    await screen.sees(`${lines()} .offer`, title);
    await screen.page.keyboard.press('o');
    await screen.lacks(`${lines()} .offer`);
    await screen.poke('finishQuest', id, { Seat: 'north' });
    await screen.sees('ee-trace li', `north has done “${title}”`);
  };
  const declined = async (title: string) => {
    await screen.sees(`${lines()} .offer`, title);
    await screen.page.keyboard.press('n');
    await screen.lacks(`${lines()} .offer`);
  };
  const asked = async (title: string) => {
    await screen.tap(offered('Ask for work'));
    await screen.sees(`${lines()} .offer`, title);
  };
  const accepted = async (title: string) => {
    await asked(title);
    await screen.page.keyboard.press('o');
    await screen.lacks(`${lines()} .offer`);
  };

  it('are written as sentences, and their path walked beside them', async () => {
    await screen.visit(trial.at('quests', 'theManifest'));
    await screen.sees('ee-quest-path', 'Chart-keeper, when asked');
    await screen.click('button', 'accept');
    await screen.click('button', 'Count one for wreck');
    await screen.sees('[data-goal="pages"]', 'Pages in hand 0/3');
    for (let n = 0; n < 3; n++) {
      await screen.click('button', 'Count one for pages');
      await screen.sees('[data-goal="pages"]', `Pages in hand ${n + 1}/3`);
    }
    await screen.click('button', 'hand in');
    await screen.sees('[data-told]', /gains 120 standing/);
    await screen.edit('line of pages', 'Pages of the old freight list that are in hand {have}/{need}');
    await screen.sees('ee-entry-findings', 'a line of the display has room for 40');
    await screen.takeBack();
    await screen.edit('count of pages', '4');
    await screen.sees('ee-entry-findings', '4 are asked for, and there are 3');
    await screen.takeBack();
    await screen.sees('button.findings', '0 findings');
    await screen.saved();
  });

  it('are begun from nothing: offered by no one at first, with a step more, and a limit', async () => {
    await screen.visit(trial.at('quests'));
    await screen.click('button', '+ quest');
    await screen.sees('[data-step="first"]', 'Felled {have}/{need}');
    await screen.click('button', '+ step');
    await screen.page.waitForSelector('[data-step="step"]');
    await screen.click('button', 'time');
    await screen.sees('ee-quest-sentences', 'It has to be done within 60 s');
    await screen.click('button', 'accept');
    // The path has moved by it: what is clicked next stands where it stays.
    await screen.sees('ee-quest-path .left', '60 s left');
    await screen.click('button', 'a minute');
    await screen.sees('[data-standing]', 'failed');
    await screen.saved();
  });

  it('are shared on one record, from which what is said to all follows once', async () => {
    await screen.visit(trial.at('quests', 'clearTheSlipway'));
    await screen.sees('[aria-label="Spec"]', 'with one record for all who share it');
    await screen.pick('ee-then .chip', 'begin a dialogue');
    await screen.sees('ee-then', 'for each who shares it');
    await screen.sees('ee-entry-findings', 'it is said several times');
    await screen.choose('how often', 'once, for whoever brought it about', 'ee-then > div:nth-of-type(3)');
    await screen.lacks('ee-entry-findings li');
    await screen.saved();
    const then = (await trial.stored())['quests'].find(({ id }) => id === 'clearTheSlipway')!['then'] as readonly unknown[];
    expect(then[2]).toEqual(jasmine.objectContaining({ do: 'talk', once: true }));
    // Each with a record of their own has nothing follow once.
    await screen.tap('ee-part button[aria-label^="record: "]');
    await screen.tap('mat-option ::-p-text(a record of their own for each)');
    await screen.sees('.refusal', 'Only what follows from a quest that is shared can follow once');
    await screen.page.keyboard.press('Escape');
    await screen.choose('for whom', 'everyone: who accepts it accepts it for all');
    await screen.saved();
  });

  it('are taken in from a table, as a whole or not at all', async () => {
    await screen.visit(trial.at('quests'));
    await screen.click('button', 'quests from a table …');
    const head = 'quest,title,step,goal,line,event,count\n';
    await screen.takeIn('quests.csv', `${head}lampOil,Lamp oil,fetch,kelp,Kelp {have}/{need},pickupTakn pickup=glowKelp,2\n`);
    await screen.sees('mat-dialog-container', 'No event is called pickupTakn');
    await screen.takeIn('quests.csv', `${head}lampOil,Lamp oil,fetch,kelp,Kelp {have}/{need},pickupTaken pickup=glowKelp,2\n`);
    await screen.sees('mat-dialog-container', '1 new');
    await screen.click('button', 'Take it');
    await screen.sees('mat-dialog-container', 'It can be undone in one step');
    await screen.page.keyboard.press('Escape');
    await screen.sees('.index', 'Lamp oil');
    await screen.entry('Lamp oil');
    await screen.sees('ee-entry-findings', 'No one offers Lamp oil');
    await screen.saved();
  });

  it('are offered with what they bring, and declined by a key', async () => {
    await trial.harmless();
    await screen.play(await trial.room());
    await screen.sees(`${lines()} .offer`, 'First Descent');
    await screen.sees(`${lines()} [data-rewards]`, '40 Standing, 10 Scrip');
    await screen.page.keyboard.press('n');
    await screen.lacks(`${lines()} .offer`);
  });

  it('are accepted once, counted step by step, and handed in to who gave them', async () => {
    await besideTheKeeper();
    await asked('The Manifest');
    await screen.page.keyboard.press('o');
    await screen.sees(quest('theManifest'), 'Reach the wreck');
    await put(WRECK);
    await screen.sees(quest('theManifest'), 'Pages in hand 0/3');
    await put(PAGE);
    await screen.sees(quest('theManifest'), 'Pages in hand 1/3');
    await screen.poke('countGoal', 'theManifest', { Amount: '2', Seat: 'north' });
    await screen.sees(quest('theManifest'), 'Return to: Chart-keeper');
    await put(KEEPER);
    await screen.tap(offered('Ask for work'));
    await screen.sees(value('north', 'scrip'), /\d\d/);
    await screen.sees('ee-trace li', 'north has done “The Manifest”');
  });

  it('fail as they say they do', async () => {
    await besideTheKeeper();
    await screen.poke('offerQuest', 'quietHull', { Seat: 'north' });
    await screen.sees(`${lines()} .offer`, 'Quiet Hull');
    await screen.page.keyboard.press('o');
    await screen.sees(quest('quietHull'), /\d+ s/);
    await screen.poke('hurt', 'suit', { Amount: '1', Seat: 'north' });
    await screen.lacks(quest('quietHull'));
    await screen.sees('ee-trace li', 'north fails in “Quiet Hull”');
  });

  it('are given up, and a daily one comes back the next day', async () => {
    await besideTheKeeper();
    // The Chart-keeper offers the first of its own that may be taken.
    await done('theManifest', 'The Manifest');
    await declined('Quiet Hull');
    await done('clearTheSlipway', 'Clear the Slipway');
    await accepted('Kelp for the lamps');
    await screen.tap(`${seat('north')} [data-quests]`);
    await screen.sees('ee-quest-window', 'The Manifest done');
    await screen.click('button', 'Give up Kelp for the lamps');
    await screen.sees('ee-quest-window', 'Kelp for the lamps given up');
    await screen.tap('ee-quest-window button ::-p-text(close)');
    await accepted('Kelp for the lamps');
    await screen.poke('finishQuest', 'dailyKelp', { Seat: 'north' });
    await screen.seesPass(`${seat('north')} [role="alert"]`, /Come back in \d+/, () => screen.tap(offered('Ask for work')));
    await screen.poke('passTime');
    await accepted('Kelp for the lamps');
  });

  it('are there after the server was killed, and on the sheet of their player', async () => {
    await besideTheKeeper();
    await done('theManifest', 'The Manifest');
    await declined('Quiet Hull');
    await accepted('Clear the Slipway');
    await screen.poke('countGoal', 'clearTheSlipway', { Amount: '2', Seat: 'north' });
    await screen.sees(quest('clearTheSlipway'), '2/6');
    await screen.roomIsStored();
    await workbench.kill();
    await screen.sees('[role="alert"]', 'lost');
    await workbench.serve();
    await screen.sees(`${seat('north')} .verdict`, 'Copy agrees with truth.');
    await screen.sees(quest('clearTheSlipway'), '2/6');
    await screen.click('button', 'Leave it');
    await screen.click('link', 'Rulebook');
    await screen.click('link', 'Players');
    await screen.entry('north');
    await screen.sees('.sheet h1', 'north');
    await screen.sees('[data-part="quests"]', 'The Manifest, times done');
  });
});

describe('What is kept of players', () => {
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ screen, trial } = walk));

  const anchor = async () => {
    await trial.takeSamplePlayers();
    await screen.visit(trial.at('players', 'anchor'));
    await screen.sees('.sheet h1', 'anchor');
  };

  it('is put right, refused where the rules do not give it, reset in part, and taken back', async () => {
    await anchor();
    const scrip = 'input[aria-label="Scrip"]';
    await screen.fill(scrip, '123');
    await screen.sees('.done', 'Scrip: 123');
    await screen.fill('input[aria-label="Standing, level"]', '21');
    await screen.sees('.refusal', '1 to 20 is expected, and this is 21');
    await screen.holds(scrip, '123');
    await screen.sees('[data-part="quests"]', 'The Manifest, times done');
    await screen.click('button', 'Reset Quests');
    await screen.sees('.done', 'Quests reset');
    await screen.lacks('[data-part="quests"]');
    await screen.tap('.sheet .tools button ::-p-text(Undo)');
    await screen.sees('[data-part="quests"]', 'The Manifest, times done');
    await screen.page.reload();
    await screen.holds(scrip, '123');
  });

  it('is shown before an edit of the rules takes it, and stays where the edit is taken back', async () => {
    await trial.takeSamplePlayers();
    await screen.visit(trial.at('tracks'));
    await screen.sees('[data-way]', 'level 10');
    await screen.edit('levels', '6');
    await screen.sees('.banner', 'saved players would lose something');
    await screen.sees('.banner', 'Standing, level');
    await screen.click('button', 'Take the edit back');
    await screen.sees('[data-way]', 'to level 10');
    await screen.saved();
    await screen.edit('levels', '6');
    await screen.sees('.banner', 'would lose something');
    await screen.click('button', 'Take it from them');
    await screen.saved();
    await screen.click('link', 'Players');
    await screen.entry('anchor');
    await screen.sees('[data-part="tracks"]', 'Standing, level');
  });
});
