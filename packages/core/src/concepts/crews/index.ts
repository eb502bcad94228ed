import { reference } from '../../ruleset/fields.js';
import { idOf } from '../../ruleset/rules.js';
import { defineConcept } from '../../world/concept.js';
import { typeOf } from '../actors/index.js';
import type { AttributeEntry } from '../attributes/index.js';
import { rulesSchema, type TeamRules } from '../teams/schema.js';
import { assign, putInto, switchTeam } from './assign.js';
import { events } from './events.js';
import { crewsTable } from './tables.js';
import { crews } from './state.js';
import { announceChanges, settle, withoutStarts } from './system.js';

export { crews } from './state.js';
export { switchRefusal, membersOf, noteParty, switchTeam, teamForJoining } from './assign.js';

/** Crews: how players come into teams, and change them. The server decides; each settled change is announced once. */
export const crewsConcept = defineConcept(crews, {
  sections: { teamRules: { kind: 'value', title: 'Team rules', schema: rulesSchema } },
  compile: (context) => {
    const rules = context.section<TeamRules>('teamRules');
    const stat = rules.stat === undefined ? -1 : context.index('attributes', rules.stat);
    const target = context.entries<AttributeEntry>('attributes')[stat] as AttributeEntry | undefined;
    if (rules.assign === 'lowest' && rules.stat === undefined)
      context.problem(['teamRules', 'stat'], 'This is missing: say which stat is compared.');
    if (target?.kind === 'pool')
      context.problem(['teamRules', 'stat'], `${target.label} is a pool, which comes and goes: compare a stat or a counter.`);
    if (rules.switching === 'after' && rules.after === undefined)
      context.problem(['teamRules', 'after'], 'This is missing: say how long it takes until a player may change again.');
    return {
      rules,
      stat,
      ticks: rules.after === undefined ? 0 : Math.max(1, context.ticks(rules.after)),
      purpose: context.purpose(['teamRules', 'switching']),
    };
  },
  tables: () => [crewsTable],
  events,
  actions: {
    assign: {
      label: 'put into a team',
      sentence: 'put {to} into {team}',
      causes: ({ team }) => [
        { event: 'teamChanged', fields: { team } },
        { event: 'switchRefused', fields: { team } },
      ],
      args: { team: reference('teams') },
      compile: (args, context) => {
        const team = context.index('teams', String(args['team']));
        return (world, actor) => assign(world, actor, team);
      },
    },
    release: {
      label: 'put into no team',
      sentence: 'put {to} into no team',
      causes: () => [{ event: 'teamChanged' }],
      args: {},
      compile: () => (world, actor) => putInto(world, actor, -1),
    },
  },
  inputs: {
    switch: {
      label: 'switch the team',
      sentence: 'asks to switch to {team}',
      args: { team: reference('teams') },
      traced: true,
      run: (world, actor, { team }) => switchTeam(world, actor, String(team)),
    },
  },
  findings: (_, rules) => withoutStarts(rules),
  lifecycle: {
    actorSpawned: (world, row) => {
      crewsTable.in(world).cells.joined[row] = world.tick;
      // That a player comes into a team is announced as any change is; of all others it is how they come.
      if (typeOf(world, row).kind === 'player') crewsTable.in(world).cells.settled[row] = -1;
      else settle(world, row);
    },
    actorLeaving: (world, row) => {
      const before = crewsTable.in(world).cells.settled[row];
      if (before < 0 || typeOf(world, row).kind !== 'player') return;
      world.emit(events.teamChanged, { subject: world.actors.handle(row) }, { team: '', before: idOf(world.rules, 'teams', before) });
    },
    rulesAdopted: (world) => {
      world.actors.each((row) => settle(world, row));
    },
  },
  systems: { thresholds: announceChanges },
});
