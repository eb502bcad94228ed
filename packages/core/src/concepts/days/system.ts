import { toGrid, toWhole } from '../../math/grid.js';
import { World } from '../../world/world.js';
import { changeAttribute } from '../attributes/index.js';
import { forgetLines, isPlayerRow, ledger, linesOf, moneyOf, noteLine, purseOf } from '../ledger/index.js';
import { movePrices } from '../markets/index.js';
import { restock, shops, upkeepOf } from '../shops/index.js';
import { events } from './events.js';
import { events as tradeEvents } from '../trade/events.js';
import { days } from './state.js';

/** What came before the lines of a statement: money from elsewhere that this room did not see move. */
const BEFORE = 'From before';

export function begin(world: World): void {
  const { economy, length, table } = days.in(world);
  if (!economy || table.count > 0) return;
  const row = table.add();
  table.write(row, { day: 1, ends: length === 0 ? 0 : world.tick + length });
}

/** The handles of all players who still take part, in table order. */
function playersIn(world: World): readonly number[] {
  const { account } = ledger.in(world);
  const found: number[] = [];
  for (let row = 0; row < world.actors.high; row++)
    if (isPlayerRow(world, row) && account.ruined[row] === 0 && account.goal[row] === 0) found.push(world.actors.handle(row));
  return found;
}

export function askToEnd(world: World, actor: number): void {
  const { economy, table } = days.in(world);
  const { account } = ledger.in(world);
  const row = world.actors.rowOf(actor);
  const refuse = (reason: string) => world.emit(tradeEvents.tradeRefused, { subject: actor, source: actor }, { reason });
  if (!economy?.day.key || table.count === 0) return refuse('notReady');
  if (!playersIn(world).includes(actor)) return refuse(account.ruined[row] === 1 ? 'ruined' : account.goal[row] > 0 ? 'over' : 'notReady');
  if (table.cells.settling[0] === 1) return refuse('settling');
  // Asked again: thought better of.
  account.ready[row] = 1 - account.ready[row];
  if (account.ready[row] === 1) world.emit(events.dayEndAsked, { subject: actor, source: actor });
}

export function goOn(world: World): void {
  const { economy, table } = days.in(world);
  if (!economy || table.count === 0) return;
  checkGoals(world);
  const { ends, settling } = table.cells;
  if (settling[0] === 1) return settle(world);
  const { account } = ledger.in(world);
  if (ends[0] === 0 && !account.ready.includes(1)) return;
  const players = playersIn(world);
  const asked = players.length > 0 && players.every((actor) => account.ready[world.actors.rowOf(actor)] === 1);
  if (asked || (ends[0] !== 0 && ends[0] <= world.tick)) endNow(world);
}

/** Ends the day: what things cost is paid as far as it can be, and who can't pay has a last chance. */
export function endNow(world: World): void {
  const { economy, table } = days.in(world);
  if (!economy || table.count === 0 || table.cells.settling[0] === 1) return;
  for (const actor of playersIn(world)) payUpkeep(world, actor);
  table.cells.settling[0] = 1;
  settle(world);
}

function payUpkeep(world: World, actor: number): void {
  const { currency, account } = ledger.in(world);
  const row = world.actors.rowOf(actor);
  for (const offer of shops.in(world).list) {
    const cost = toWhole(upkeepOf(world, actor, offer));
    if (cost === 0) continue;
    // What the purse does not give is owed: it stands in the statement all the same.
    const paid = Math.min(cost, Math.max(0, purseOf(world, actor)));
    world.goesOn(offer.rule);
    changeAttribute(world, actor, currency, -paid, actor, 'pay');
    noteLine(world, actor, `Upkeep: ${offer.label}`, -cost);
    account.owed[row] = toGrid(account.owed[row] + cost - paid);
    world.emit(events.upkeepPaid, { subject: actor, source: actor }, { offer: offer.id, cost, paid });
  }
}

function isShort(world: World, actor: number): boolean {
  const { economy, ruin } = days.in(world);
  const { account } = ledger.in(world);
  if (!economy?.ruin) return false;
  return account.owed[world.actors.rowOf(actor)] > 0 || (ruin !== undefined && ruin(world, World.alone(actor)) !== 0);
}

/** Pays what is owed from what has come in since. */
function payOwed(world: World, actor: number): void {
  const { account, currency } = ledger.in(world);
  const row = world.actors.rowOf(actor);
  const paid = Math.min(account.owed[row], Math.max(0, purseOf(world, actor)));
  if (paid <= 0) return;
  world.goesOn(days.of(world.rules).rule);
  changeAttribute(world, actor, currency, -paid, actor, 'pay');
  account.owed[row] = toGrid(account.owed[row] - paid);
}

/** Goes through those who are short: who has paid is quit, whose chance is over is ruined. Then the next day begins. */
export function settle(world: World): void {
  const { chance } = days.in(world);
  const { account } = ledger.in(world);
  const until = account.until;
  let waiting = false;
  for (const actor of playersIn(world)) {
    const row = world.actors.rowOf(actor);
    payOwed(world, actor);
    if (!isShort(world, actor)) {
      until[row] = 0;
      continue;
    }
    if (until[row] === 0 && chance > 0) {
      until[row] = world.tick + chance;
      world.emit(
        events.shortAtDayEnd,
        { subject: actor, source: actor },
        { money: moneyOf(world), owed: account.owed[row], ticks: chance },
      );
    }
    if (until[row] > world.tick) waiting = true;
    else ruin(world, actor);
  }
  if (!waiting) finish(world);
}

export function ruin(world: World, actor: number): void {
  const { onRuin, economy } = days.in(world);
  const { account } = ledger.in(world);
  const row = world.actors.rowOf(actor);
  account.until[row] = 0;
  drawUp(world, actor);
  account.ruined[row] = 1;
  const { say } = economy!.ruin!;
  world.follow(
    events.playerRuined,
    { subject: actor, source: actor },
    { days: account.days[row], money: moneyOf(world), owed: account.owed[row], ...(say !== undefined && { says: say }) },
    () => onRuin?.(world, World.alone(actor)),
  );
}

/** Draws up the statement of the day that is over, and opens the next. */
function drawUp(world: World, actor: number): void {
  const { account } = ledger.in(world);
  const row = world.actors.rowOf(actor);
  const day = account.days[row] + 1;
  const opening = account.opening[row];
  const closing = toGrid(purseOf(world, actor) - account.owed[row]);
  const seen = linesOf(world, actor, day).reduce((sum, line) => sum + line.amount, 0);
  noteLine(world, actor, BEFORE, toGrid(closing - opening - seen));
  const lines = linesOf(world, actor, day);
  const sum = (sign: 1 | -1) => toGrid(lines.reduce((all, { amount }) => (Math.sign(amount) === sign ? all + amount : all), 0));
  account.lastDay[row] = day;
  account.lastOpening[row] = opening;
  account.lastClosing[row] = closing;
  account.days[row] = day;
  account.opening[row] = closing;
  account.ready[row] = 0;
  forgetLines(world, actor, day);
  world.emit(
    events.dayEnded,
    { subject: actor, source: actor },
    { day, money: moneyOf(world), opening, income: sum(1), costs: sum(-1), closing, result: toGrid(closing - opening) },
  );
}

export function finish(world: World): void {
  const { table, length, economy } = days.in(world);
  const { account } = ledger.in(world);
  for (const actor of playersIn(world)) {
    drawUp(world, actor);
    // Where nobody is ruined, what could not be paid is let go.
    if (!economy!.ruin) account.owed[world.actors.rowOf(actor)] = 0;
  }
  const day = ++table.cells.day[0];
  table.write(0, { settling: 0, ends: length === 0 ? 0 : world.tick + length });
  movePrices(world);
  restock(world);
  world.emit(events.dayBegan, {}, { day });
}

function checkGoals(world: World): void {
  const { goal, onGoal, economy } = days.in(world);
  if (!goal) return;
  const { account } = ledger.in(world);
  for (const actor of playersIn(world)) {
    if (goal(world, World.alone(actor)) === 0) continue;
    const row = world.actors.rowOf(actor);
    account.goal[row] = account.days[row] + 1;
    account.ready[row] = 0;
    const { say } = economy!.goal!;
    world.follow(
      events.goalReached,
      { subject: actor, source: actor },
      { days: account.goal[row], ...(say !== undefined && { says: say }) },
      () => onGoal?.(world, World.alone(actor)),
    );
  }
}
