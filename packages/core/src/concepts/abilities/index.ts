import { usesWorthTrying } from './examples.js';
import { z } from 'zod';
import { finite } from '../../ruleset/fields.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { defineConcept } from '../../world/concept.js';
import { reference } from '../../ruleset/fields.js';
import type { AimRequest } from './aim.js';
import { adoptCasts, advanceCasts, breakByHeading, breakCast, cancelCast, useAbility, breakOnEvent } from './casts.js';
import { refillStores } from './charge.js';
import { compileAbilities } from './compile.js';
import { events } from './events.js';
import { findings } from './findings.js';
import { giveAbilities } from './owned.js';
import { type AbilityEntry, groupSchema, schema } from './schema.js';
import { abilityTables, attachAbilities } from './tables.js';
import { isTold } from '../../ruleset/visible.js';
import { abilities } from './state.js';
import { everyActor, seenBy } from './system.js';

export { abilities } from './state.js';
export { type AbilityEntry, CHARGES, type GroupEntry, NUMBERS, TARGETS, type TargetEntry } from './schema.js';
export { breakCast, canUse, useAbility, refusalNow } from './casts.js';
export { type AbilityView, type AbilityRefusal, refusalOf, refusalWords } from './refusals.js';
export { type AbilityNumber, type CastPhase, CHANGEABLE, CHANGES, PHASES as CAST_PHASES } from './tables.js';
export { fillTooltip, wrapText } from './tooltip.js';
export { pricesOf } from './charge.js';
export { type NumberChange, setGifts } from './gifts.js';
export { numbersOf } from './numbers.js';
export { ownedRow } from './tables.js';

/** Abilities: what a player does on purpose: aimed, cast, paid for, and then cooling down. */
export const abilitiesConcept = defineConcept(abilities, {
  alsoCalled: { parts: { delivery: ['deliver'], effects: ['then', 'onHit', 'ends'] } },
  sections: {
    abilities: {
      kind: 'chapter',
      title: 'Abilities',
      entry: schema,
      unused: 'no kind of actor has it. Give it to one, or delete it.',
      absent: 'No actor that comes into play has it.',
      see: (entry, rules) => seenBy(rules, entry as AbilityEntry),
    },
    groups: { kind: 'chapter', title: 'Cooldown groups', entry: groupSchema, unused: 'no ability is in it. Put some in it, or delete it.' },
  },
  compileInParts: compileAbilities,
  tables: abilityTables,
  attach: attachAbilities,
  events,
  findings,
  actions: {
    breakCast: {
      label: 'break a cast or a channel',
      sentence: 'break what {to} is casting or channelling',
      args: {},
      compile: () => (world, actor) => breakCast(world, actor, 'status'),
    },
    use: {
      label: 'have an ability used',
      sentence: 'have {to} use {ability}',
      args: { ability: reference('abilities') },
      compile: (args) => (world, actor) => useAbility(world, actor, String(args['ability'])),
    },
  },
  inputs: {
    use: {
      label: 'use an ability',
      sentence: 'uses {ability}, aimed at {target}, at {x}, {y}',
      args: {
        ability: reference('abilities'),
        /** Where the player points. */
        x: finite().optional(),
        y: finite().optional(),
        /** Whom it is meant for: an actor's row, or its name. */
        target: z.union([z.int().min(0), z.string().max(48)], 'A target is the row of an actor, or its name.').optional(),
      },
      examples: usesWorthTrying,
      traced: true,
      check: (rules, { ability }) => {
        const known = rules.chapters.get('abilities')?.ids ?? [];
        const id = String(ability);
        return known.includes(id) ? undefined : { argument: 'ability', message: `No ability is called ${id}.${didYouMean(id, known)}` };
      },
      run: (world, actor, args) => useAbility(world, actor, String(args['ability']), args as AimRequest),
    },
    cancel: { label: 'break off what is cast', sentence: 'breaks off what is being cast', args: {}, traced: true, run: cancelCast },
  },
  onAnnounce: breakOnEvent,
  systems: {
    timers: (world) => {
      refillStores(world, abilities.in(world));
      breakByHeading(world);
    },
    abilities: advanceCasts,
  },
  lifecycle: {
    actorSpawned: giveAbilities,
    rulesAdopted: (world, before) => {
      everyActor(world, giveAbilities);
      adoptCasts(world, before);
    },
  },
  workbench: async () => (await import('../workbenches.js')).abilities,
  display: ({ list, entries }, rules) =>
    list
      .filter((ability) => seenBy(rules, entries[ability.index]) !== 'server')
      .map(({ index: i, id, label, costs, target, stored, breaks, cast }) => ({
        id,
        label,
        costs: costs.flatMap((c) =>
          c.amount.constant === undefined || !isTold(rules, 'attributes', c.id) ? [] : [{ attribute: c.id, amount: c.amount.constant }],
        ),
        aim: target.at,
        ...(stored && { stored: stored.most }),
        ...(breaks.movement && { still: true }),
        casts: cast !== undefined,
        ...(entries[i].deliver?.colour !== undefined && { colour: entries[i].deliver.colour }),
        ...(entries[i].deliver?.by === 'projectile' && { radius: entries[i].deliver.radius }),
      })),
});
