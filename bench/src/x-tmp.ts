import { checks, checksInPage } from './checks.js';
console.log(checks());
console.log(await checksInPage());
process.exit(0);
