import { finite } from '../../ruleset/fields.js';

export const secondsOf = (what: string) => finite().min(0, `${what}: 0 to 30 s.`).max(30, `${what}: 0 to 30 s.`);
