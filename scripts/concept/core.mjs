/** What a concept's name is in all the forms that its files need. @param {string} name such as `lanterns` @param {string} one such as `lantern` */
export function formsOf(name, one) {
  const upper = (word) => word.charAt(0).toUpperCase() + word.slice(1);
  return { name, one, Name: upper(name), One: upper(one), said: one.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`) };
}

/**
 * The files of a concept in the core, by name: a chapter of entries, of which actors may have some, with an action that gives
 * one. It is whole, and small enough to be made into what was meant.
 * @returns {Readonly<Record<string, string>>}
 */
export function coreFiles({ name, one, Name, One, said }) {
  return {
    'schema.ts': `import { z } from 'zod';
import { defineChapter } from '../../ruleset/chapter.js';
import { entryFields, finite, visibility } from '../../ruleset/fields.js';

export const schema = z.strictObject({
  ...entryFields(),
  /** At most so many are on an actor. */
  most: finite().int('How many is a whole number.').min(1, '1 to 1000.').max(1000, '1 to 1000.').default(1),
  see: visibility().default('everyone'),
});
export type ${One}Entry = z.infer<typeof schema>;
export const ${one}Chapter = defineChapter('${name}', schema);
`,
    'state.ts': `import { conceptState } from '../../world/concept-state.js';
import type { Column } from '../../world/table.js';
import type { ${One}Entry } from './schema.js';

export interface ${Name} {
  readonly entries: readonly ${One}Entry[];
  /** By entry: how many of it are on whom. */
  readonly counts: readonly Column[];
}

/** What the ${name} concept has at hand: its compiled form in rules, and what it keeps by a world. */
export const ${name} = conceptState<readonly ${One}Entry[], ${Name}>('${name}');
`,
    'tables.ts': `import { columnNames, defineEntryTable } from '../../world/entry-table.js';
import type { ${One}Entry } from './schema.js';

/** How many of each ${said} are on an actor. */
export const ${name}Table = defineEntryTable({
  name: '${name}',
  extends: 'actors',
  columns: (${one}: ${One}Entry) => ({ ...columnNames(${one}), kind: 'int', see: ${one}.see, saved: true }),
});
`,
    'events.ts': `import { entry } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

export const events = defineEvents({
  ${one}Given: {
    label: 'a ${said} is given',
    when: 'Somebody has one more ${said}.',
    fields: { ${one}: entry('${name}') },
    patterns: ['${one}'],
    see: { as: '${one}' },
    sentence: (e, speak) => \`\${e.who} has \${speak.label('${name}', e.data['${one}']).toLowerCase()}\`,
  },
});
`,
    'actions.ts': `import { reference } from '../../ruleset/fields.js';
import type { ActionSpec } from '../../world/concept.js';
import { give } from './system.js';

export const actions: Readonly<Record<string, ActionSpec>> = {
  give${One}: {
    label: 'give a ${said}',
    sentence: 'give {${one}} to {to}',
    causes: (args) => [{ event: '${one}Given', fields: { ${one}: args['${one}'] } }],
    args: { ${one}: reference('${name}') },
    compile: (args, context) => {
      const index = context.index('${name}', String(args['${one}']));
      return (world, actor) => give(world, actor, index);
    },
  },
};
`,
    'system.ts': `import type { World } from '../../world/world.js';
import { events } from './events.js';
import { ${name} } from './state.js';

/** Gives an actor one more of an entry; nothing happens where it has the most already. */
export function give(world: World, actor: number, index: number): void {
  const row = world.actors.rowOf(actor);
  if (row < 0) return;
  const { entries, counts } = ${name}.in(world);
  const { data } = counts[index];
  if (data[row] >= entries[index].most) return;
  world.touch(row);
  data[row]++;
  world.emit(events.${one}Given, { subject: actor }, { ${one}: entries[index].id });
}
`,
    'findings.ts': `import { collect } from '../../analysis/collect.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { ${one}Chapter } from './schema.js';

/** Entries that nothing gives. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  const given = new Set(collect(rules).actions.map(({ action }) => action['${one}']));
  return ${one}Chapter.of(rules).flatMap(({ id, label }, i): readonly Finding[] =>
    given.has(id)
      ? []
      : [{ kind: 'neverGiven', path: pointer(['${name}', i]), message: \`Nothing gives \${label}: have an action give it, or delete it.\` }],
  );
}
`,
    'index.ts': `import { defineConcept } from '../../world/concept.js';
import { actions } from './actions.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { ${one}Chapter, schema } from './schema.js';
import { ${name} } from './state.js';
import { ${name}Table } from './tables.js';

export { ${name} } from './state.js';
export type { ${One}Entry } from './schema.js';

/** ${Name}: what they are, in a sentence. */
export const ${name}Concept = defineConcept(${name}, {
  sections: { ${name}: { kind: 'chapter', title: '${Name}', entry: schema } },
  compile: (context) => ${one}Chapter.of(context),
  tables: (entries) => [${name}Table.under(entries)],
  attach: (world, entries) => ({ entries, counts: ${name}Table.columnsIn(world, entries) }),
  events,
  actions,
  findings,
  display: (entries) => entries.filter((entry) => entry.see !== 'server').map(({ id, label }) => ({ id, label })),
});
`,
    [`${name}.spec.ts`]: `import { Copy, findingsOf, Publisher, readRuleset, rulesetSchema, savePlayer, wireSchemaOf } from '../../index.js';
import { rulesetWith, Trial } from '../../testing/rulesets.js';
import { ${name}Table } from './tables.js';

const ${name} = [
  { id: 'first', label: 'First', most: 2 },
  { id: 'hidden', label: 'Hidden', see: 'server' },
];
const has = ({ world }: Trial, id: string) => ${name}Table.in(world).column(id).data[0];

describe('${Name}', () => {
  it('are checked as they are written', () => {
    const problems = (entry: object) => readRuleset(rulesetWith({ ${name}: [entry] })).problems.map(({ path }) => path);
    expect(problems({ id: 'first', label: 'First', most: 0 })).toEqual(['/${name}/0/most']);
    expect(problems({ id: 'first', label: 'First', mst: 2 })).toEqual(['/${name}/0/mst']);
    expect(JSON.stringify(rulesetSchema())).toContain('"${name}"');
  });

  it('are given from outside, up to the most', () => {
    const trial = Trial.of({ ${name} });
    const names = [1, 2, 3].map(() => trial.poke({ do: 'give${One}', ${one}: 'first' }).map(({ name }) => name));
    expect(has(trial, 'first')).toBe(2);
    expect(names.map((all) => all.includes('${one}Given'))).toEqual([true, true, false]);
  });

  it('stay where a world is stored and a player comes back', () => {
    const trial = Trial.of({ ${name} });
    trial.poke({ do: 'give${One}', ${one}: 'first' });
    expect(has(trial.restore(), 'first')).toBe(1);
    expect(savePlayer(trial.world, 0)['${name}']).toEqual({ first: 1, hidden: 0 });
  });

  it('are told to a seat as far as it may know', () => {
    const trial = Trial.of({ ${name} });
    for (const id of ['first', 'hidden']) trial.poke({ do: 'give${One}', ${one}: id });
    const publisher = new Publisher(trial.world);
    publisher.capture();
    const copy = new Copy(wireSchemaOf(trial.rules));
    copy.apply(publisher.frameFor({ actor: trial.actor(), team: -1 }, 0));
    expect(copy.entries(${name}Table).value(0, 'first')).toBe(1);
    expect(copy.entries(${name}Table).value(0, 'hidden')).toBeUndefined();
  });

  it('that nothing gives are a finding', () => {
    const { rules } = readRuleset(rulesetWith({ ${name} }));
    expect(findingsOf(rules!).filter(({ kind }) => kind === 'neverGiven').length).toBe(2);
  });
});
`,
  };
}
