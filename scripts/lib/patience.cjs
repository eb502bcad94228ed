// How long a test may take, whatever else the machine has to do. What it waits for in vain it says by itself, and sooner; this ends
// what hangs.
const LONGEST_MS = 900_000;
module.exports = { LONGEST_MS };
if (globalThis.jasmine) globalThis.jasmine.DEFAULT_TIMEOUT_INTERVAL = LONGEST_MS;
