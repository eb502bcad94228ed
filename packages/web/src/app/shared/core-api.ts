import {
  abilityEvidence,
  arenaFromJson,
  arenaToJson,
  placedFromCsv,
  placedToCsv,
  abilitySweep,
  actorEvidence,
  containerEvidence,
  dialogueEvidence,
  interactionEvidence,
  pickupEvidence,
  reactionEvidence,
  spawnerEvidence,
  zoneEvidence,
  levelsFromCsv,
  economyFacts,
  type EconomyFacts,
  lootEvidence,
  type LootEvidence,
  lootFromCsv,
  lootToCsv,
  pricesFromCsv,
  pricesToCsv,
  type Roller,
  type QuestMove,
  questsFromCsv,
  questsToCsv,
  type QuestWalk,
  walkQuest,
  levelsToCsv,
  tableOf,
  teamEvidence,
  type TeamEvidence,
  trackEvidence,
  type TrackEvidence,
  tracks,
  type TreeWalk,
  walkTree,
  type Wiring,
  wiringOf,
  attributeEvidence,
  attributesFromCsv,
  attributesToCsv,
  clipsFromCsv,
  clipsFromJson,
  clipsToCsv,
  compileRuleset,
  describeActions,
  describeEvents,
  effectEvidence,
  type Evidence,
  evidenceCsv,
  type Finding,
  findingsOf,
  followEvidence,
  type Problem,
  readRuleset,
  readRulesetText,
  renameEntry,
  renameNode,
  type Renaming,
  repeatedNames,
  type Rules,
  type Sweep,
  type TableReading,
  upgradeDocument,
  type Use,
  usesOf,
} from '@eager-ember/core';

/** Where evidence is of more than one sort, the one that is asked for. */
export type EvidenceMode = 'itself' | 'follow';

type Document = Readonly<Record<string, unknown>>;

const EVIDENCE: Readonly<Record<string, (rules: Rules, id: string) => Evidence>> = {
  attributes: attributeEvidence,
  effects: effectEvidence,
  abilities: abilityEvidence,
  actors: actorEvidence,
  pickups: pickupEvidence,
  zones: zoneEvidence,
  interactions: interactionEvidence,
  dialogues: dialogueEvidence,
  containers: containerEvidence,
  spawners: spawnerEvidence,
  reactions: reactionEvidence,
};

let last: { readonly text: string; readonly rules: Rules } | undefined;

/** Compiled rules are kept for as long as the document stays the same. */
function rulesOf(document: unknown): Rules {
  const text = JSON.stringify(document);
  if (last?.text !== text) last = { text, rules: compileRuleset(document) };
  return last.rules;
}

/** What the interface asks of the core. It runs in a worker. */
export const coreApi = {
  check: (document: unknown): readonly Problem[] => readRuleset(document).problems,
  repeatedNames: (text: string): readonly Problem[] => repeatedNames(text),
  upgraded: (document: unknown): unknown => upgradeDocument(document),
  checkText: (text: string): readonly Problem[] => readRulesetText(text).problems,
  evidence: (document: unknown, chapter: string, id: string, mode: EvidenceMode): Evidence | undefined =>
    mode === 'follow' ? followEvidence(rulesOf(document), id) : EVIDENCE[chapter]?.(rulesOf(document), id),
  sweep: (document: unknown, id: string): Sweep | undefined => abilitySweep(rulesOf(document), id),
  track: (document: unknown, id: string, grant: number): TrackEvidence | undefined => trackEvidence(rulesOf(document), id, grant),
  walk: (document: unknown, id: string, ranks: Readonly<Record<string, number>>, points: number, level: number): TreeWalk | undefined =>
    walkTree(rulesOf(document), id, ranks, points, level),
  loot: (document: unknown, id: string, roller: Roller, thing: string | undefined): LootEvidence | undefined =>
    lootEvidence(rulesOf(document), id, roller, thing),
  economy: (document: unknown): EconomyFacts | undefined => economyFacts(rulesOf(document)),
  toLoot: (document: Document): string => lootToCsv(document),
  fromLoot: (text: string, document: Document): TableReading => lootFromCsv(text, document),
  toPrices: (document: Document): string => pricesToCsv(document),
  fromPrices: (text: string, document: Document): TableReading => pricesFromCsv(text, document),
  teams: (document: unknown): TeamEvidence | undefined => teamEvidence(rulesOf(document)),
  toLevels: (document: unknown, id: string): string => {
    const rules = rulesOf(document);
    return levelsToCsv(
      tableOf(
        rules,
        tracks.of(rules).list.find((track) => track.id === id)!,
      ),
    );
  },
  quest: (document: unknown, id: string, moves: readonly QuestMove[]): QuestWalk | undefined => walkQuest(rulesOf(document), id, moves),
  toQuests: (document: Document): string => questsToCsv(document),
  fromQuests: (text: string, document: Document): TableReading => questsFromCsv(text, document),
  fromLevels: (text: string, document: Document, id: string): TableReading => levelsFromCsv(text, document, id),
  evidenceCsv: (evidence: Evidence): string => evidenceCsv(evidence),
  uses: (document: unknown, chapter: string, id: string): readonly Use[] => usesOf(rulesOf(document), chapter, id),
  findings: (document: unknown): readonly Finding[] => findingsOf(rulesOf(document)),
  wiring: (document: unknown): { wiring: Wiring; ms: number } => {
    const rules = rulesOf(document);
    const began = performance.now();
    const wiring = wiringOf(rules);
    return { wiring, ms: Math.round(performance.now() - began) };
  },
  rename: (document: unknown, chapter: string, from: string, to: string, note: boolean): Renaming =>
    renameEntry(rulesOf(document), chapter, from, to, note),
  renameNode: (document: unknown, tree: string, from: string, to: string): Renaming => renameNode(rulesOf(document), tree, from, to),
  toTable: (document: Document): string => attributesToCsv(document),
  fromTable: (text: string, document: Document): TableReading => attributesFromCsv(text, document),
  toArena: (document: Document): string => arenaToJson(document),
  toPlaced: (document: Document): string => placedToCsv(document),
  fromArena: (text: string, kind: 'csv' | 'json', document: Document): TableReading =>
    (kind === 'json' ? arenaFromJson : placedFromCsv)(text, document),
  toClips: (document: Document): string => clipsToCsv(document),
  fromClips: (text: string, kind: 'csv' | 'json', document: Document): TableReading =>
    (kind === 'json' ? clipsFromJson : clipsFromCsv)(text, document),
  actions: () => describeActions(),
  events: () => describeEvents(),
};
export type CoreApi = typeof coreApi;
