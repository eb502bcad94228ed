import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { around } from './around.js';
import { checks, checksInPage } from './checks.js';
import { commandLine } from './command-line.js';
import { evidence } from './evidence.js';
import { fight } from './fight.js';
import { frames } from './frames.js';
import { hunts } from './hunts.js';
import { economyGames, gamesInPage, lootRolls } from './money.js';
import { overgrown } from './overgrown.js';
import { players } from './players.js';
import { quests } from './quests.js';
import { manyRooms } from './rooms.js';
import type { Row } from './measure.js';
import { rerun } from './rerun.js';
import { size } from './size.js';
import { snapshots } from './snapshots.js';
import { starting } from './starting.js';
import { socketStorm } from './storm.js';
import { watching } from './watching.js';
import { worldTick } from './world-tick.js';

const rows: readonly Row[] = [
  ...commandLine(),
  await starting(),
  worldTick(),
  ...snapshots(),
  ...fight(),
  ...around(),
  ...quests(),
  ...overgrown(),
  ...size(),
  ...checks(),
  ...hunts(),
  ...lootRolls(),
  await economyGames(),
  ...(await players()),
  rerun(),
  await socketStorm(),
  ...(process.argv.includes('--no-browser')
    ? []
    : [...(await evidence()), ...(await checksInPage()), await watching(), await gamesInPage(), ...(await manyRooms())]),
  ...frames(),
];
const machine = `${cpus()[0]?.model ?? 'unknown'}, ${cpus().length} cores, Node ${process.version}`;
console.log(`\n${machine}\n`);
for (const { what, value, reference, unit, referenceIs, ratio, reach } of rows)
  console.log(`${what}\n  ${value} ${unit}; ${referenceIs}: ${reference} ${unit}; ${ratio} (reach: ${reach})\n`);
writeFileSync(new URL('../results.json', import.meta.url), JSON.stringify({ machine, at: new Date().toISOString(), rows }, null, 2) + '\n');
