// Starts the server from one file, with what the engine compiled of it: settings come from the environment.
const { join } = require('node:path');

const bundled = join(__dirname, '../bundled');
const { exports: program, keep } = require(join(bundled, 'compiled.cjs')).load(join(bundled, 'main.cjs'));
void program.main().then(keep);
