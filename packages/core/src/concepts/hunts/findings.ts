import { atEach } from '../../analysis/each.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import { huntChapter } from './schema.js';

/** Hunts in which nothing can happen. */
export const findings = atEach(huntChapter, ({ label, may, given }, i): readonly Finding[] => {
  const path = pointer(['hunts', i]);
  if (may.length === 0)
    return [{ kind: 'huntsNothing', path, message: `${label} finds nothing: nothing may happen in it. Say what seats may do.` }];
  if (given.length === 0)
    return [{ kind: 'huntsNothing', path, message: `${label} finds nothing: nobody is given. Give somebody a seat.` }];
  return [];
});
