import { z } from 'zod';
import { defineConcept } from '../../world/concept.js';
import { compileContainers } from './compile.js';
import { showAll, takeAll, takeOne } from './contents.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { schema } from './schema.js';
import { CLOSED, contentsTable, filledTable, lidsTable, openingsTable, shownTable } from './tables.js';
import { containers } from './state.js';
import { leave, moveLids } from './system.js';
import { containerAt, openedBy } from './openings.js';
import { raised } from '../attributes/consequences.js';
import { containerChapter } from './schema.js';

export { containers } from './state.js';
export { type Container } from './compile.js';
export { hold } from './contents.js';
export { CONTENTS, type ContainerEntry, type ContentEntry, TAKES, VISITORS } from './schema.js';
export { LIDS } from './tables.js';
export { openingRefusal, openThing, closeBy } from './system.js';
export { containerAt, openedBy, visitorsOf } from './openings.js';

/**
 * Containers: things with a lid and a life (closed, opening, open, closing). What is in one is decided when it is first
 * open and stays until it is taken; what a visitor's window shows is worked out from that, so the two can't disagree.
 */
export const containersConcept = defineConcept(containers, {
  consequences: (rules) =>
    containerChapter.of(rules).flatMap(({ holds }) => holds.flatMap(({ gives }) => (gives === undefined ? [] : [raised(gives)]))),
  sections: {
    containers: {
      kind: 'chapter',
      title: 'Containers',
      entry: schema,
      unused: 'no kind of actor is one. Let an actor be it, or delete it.',
      absent: 'No actor that comes into play is one.',
    },
  },
  compileInParts: compileContainers,
  tables: () => [lidsTable, openingsTable, contentsTable, filledTable, shownTable],
  attach: (world, compiled) => ({
    ...compiled,
    lids: lidsTable.in(world),
    openings: openingsTable.in(world),
    contents: contentsTable.in(world),
    filled: filledTable.in(world),
    shown: shownTable.in(world),
  }),
  events,
  inputs: {
    take: {
      label: 'take from a container',
      sentence: 'takes what is in the container, the item {item}',
      args: {
        /** The row of one of the things that are shown; everything where nothing is said. */
        item: z.int('An item is a whole number.').min(0).optional(),
      },
      examples: () => [{}, ...[0, 1, 2, 3].map((item) => ({ item }))],
      traced: true,
      run: (world, visitor, { item }) => {
        const thing = openedBy(world, visitor);
        if (item === undefined) takeAll(world, visitor, thing);
        else takeOne(world, visitor, thing, Number(item));
      },
    },
  },
  findings,
  lifecycle: {
    // What an edit has made something else has no lid any more, and nobody has it open.
    rulesAdopted: (world) => {
      const { lids, openings } = containers.in(world);
      const thing = openings.cells.thing;
      for (let at = 0; at < openings.high; at++) {
        const row = openings.live[at] === 1 ? world.actors.rowOf(thing[at]) : -1;
        if (openings.live[at] === 1 && (row < 0 || !containerAt(world, row))) openings.remove(at);
      }
      for (const row of lids.rows()) if (!containerAt(world, row)) lids.write(row, { lid: CLOSED, until: 0 });
      showAll(world);
    },
    actorLeaving: (world, row) => {
      const { openings } = containers.in(world);
      const actor = world.actors.handle(row);
      const { visitor, thing } = openings.cells;
      for (const at of openings.rows()) if (visitor[at] === actor || thing[at] === actor) leave(world, at, 'gone');
    },
  },
  systems: { overlaps: moveLids },
  workbench: async () => (await import('../workbenches.js')).containers,
  display: ({ list, ofType }, rules) =>
    ofType.flatMap((index, type) =>
      index < 0 ? [] : [{ actor: rules.chapters.get('actors')!.ids[type], id: list[index].id, takes: list[index].takes }],
    ),
});
