import { type Screen, value } from './screen.js';
import { eachWalk } from './suite.js';
import type { Trial } from './trial.js';
import type { Workbench } from './workbench.js';

describe('While the database is away', () => {
  let workbench: Workbench;
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ workbench, screen, trial } = walk), { own: 'cluster' });
  // One that failed in between leaves it away.
  afterEach(() => workbench.startDatabase());

  it('the Rulebook keeps edits here, also over a reload, and saves them when it is back', async () => {
    await screen.visit(trial.at('attributes', 'oxygen'));
    // All of the page is there before there is nothing to ask any more.
    await screen.sees('ee-part button[aria-label^="refill a second: "]', 'breathRate');
    await screen.saved();
    workbench.stopDatabase();
    await screen.edit('refill a second', '2 * breathRate');
    await screen.sees('.banner', 'The database can’t be reached. Your edits are kept here');
    await screen.sees('[role="status"]', '1 edit not saved yet');
    await workbench.startDatabase();
    await screen.lacks('.banner');
    await screen.sees('[role="status"]', 'saved · rev 2');
    await screen.page.reload();
    await screen.sees('ee-part button', '2 * breathRate');
  });

  it('a room says so to everybody, is played on, and says when all is kept again', async () => {
    await trial.harmless();
    const room = await trial.room();
    await screen.play(room);
    const guest = await workbench.stranger();
    await guest.visit(room.joins['south']);
    await guest.sees('header', /south crew Gannet/);
    workbench.stopDatabase();
    for (const one of [screen, guest]) await one.sees('[role="status"]', 'The database can’t be reached. You can play on;');
    await screen.page.bringToFront();
    await screen.poke('give', 'scrip', { Amount: '3', Seat: 'south' });
    await screen.sees(value('south', 'scrip'), '3');
    await guest.page.bringToFront();
    await guest.seesPass('[role="status"]', 'That is over: the room runs as it should, and all that happened is saved.', () =>
      workbench.startDatabase(),
    );
    await workbench.restart();
    await guest.sees('[data-attribute="scrip"]', '3');
    expect(guest.complaints).toEqual([]);
  });
});
