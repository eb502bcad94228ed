import { z } from 'zod';
import type { CompileContext, CompiledThen } from '../../ruleset/context.js';
import { reference } from '../../ruleset/fields.js';
import { eachInPart } from '../../ruleset/parts.js';
import type { Path } from '../../ruleset/problem.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { defineConcept } from '../../world/concept.js';
import type { EventSpec } from '../../world/events.js';
import type { Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import { counts } from '../actors/index.js';
import { actorsWithin, placeOf } from '../movement/index.js';
import { choose, CHOOSE_ARGS } from './choices.js';
import { findings } from './findings.js';
import { dialogueChapter, type DialogueEntry, MEANWHILE, schema } from './schema.js';
import { beginWaiting, drop, startTalk } from './waiting.js';
import { type DialogueEnd, events, type fields } from './events.js';
import { talksTable, talksWaitingTable, choicesTable } from './tables.js';
import { type Choice, type Dialogue, dialogues, type Line } from './state.js';

export { dialogues } from './state.js';
export { type DialogueEntry, SPEAKERS } from './schema.js';

function compileDialogue(context: CompileContext, entry: DialogueEntry, i: number): Dialogue {
  const path = ['dialogues', i, 'lines'];
  const ids = entry.lines.map(({ id }) => id);
  ids.forEach((id, k) => {
    if (ids.indexOf(id) < k) context.problem([...path, k, 'id'], `${id} is taken by line ${ids.indexOf(id)} of this dialogue.`);
  });
  const follow = (next: string | undefined, behind: number, at: Path): number => {
    if (next === undefined) return behind < ids.length ? behind : -1;
    if (next === 'end') return -1;
    if (!ids.includes(next)) context.problem(at, `This dialogue has no line ${next}.${didYouMean(next, [...ids, 'end'])}`);
    return ids.indexOf(next);
  };
  return {
    id: entry.id,
    voice: entry.voice ?? entry.label,
    within: entry.within,
    luck: context.purpose(['dialogues', i, 'speaker']),
    lines: entry.lines.map((line, k): Line => {
      const at = [...path, k];
      const part = (
        one: { text: string; if?: string | undefined; next?: string | undefined },
        then: CompiledThen,
        where: Path,
      ): Choice => ({
        text: one.text,
        test: one.if === undefined ? undefined : context.condition(one.if, ['target']),
        then,
        next: follow(one.next, k + 1, [...where, 'next']),
      });
      return {
        ...part(line, context.then(line.then ?? [], [...at, 'then']), at),
        id: line.id,
        speaker: line.speaker,
        ticks: Math.max(1, context.ticks(line.for)),
        choices: (line.choices ?? []).map((choice, c) =>
          part(choice, context.then(choice.then ?? [], [...at, 'choices', c, 'then']), [...at, 'choices', c]),
        ),
      };
    }),
  };
}

/** Dialogues: timed lines that a character and a visitor speak, with choices; every copy shows the same. */
export const dialoguesConcept = defineConcept(dialogues, {
  sections: { dialogues: { kind: 'chapter', title: 'Dialogues', entry: schema } },
  compileInParts: (context) => eachInPart(context.entries<DialogueEntry>('dialogues'), (entry, i) => compileDialogue(context, entry, i)),
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
        meanwhile: z.enum(MEANWHILE, `One of ${MEANWHILE.join(', ')} is expected.`).optional(),
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
    choose: { args: CHOOSE_ARGS, traced: true, run: choose },
  },
  findings,
  systems: { timers: goOn },
});

/** The row of the dialogue that somebody is the visitor of, or -1. */
export function talkOf(world: World, visitor: number): number {
  return dialogues.in(world).talks.firstOf(visitor);
}

/** The line that stands in a dialogue; undefined where an edit has taken it out. */
export function lineAt(world: World, row: number): Line | undefined {
  const { list, talks } = dialogues.in(world);
  const id = world.text(talks.cells.line[row]);
  return list[talks.cells.dialogue[row]]?.lines.find((line) => line.id === id);
}

export const partiesOf = (world: World, row: number) => {
  const { talks } = dialogues.in(world);
  const { visitor, character, scope } = talks.cells;
  return { owner: visitor[row], source: visitor[row], target: character[row], scope: scope[row] };
};

/** Has the first line from a position on that holds stand; ends the dialogue where none does. */
export function speak(world: World, row: number, from: number): void {
  const { list, talks, offered } = dialogues.in(world);
  const dialogue = list[talks.cells.dialogue[row]];
  const parties = partiesOf(world, row);
  clearChoices(world, row);
  let at = from;
  while (at >= 0 && dialogue.lines[at]?.test?.(world, parties) === 0) at = at + 1;
  const line = dialogue.lines[at] as Line | undefined;
  if (!line) return endTalk(world, row, 'over');
  const speaker = speakerOf(world, dialogue, line, parties.owner, parties.target);
  const voice = speaker === 0 ? dialogue.voice : world.nameOf(speaker);
  const cells = {
    speaker,
    voice: world.textIndex(voice),
    text: world.textIndex(line.text),
    until: world.tick + line.ticks,
    line: world.textIndex(line.id),
  };
  talks.write(row, cells);
  line.choices.forEach((choice, number) => {
    if (choice.test?.(world, parties) === 0) return;
    const choiceRow = offered.add();
    const offer = { visitor: parties.owner, talk: row, number, text: world.textIndex(choice.text) };
    offered.write(choiceRow, offer);
  });
  tell(world, row, events.lineSpoken, { speaker: voice, text: line.text }, () => line.then(world, parties));
}

/** Who says a line; 0 for a voice, where nobody else stands there than the visitor. One of the crew is drawn among those near the visitor; where there is none, the visitor says it. */
function speakerOf(world: World, { within, luck }: Dialogue, { speaker }: Line, visitor: number, character: number): number {
  if (speaker === 'character') return character === visitor || world.actors.rowOf(character) < 0 ? 0 : character;
  const row = world.actors.rowOf(visitor);
  if (speaker === 'visitor' || row < 0) return visitor;
  const { x, y } = placeOf(world, row);
  const crew = actorsWithin(world, x, y, within).filter((other) => counts(world, row, other, 'crew'));
  const drawn = world.roll(luck, visitor);
  return crew.length === 0 ? visitor : world.actors.handle(crew[Math.floor(drawn * crew.length)]);
}

/** Announces what happens in a dialogue to those who hear it, and does what follows. */
export function tell(
  world: World,
  row: number,
  event: EventSpec<typeof fields>,
  data: { readonly speaker?: string; readonly text?: string; readonly how?: DialogueEnd },
  work: () => void,
): void {
  const { talks } = dialogues.in(world);
  const { owner, target } = partiesOf(world, row);
  const entry = dialogueChapter.of(world.rules)[talks.cells.dialogue[row]];
  world.since(talks.cells.cause[row], () =>
    world.follow(event, { subject: owner, source: owner, target }, { dialogue: entry.id, heard: entry.heard, ...data }, work),
  );
}

function clearChoices(world: World, row: number): void {
  const { offered } = dialogues.in(world);
  for (const at of offered.rows()) if (offered.cells.talk[at] === row) offered.remove(at);
}

export function endTalk(world: World, row: number, how: DialogueEnd): void {
  const { talks } = dialogues.in(world);
  if (talks.live[row] === 0) return;
  clearChoices(world, row);
  tell(world, row, events.dialogueEnded, { how }, () => undefined);
  talks.remove(row);
}

/** Lines whose time is over make room for the next. */
function goOn(world: World): void {
  const { talks } = dialogues.in(world);
  const until = talks.cells.until;
  for (let row = 0; row < talks.high; row++) {
    if (talks.live[row] === 0) continue;
    if (world.actors.rowOf(talks.cells.character[row]) < 0 && talks.cells.character[row] !== 0) {
      endTalk(world, row, 'broken');
      continue;
    }
    if (until[row] > world.tick) continue;
    const line = lineAt(world, row);
    if (!line || line.choices.length > 0) endTalk(world, row, line ? 'silence' : 'over');
    else if (line.next < 0) endTalk(world, row, 'over');
    else speak(world, row, line.next);
  }
  beginWaiting(world);
}

/** Whether a dialogue that belongs to something still goes on. */
export function isTalking(world: World, scope: number): boolean {
  const { talks, waiting } = dialogues.in(world);
  return scope !== 0 && (rowsOfScope(talks, scope).length > 0 || rowsOfScope(waiting, scope).length > 0);
}

/** Breaks off what belongs to something that has ended. */
export function stopTalking(world: World, scope: number): void {
  const { talks, waiting } = dialogues.in(world);
  const of = waiting.cells;
  for (const row of rowsOfScope(waiting, scope)) {
    const [visitor, character, dialogue] = [of.visitor[row], of.character[row], of.dialogue[row]];
    waiting.remove(row);
    drop(world, { visitor, character, dialogue, scope }, 'broken');
  }
  for (const row of rowsOfScope(talks, scope)) endTalk(world, row, 'broken');
}

/** What dialogues that go on belong to; those that stand for themselves are left out. */
export function scopesTalking(world: World): readonly number[] {
  const { talks, waiting } = dialogues.in(world);
  const scopes = [...talks.rows().map((row) => talks.cells.scope[row]), ...waiting.rows().map((row) => waiting.cells.scope[row])];
  return scopes.filter((scope) => scope !== 0);
}

function rowsOfScope(table: Table, scope: number): readonly number[] {
  const cells = table.cells.scope;
  const found: number[] = [];
  for (const row of table.rows()) if (cells[row] === scope) found.push(row);
  return found;
}
