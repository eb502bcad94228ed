import { surviveCrashes } from './crashes.js';

/** npm run soak -- [kills] [seed]: works in a room whose server is killed at random moments, fifty times unless said otherwise. */
const [kills = 50, seed = Math.floor(Math.random() * 2 ** 31)] = process.argv.slice(2).map(Number);
process.stdout.write(`${kills} kills, seed ${seed}\n`);
const report = await surviveCrashes(kills, seed, (text) => process.stdout.write(`  ${text}\n`));
for (const fault of report.faults) process.stdout.write(`  wrong: ${fault}\n`);
process.stdout.write(
  `${report.kills} kills: ${report.earned} rewards, ${report.bought} purchases, level ${report.level}; ${report.undone} rewards not yet told to be stored were lost with their kill; ${report.faults.length} faults\n`,
);
process.exitCode = report.faults.length === 0 ? 0 : 1;
