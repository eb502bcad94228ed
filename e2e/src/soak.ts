import { surviveCrashes } from './crashes.js';
import { fuzz } from './fuzz/fuzz.js';

/**
 * npm run soak: works in a room whose server is killed at random moments, then sends a server what it should not be sent.
 * `npm run soak -- kills [kills] [seed]` and `npm run soak -- fuzz [share] [seed]` do one of them; a share of 1 is all of it.
 */
const [what = 'all', ...numbers] = process.argv.slice(2);
const [size, seed = Math.floor(Math.random() * 2 ** 31)] = numbers.map(Number);
const say = (text: string) => process.stdout.write(`${text}\n`);
if (!['all', 'kills', 'fuzz'].includes(what)) throw new Error(`kills or fuzz is expected, and this is ${what}`);
let faults = 0;

if (what !== 'fuzz') {
  const kills = size ?? 50;
  say(`${kills} kills, seed ${seed}`);
  const report = await surviveCrashes(kills, seed, (text) => say(`  ${text}`));
  for (const fault of report.faults) say(`  wrong: ${fault}`);
  say(
    `${report.kills} kills: ${report.earned} rewards, ${report.bought} purchases, level ${report.level}; ${report.undone} rewards not yet told to be stored were lost with their kill; ${report.faults.length} faults`,
  );
  faults += report.faults.length;
}

if (what !== 'kills') {
  const share = what === 'fuzz' ? (size ?? 1) : 1;
  const [messages, bodies, rulesets] = [100_000, 20_000, 5000].map((count) => Math.ceil(count * share));
  say(`${messages} messages, ${bodies} bodies, ${rulesets} rulesets, seed ${seed}`);
  const report = await fuzz({ messages, bodies, rulesets, seed }, (text) => say(`  ${text}`));
  for (const fault of report.faults) say(`  wrong: ${fault}`);
  say(`${report.faults.length} faults`);
  faults += report.faults.length;
}
process.exitCode = faults === 0 ? 0 : 1;
