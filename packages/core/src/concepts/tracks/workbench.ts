import type { Workbench } from '../../workbench/workbench.js';
import { tableOf } from './compile.js';
import { trackEvidence } from './evidence.js';
import { levelsFromCsv, levelsToCsv } from './exchange.js';
import { tracks } from './state.js';

export const workbench = {
  questions: { levels: trackEvidence },
  files: {
    csv: {
      write: (_document, rules, id) =>
        levelsToCsv(
          tableOf(
            rules,
            tracks.of(rules).list.find((track) => track.id === id)!,
          ),
        ),
      read: levelsFromCsv,
    },
  },
} satisfies Workbench;
export type TrackQuestions = (typeof workbench)['questions'];
