import { word, reference } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';
import { choose, CHOOSE_ARGS } from './choices.js';
import { findings } from './findings.js';
import { dialogueChapter, type DialogueEntry, MEANWHILE, schema } from './schema.js';
import { startTalk } from './waiting.js';
import { events } from './events.js';
import { talksTable, talksWaitingTable, choicesTable } from './tables.js';
import { dialogues } from './state.js';
import { compileDialogue } from './compile.js';
import { goOn } from './system.js';

export { dialogues } from './state.js';
export { type DialogueEntry, SPEAKERS } from './schema.js';
export { isTalking, stopTalking, scopesTalking } from './system.js';
export { talkOf, lineAt, partiesOf, speak, tell, endTalk } from './talks.js';

/** Dialogues: timed lines that a character and a visitor speak, with choices; every copy shows the same. */
export const dialoguesConcept = defineConcept(dialogues, {
  alsoCalled: { names: { say: ['talk'], speak: ['talk'] } },
  sections: {
    dialogues: {
      kind: 'chapter',
      title: 'Dialogues',
      entry: schema,
      unused: 'no action begins it. Begin it from an interaction, or delete it.',
      absent: 'No action that is ever run begins it.',
    },
  },
  compileInParts: (context) =>
    context.each('dialogues', context.entries<DialogueEntry>('dialogues'), (entry, i) => compileDialogue(context, entry, i)),
  tables: (_, rules) => {
    const see = {
      column: 'dialogue',
      of: dialogueChapter.of(rules).map((entry) => entry.heard),
    };
    return [talksTable.under({ see }), talksWaitingTable, choicesTable];
  },
  attach: (world, list) => ({ list, talks: talksTable.in(world), waiting: talksWaitingTable.in(world), offered: choicesTable.in(world) }),
  events,
  actions: {
    talk: {
      label: 'begin a dialogue',
      sentence: 'begin {dialogue} with {to}, {meanwhile} while they hear another',
      causes: ({ dialogue }) => [
        { event: 'lineSpoken', fields: { dialogue } },
        { event: 'dialogueDropped', fields: { dialogue } },
      ],
      args: {
        dialogue: reference('dialogues'),
        /** What becomes of it while its visitor hears another; it waits where nothing is said. */
        meanwhile: word(MEANWHILE, { waits: 'waits', dropped: 'dropped' }).optional(),
      },
      compile: (args, context) => {
        const index = context.index('dialogues', String(args['dialogue']));
        const waits = args['meanwhile'] !== 'dropped';
        return (world, actor, parties) =>
          startTalk(world, { dialogue: index, visitor: actor, character: parties.target, scope: parties.scope ?? 0 }, waits);
      },
    },
  },
  inputs: {
    choose: {
      label: 'choose an answer',
      sentence: 'chooses answer {choice}',
      args: CHOOSE_ARGS,
      examples: () => [0, 1, 2].map((choice) => ({ choice })),
      traced: true,
      run: choose,
    },
  },
  findings,
  systems: { timers: goOn },
  workbench: async () => (await import('../workbenches.js')).dialogues,
});
