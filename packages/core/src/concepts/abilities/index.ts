import { z } from 'zod';
import { didYouMean } from '../../ruleset/suggest.js';
import { defineConcept } from '../../world/concept.js';
import type { EventSpec, GameEvent, Speaker } from '../../world/events.js';
import { schema } from './schema.js';
import { type Abilities, type Ability, compileAbilities, giveAbilities, useAbility } from './system.js';

export type { AbilityEntry } from './schema.js';

/** Why a player may not use an ability, in words a player can act on. */
function refusal(event: GameEvent, speak: Speaker): string {
  const { ability, reason, ticks, attribute, needs, present } = event.data;
  const name = speak.label('abilities', String(ability));
  if (reason === 'coolingDown') return `${name} is cooling down: ready in ${speak.time(Number(ticks))}.`;
  if (reason === 'tooExpensive')
    return `${name} needs ${needs} ${speak.label('attributes', String(attribute)).toLowerCase()}, and you have ${Math.floor(Number(present) * 10) / 10}.`;
  return `${event.who} does not have ${name}.`;
}

const events: Readonly<Record<string, EventSpec>> = {
  abilityUsed: {
    label: 'an ability is used',
    carries: { entries: { ability: 'abilities' } },
    see: 'everyone',
    announced: true,
    sentence: (e, speak) => `${e.who} uses ${speak.label('abilities', String(e.data['ability'])).toLowerCase()}`,
  },
  abilityRefused: {
    label: 'an ability is refused',
    carries: { entries: { ability: 'abilities' } },
    see: 'owner',
    announced: true,
    refusal: true,
    sentence: refusal,
  },
};

/** Abilities: what a player does on purpose, for a cost, with a cooldown. */
export const abilities = defineConcept<readonly Ability[], Abilities>({
  id: 'abilities',
  sections: { abilities: { kind: 'chapter', title: 'Abilities', entry: schema } },
  compile: compileAbilities,
  tables: () => [
    {
      name: 'abilities',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor', see: 'owner' },
        { name: 'ability', kind: 'entry', chapter: 'abilities', see: 'owner' },
        /** The tick from which it may be used again. */
        { name: 'ready', kind: 'tick', see: 'owner' },
        /** The length of the cooldown that runs or ran last, in ticks. */
        { name: 'cooldown', kind: 'int', see: 'owner' },
      ],
    },
  ],
  attach: (world, list) => ({ list, table: world.table('abilities') }),
  events,
  inputs: {
    use: {
      args: { ability: z.string().max(48) },
      traced: true,
      check: (rules, { ability }) => {
        const known = rules.chapters.get('abilities')?.ids ?? [];
        const id = String(ability);
        return known.includes(id) ? undefined : { argument: 'ability', message: `No ability is called ${id}.${didYouMean(id, known)}` };
      },
      run: (world, actor, args) => useAbility(world, actor, String(args['ability'])),
    },
  },
  lifecycle: {
    actorSpawned: giveAbilities,
    rulesAdopted: (world) => {
      for (let row = 0; row < world.actors.high; row++) if (world.actors.live[row] === 1) giveAbilities(world, row);
    },
  },
  display: (list) =>
    list.map(({ id, label, costs }) => ({
      id,
      label,
      costs: costs.flatMap((c) => (c.amount.constant === undefined ? [] : [{ attribute: c.id, amount: c.amount.constant }])),
    })),
});
