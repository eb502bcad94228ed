import { defineTable } from '../../world/define-table.js';

export const talksTable = defineTable({
  name: 'talks',
  owner: 'visitor',
  columns: {
    visitor: { kind: 'actor', see: 'rules' },
    character: { kind: 'actor', see: 'rules' },
    dialogue: { kind: 'entry', chapter: 'dialogues', see: 'rules' },
    speaker: { kind: 'actor', see: 'rules' },
    /** What the speaker is called, who may have no body. */
    voice: { kind: 'text', see: 'rules' },
    text: { kind: 'text', see: 'rules' },
    until: { kind: 'tick', see: 'rules' },
    /** The line, by the number of its id. */
    line: { kind: 'int', see: 'server' },
    scope: { kind: 'int', see: 'server' },
    cause: { kind: 'serial', see: 'server' },
  },
});

/** What is to be said to a visitor once they have heard what they hear now. */
export const talksWaitingTable = defineTable({
  name: 'talksWaiting',
  owner: 'visitor',
  columns: {
    visitor: { kind: 'actor', see: 'server' },
    character: { kind: 'actor', see: 'server' },
    dialogue: { kind: 'entry', chapter: 'dialogues', see: 'server' },
    turn: { kind: 'int', see: 'server' },
    scope: { kind: 'int', see: 'server' },
    cause: { kind: 'serial', see: 'server' },
  },
});

/** What a visitor may choose just now. */
export const choicesTable = defineTable({
  name: 'choices',
  owner: 'visitor',
  columns: {
    visitor: { kind: 'actor', see: 'owner' },
    talk: { kind: 'int', see: 'owner' },
    number: { kind: 'int', see: 'owner' },
    text: { kind: 'text', see: 'owner' },
  },
});
