import { type Screen, seat, value } from './screen.js';
import { eachWalk } from './suite.js';
import type { Room, Trial } from './trial.js';
import type { Workbench } from './workbench.js';

const LINK = `[aria-label="Join link of south"]`;

describe('Rooms', () => {
  let workbench: Workbench;
  let screen: Screen;
  let trial: Trial;
  eachWalk((walk) => ({ workbench, screen, trial } = walk));

  /** The address of south's join link, as the server has it now. */
  const joinOf = async ({ id }: Room) =>
    (await workbench.request<{ seats: { name: string; join: string | null }[] }>(`/api/rooms/${id}`)).seats[1].join;

  it('give a seat a new join link, and end it: who came by the old one has to go', async () => {
    const room = await trial.room();
    await screen.play(room);
    const guest = await workbench.stranger();
    await guest.visit(room.joins['south']);
    await guest.sees('header', /south crew Gannet/);
    await screen.page.bringToFront();
    await screen.pick(LINK, 'Replace it');
    await screen.sees(LINK, 'New, copied');
    await guest.sees('[role="alert"]', 'This join link was replaced by a new one. Ask for the new link.');
    await guest.page.reload();
    await guest.sees('[role="alert"]', 'This link opens no seat any more. Ask for a new join link.');
    const renewed = await joinOf(room);
    expect(renewed).not.toBe(room.joins['south']);
    await workbench.restart();
    await screen.sees(`${seat('south')} .verdict`, 'Copy agrees with truth.');
    await guest.visit(renewed!);
    await guest.sees('header', /south crew Gannet/);
    await screen.page.bringToFront();
    await screen.pick(LINK, 'End it');
    await guest.sees('[role="alert"]', 'This join link was ended.');
    // Who is signed in sees and drives the seat as before.
    await screen.page.reload();
    await screen.sees(`${seat('south')} .verdict`, 'Copy agrees with truth.');
    await screen.pick(LINK, 'Make one');
    await guest.visit((await joinOf(room))!);
    await guest.sees('header', /south crew Gannet/);
    expect(guest.complaints).toEqual([]);
  });

  it('make way for the one that their author opens next, and take guests back after', async () => {
    const [one, other] = [await trial.room(2, 'saved'), await trial.room(2, 'saved')];
    const guest = await workbench.stranger();
    await guest.visit(one.joins['north']);
    await guest.sees('header', /north crew Petrel/);
    await screen.page.bringToFront();
    await screen.play(other);
    await guest.sees('[role="alert"]', `north and south play in room ${other.id} just now`);
    await screen.poke('give', 'scrip', { Amount: '7', Seat: 'north' });
    await screen.sees(value('north', 'scrip'), '7');
    // A player that somebody plays elsewhere is refused at once, and let in as soon as that is over.
    await screen.page.close();
    await guest.page.bringToFront();
    await guest.lacks('[role="alert"]');
    await guest.sees('[data-attribute="scrip"]', '7');
    expect(guest.complaints).toEqual([]);
  });

  it('begin with fresh guests, or with saved players as they are kept, as is chosen on opening', async () => {
    /** Opens a room from the list of rooms, and returns its address. */
    const begin = async (players?: RegExp) => {
      await screen.visit(`/r/${trial.id}/playtest`);
      if (players) await screen.tap('label ::-p-text(Saved players)');
      await screen.click('button', 'Play with two seats');
      await screen.sees(`${seat('north')} .verdict`, 'Copy agrees with truth.');
      await screen.sees('.truth .room', players ?? /, guests$/);
      return screen.page.url();
    };
    const paid = async (amount: string, becomes: string) => {
      await screen.poke('give', 'scrip', { Amount: amount, Seat: 'north' });
      await screen.sees(value('north', 'scrip'), new RegExp(`^${becomes}$`));
      await screen.roomIsStored();
    };
    const first = await begin();
    await paid('9', '9');
    await begin();
    await paid('4', '4');
    await begin(/, saved players$/);
    await paid('7', '7');
    await workbench.restart();
    await begin(/, saved players$/);
    await screen.sees(value('north', 'scrip'), /^7$/);
    // A guest has what it had in its room, also after a restart.
    await screen.page.goto(first);
    await screen.sees(value('north', 'scrip'), /^9$/);
  });

  it('are closed for good, once that is sure', async () => {
    const room = await trial.room(2, 'saved');
    await screen.play(room);
    await screen.poke('give', 'scrip', { Amount: '9', Seat: 'south' });
    await screen.sees(value('south', 'scrip'), '9');
    const guest = await workbench.stranger();
    await guest.visit(room.joins['south']);
    await guest.sees('header', /south crew Gannet/);
    const another = await workbench.screen();
    await another.visit(`/r/${trial.id}/playtest`);
    await another.click('button', `Close room ${room.id}`);
    await another.sees('[role="alertdialog"]', 'Its join links end with it; what its players have is kept.');
    await another.click('button', 'Close it');
    await another.lacks('section li');
    await guest.sees('[role="alert"]', 'This room was closed. What its players have is kept.');
    await screen.page.bringToFront();
    await screen.sees('[role="alert"]', 'This room was closed.');
    await screen.page.reload();
    await screen.sees('[role="alert"]', `There is no room ${room.id}.`);
    const next = await trial.room(2, 'saved');
    await screen.play(next);
    await screen.sees(value('south', 'scrip'), '9');
    expect([guest.complaints, another.complaints]).toEqual([[], []]);
  });
});
