import type { Workbench } from '../../workbench/workbench.js';
import { walkTree } from './evidence.js';
import { renameNode } from './rename.js';

export const workbench = { questions: { walk: walkTree, renameNode } } satisfies Workbench;
export type TreeQuestions = (typeof workbench)['questions'];
