import { z } from 'zod';
import { entryFields, visibility } from '../../ruleset/fields.js';

export const schema = z.strictObject({ ...entryFields(), see: visibility().default('everyone') });
export type StatusEntry = z.infer<typeof schema>;
