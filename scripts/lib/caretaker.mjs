// Outlives the run that it was started for, however that ends: `kill -9` included. When the other end of its standard
// input is closed, it clears away what the run has left, and ends.
import { clearAway } from './leftovers.mjs';

const [run, home] = process.argv.slice(2);
// The terminal's Ctrl-C and hang-up are for the run; there is work to do after them.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => undefined);
process.stdin.resume().on('end', () => void clearAway(run, home));
