import { actorOfSeat, checkAction, type Rules, type SavedPlayer, savePlayer, World } from '@eager-ember/core';

type Step = readonly [what: 'poke' | 'ask', args: { readonly do: string; readonly [argument: string]: unknown }];
const poke = (name: string, args: Readonly<Record<string, unknown>>): Step => ['poke', { do: name, ...args }];
const learn = (...nodes: readonly string[]): readonly Step[] =>
  nodes.map((node): Step => ['ask', { do: 'learn', tree: 'diversTrade', node }]);
const done = (...quests: readonly string[]): readonly Step[] =>
  quests.flatMap((quest) => [poke('startQuest', { quest }), poke('finishQuest', { quest })]);
const standing = (amount: number) => poke('award', { track: 'standing', amount });
const scrip = (amount: number) => poke('give', { attribute: 'scrip', amount });

/** Players of the demo, from one who has just come to one who has seen it all. What they have, the rules gave them. */
const SAMPLES: Readonly<Record<string, readonly Step[]>> = {
  gaff: [],
  bollard: [poke('startQuest', { quest: 'firstDescent' }), scrip(4)],
  thole: [...done('firstDescent'), standing(60), ...learn('deepBreath')],
  sounder: [
    ...done('firstDescent'),
    standing(400),
    scrip(18),
    ...learn('deepBreath', 'deepBreath'),
    poke('startQuest', { quest: 'theManifest' }),
  ],
  lantern: [
    ...done('firstDescent', 'theManifest'),
    standing(1200),
    poke('give', { attribute: 'podsTaken', amount: 14 }),
    ...learn('hotFlame', 'hotFlame', 'steadyHand'),
    poke('startQuest', { quest: 'clearTheSlipway' }),
    poke('countGoal', { quest: 'clearTheSlipway', amount: 4 }),
  ],
  pennant: [
    ...done('firstDescent', 'quietHull'),
    standing(2500),
    scrip(210),
    poke('give', { attribute: 'foesFelled', amount: 8 }),
    ...learn('longFins', 'deepBreath'),
  ],
  cutter: [
    ...done('firstDescent', 'theManifest', 'clearTheSlipway'),
    standing(9000),
    scrip(120),
    poke('give', { attribute: 'podsTaken', amount: 22 }),
    poke('give', { attribute: 'tidePearls', amount: 1 }),
    ...learn('deepBreath', 'deepBreath', 'calm', 'hotFlame', 'hotFlame', 'steadyHand'),
    poke('unlock', { achievement: 'lampreyBane' }),
  ],
  anchor: [
    ...done('firstDescent', 'theManifest', 'clearTheSlipway', 'quietHull', 'dailyKelp'),
    standing(60_000),
    scrip(640),
    poke('give', { attribute: 'tidePearls', amount: 5 }),
    ...learn('deepBreath', 'deepBreath', 'calm', 'hotFlame', 'hotFlame', 'steadyHand', 'longFins'),
    poke('unlock', { achievement: 'lastBreath' }),
  ],
};

/** Plays each sample player's way under the demo's rules, and keeps what they have at its end. */
export function samplePlayers(rules: Rules): readonly { readonly name: string; readonly saved: SavedPlayer }[] {
  return Object.entries(SAMPLES).map(([name, steps]) => {
    const world = World.start(rules, 1);
    world.step([{ kind: 'join', args: { seat: name } }]);
    for (const [what, args] of steps) {
      if (what === 'ask') world.step([{ kind: 'input', args: { seat: name, input: args } }]);
      // A demo of one's own may have none of this: then its players have less.
      else if (checkAction(rules, args).problems.length === 0) world.step([{ kind: 'poke', args: { seat: name, action: args } }]);
    }
    world.step();
    return { name, saved: savePlayer(world, world.actors.rowOf(actorOfSeat(world, name))) };
  });
}
