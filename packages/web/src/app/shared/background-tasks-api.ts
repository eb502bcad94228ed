import {
  compileRuleset,
  EconomyGames,
  type Game,
  LootSampler,
  PLANS,
  type PlanId,
  type Roller,
  type Rules,
  type SampleResult,
} from '@eager-ember/core';

let rules: { readonly text: string; readonly of: Rules } | undefined;
let sampler: LootSampler | undefined;
let games: { readonly rules: Rules; readonly plan: PlanId; readonly of: EconomyGames } | undefined;

function rulesOf(document: unknown): Rules {
  const text = JSON.stringify(document);
  if (rules?.text !== text) rules = { text, of: compileRuleset(document) };
  return rules.of;
}

/** Long work, in small goes: whoever asks for the next one can stop before it. Runs in workers of its own, beside the one for evidence. */
export const backgroundTasksApi = {
  beginSample: (document: unknown, id: string, roller: Roller, thing: string): void => {
    sampler = new LootSampler(rulesOf(document), id, roller, thing);
  },
  /** Makes so many openings more, and tells what all of them came to. */
  sample: (openings: number, asked: readonly number[]): SampleResult => {
    sampler!.run(openings);
    return sampler!.result(asked);
  },
  /** Plays the games of these seeds. */
  play: (document: unknown, plan: PlanId, from: number, to: number): readonly Game[] => {
    const known = rulesOf(document);
    if (games?.rules !== known || games.plan !== plan)
      games = {
        rules: known,
        plan,
        of: new EconomyGames(
          known,
          PLANS.find(({ id }) => id === plan)!,
        ),
      };
    return Array.from({ length: to - from + 1 }, (_, i) => games!.of.play(from + i));
  },
};
export type BackgroundTasksApi = typeof backgroundTasksApi;
