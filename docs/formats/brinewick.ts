// Generated from the ruleset "Brinewick Salvage". Edit the ruleset, not this file.

export const TEAMS = {
  /** Petrel */
  petrel: 'petrel',
  /** Gannet */
  gannet: 'gannet',
  /** Watchers */
  watchers: 'watchers',
} as const;
export type TeamId = keyof typeof TEAMS;

export const CURVES = {
} as const;
export type CurveId = keyof typeof CURVES;

export const ACTORS = {
  /** Diver */
  diver: 'diver',
  /** Lamprey */
  lamprey: 'lamprey',
  /** Angler */
  angler: 'angler',
  /** Urchin drift */
  urchinDrift: 'urchinDrift',
  /** Supply crate */
  supplyCrate: 'supplyCrate',
  /** Strongbox */
  strongbox: 'strongbox',
  /** Quartermaster */
  quartermaster: 'quartermaster',
  /** Chart-keeper */
  chartKeeper: 'chartKeeper',
  /** Broker */
  broker: 'broker',
} as const;
export type ActorId = keyof typeof ACTORS;

export const STATUSES = {
  /** In bell */
  inBell: 'inBell',
  /** Winded */
  winded: 'winded',
  /** Bubbled */
  bubbled: 'bubbled',
  /** Silted */
  silted: 'silted',
  /** Marked */
  marked: 'marked',
  /** Stunned */
  stunned: 'stunned',
} as const;
export type StatusId = keyof typeof STATUSES;

export const STATES = {
  /** Stunned */
  stunned: 'stunned',
  /** Idle */
  idle: 'idle',
  /** Moving */
  moving: 'moving',
  /** Casting */
  casting: 'casting',
  /** Channelling */
  channelling: 'channelling',
  /** Recovering */
  recovering: 'recovering',
  /** Down */
  down: 'down',
} as const;
export type StateId = keyof typeof STATES;

export const ATTRIBUTES = {
  /** Oxygen */
  oxygen: 'oxygen',
  /** Lung capacity */
  lungCapacity: 'lungCapacity',
  /** Breath rate */
  breathRate: 'breathRate',
  /** Suit */
  suit: 'suit',
  /** Suit rating */
  suitRating: 'suitRating',
  /** Stamina */
  stamina: 'stamina',
  /** Fin speed */
  finSpeed: 'finSpeed',
  /** Torch power */
  torchPower: 'torchPower',
  /** Handling */
  handling: 'handling',
  /** Body radius */
  bodyRadius: 'bodyRadius',
  /** Scrip */
  scrip: 'scrip',
  /** Pods taken */
  podsTaken: 'podsTaken',
  /** Foes felled */
  foesFelled: 'foesFelled',
  /** Brass fittings */
  brassFittings: 'brassFittings',
  /** Cut glass */
  cutGlass: 'cutGlass',
  /** Tide-pearls */
  tidePearls: 'tidePearls',
  /** Manifest pages */
  pagesFound: 'pagesFound',
} as const;
export type AttributeId = keyof typeof ATTRIBUTES;

export const EFFECTS = {
  /** Slipstream */
  slipstream: 'slipstream',
  /** Silt */
  silt: 'silt',
  /** Bubble */
  bubble: 'bubble',
  /** Winded */
  winded: 'winded',
  /** Stun */
  stun: 'stun',
  /** Marked */
  marked: 'marked',
  /** Warmth */
  warmth: 'warmth',
  /** Keen eye */
  keenEye: 'keenEye',
  /** Chill */
  chill: 'chill',
  /** Deep breath */
  deepBreath: 'deepBreath',
  /** Quick fill */
  quickFill: 'quickFill',
  /** Hot flame */
  hotFlame: 'hotFlame',
  /** Steady hand */
  steadyHand: 'steadyHand',
  /** Long fins */
  longFins: 'longFins',
} as const;
export type EffectId = keyof typeof EFFECTS;

export const CLIPS = {
  /** Torch sweep */
  torchSweep: 'torchSweep',
  /** Harpoon shot */
  harpoonShot: 'harpoonShot',
  /** Jaw snap */
  jawSnap: 'jawSnap',
} as const;
export type ClipId = keyof typeof CLIPS;

export const ABILITIES = {
  /** Sonar ping */
  sonarPing: 'sonarPing',
  /** Cutting torch */
  cuttingTorch: 'cuttingTorch',
  /** Harpoon */
  harpoon: 'harpoon',
  /** Tow line */
  towLine: 'towLine',
  /** Depth charge */
  depthCharge: 'depthCharge',
  /** Second wind */
  secondWind: 'secondWind',
  /** Bite */
  bite: 'bite',
  /** Lure */
  lure: 'lure',
  /** Maw */
  maw: 'maw',
  /** Sting */
  sting: 'sting',
} as const;
export type AbilityId = keyof typeof ABILITIES;

export const GROUPS = {
  /** Tools */
  tools: 'tools',
} as const;
export type GroupId = keyof typeof GROUPS;

export const PICKUPS = {
  /** Slipstream pod */
  slipstreamPod: 'slipstreamPod',
  /** Silt pod */
  siltPod: 'siltPod',
  /** Air canister */
  airCanister: 'airCanister',
  /** Copper token */
  copperToken: 'copperToken',
  /** Glow-kelp */
  glowKelp: 'glowKelp',
  /** Manifest page */
  manifestPage: 'manifestPage',
  /** Loose brass */
  looseBrass: 'looseBrass',
  /** Piece of cut glass */
  glassPiece: 'glassPiece',
  /** Tide-pearl */
  tidePearl: 'tidePearl',
} as const;
export type PickupId = keyof typeof PICKUPS;

export const LOOT = {
  /** Lamprey */
  lamprey: 'lamprey',
  /** Angler */
  angler: 'angler',
  /** Supply crate */
  supplyCrate: 'supplyCrate',
  /** Strongbox */
  strongbox: 'strongbox',
  /** Ship’s small change */
  smallChange: 'smallChange',
  /** A day out */
  dayOut: 'dayOut',
} as const;
export type LootId = keyof typeof LOOT;

export const ZONES = {
  /** Diving bell */
  divingBell: 'divingBell',
  /** The wreck */
  wreck: 'wreck',
  /** Cold current */
  coldCurrent: 'coldCurrent',
} as const;
export type ZoneId = keyof typeof ZONES;

export const DIALOGUES = {
  /** About the wreck */
  aboutTheWreck: 'aboutTheWreck',
} as const;
export type DialogueId = keyof typeof DIALOGUES;

export const INTERACTIONS = {
  /** Rest and refill */
  rest: 'rest',
  /** Ask the way */
  askTheWay: 'askTheWay',
  /** Pawn a pearl */
  sellPearl: 'sellPearl',
  /** Ask for work */
  askForWork: 'askForWork',
  /** Hand over */
  handOver: 'handOver',
} as const;
export type InteractionId = keyof typeof INTERACTIONS;

export const CONTAINERS = {
  /** Supply crate */
  supplyCrate: 'supplyCrate',
  /** Strongbox */
  strongbox: 'strongbox',
} as const;
export type ContainerId = keyof typeof CONTAINERS;

export const MARKETS = {
  /** The Broker’s scales */
  exchange: 'exchange',
} as const;
export type MarketId = keyof typeof MARKETS;

export const SHOPS = {
  /** Brinewick yard */
  yard: 'yard',
} as const;
export type ShopId = keyof typeof SHOPS;

export const OFFERS = {
  /** Slip */
  slip: 'slip',
  /** Bunks */
  bunks: 'bunks',
  /** Winch */
  winch: 'winch',
  /** Bubble soap */
  soap: 'soap',
  /** Keen lens */
  lens: 'lens',
} as const;
export type OfferId = keyof typeof OFFERS;

export const SPAWNERS = {
  /** Lamprey nest */
  lampreyNest: 'lampreyNest',
  /** Light from the deep */
  deepLight: 'deepLight',
  /** Kelp bed */
  kelpBed: 'kelpBed',
} as const;
export type SpawnerId = keyof typeof SPAWNERS;

export const TRACKS = {
  /** Standing */
  standing: 'standing',
} as const;
export type TrackId = keyof typeof TRACKS;

export const TREES = {
  /** Diver’s Trade */
  diversTrade: 'diversTrade',
} as const;
export type TreeId = keyof typeof TREES;

export const QUESTS = {
  /** First Descent */
  firstDescent: 'firstDescent',
  /** The Manifest */
  theManifest: 'theManifest',
  /** Clear the Slipway */
  clearTheSlipway: 'clearTheSlipway',
  /** Quiet Hull */
  quietHull: 'quietHull',
  /** Kelp for the lamps */
  dailyKelp: 'dailyKelp',
} as const;
export type QuestId = keyof typeof QUESTS;

export const ACHIEVEMENTS = {
  /** First fall */
  firstBlood: 'firstBlood',
  /** Bane of lampreys */
  lampreyBane: 'lampreyBane',
  /** Pod runner */
  podRunner: 'podRunner',
  /** The whole manifest */
  allPages: 'allPages',
  /** Into the wreck */
  intoTheWreck: 'intoTheWreck',
  /** A dry night */
  dryNight: 'dryNight',
  /** Well off */
  wellOff: 'wellOff',
  /** Journeyman */
  journeyman: 'journeyman',
  /** On the last breath */
  lastBreath: 'lastBreath',
} as const;
export type AchievementId = keyof typeof ACHIEVEMENTS;

export const REACTIONS = {
  /** First in the wreck */
  firstInTheWreck: 'firstInTheWreck',
  /** Bounty on lampreys */
  waveCleared: 'waveCleared',
} as const;
export type ReactionId = keyof typeof REACTIONS;

/** What a seat was told: a copy's values by attribute. Undefined where it was told nothing. */
export interface Source {
  value(attribute: AttributeId): number | undefined;
  /** Hears of each change with old and new. Returns how to stop. */
  on(attribute: AttributeId, listener: (now: number | undefined, before: number | undefined) => void): () => void;
}

/** The attributes of one actor, by name. */
export class Attributes {
  constructor(private readonly source: Source) {}

  /** Hears of each change of an attribute, with old and new. Returns how to stop. */
  on(attribute: AttributeId, listener: (now: number | undefined, before: number | undefined) => void): () => void {
    return this.source.on(attribute, listener);
  }

  /**
   * Oxygen: a pool, 0 to lungCapacity, in seconds of air.
   * Seen by its crew, to 1 decimal.
   */
  get oxygen(): number | undefined {
    return this.source.value('oxygen');
  }

  /**
   * Lung capacity: a stat, 1 to 300.
   * Seen by its crew, to whole numbers.
   */
  get lungCapacity(): number | undefined {
    return this.source.value('lungCapacity');
  }

  /**
   * Breath rate: a stat, 0 and above, in a second.
   * Seen by its owner, to 1 decimal.
   */
  get breathRate(): number | undefined {
    return this.source.value('breathRate');
  }

  /**
   * Suit: a pool, 0 to suitRating.
   * Seen by its crew, to whole numbers.
   */
  get suit(): number | undefined {
    return this.source.value('suit');
  }

  /**
   * Suit rating: a stat, 1 and above.
   * Seen by its crew, to whole numbers.
   */
  get suitRating(): number | undefined {
    return this.source.value('suitRating');
  }

  /**
   * Stamina: a pool, 0 to 100.
   * Seen by its owner, to whole numbers.
   */
  get stamina(): number | undefined {
    return this.source.value('stamina');
  }

  /**
   * Fin speed: a stat, 0 to 600, in a second.
   * Seen by everyone, to whole numbers.
   */
  get finSpeed(): number | undefined {
    return this.source.value('finSpeed');
  }

  /**
   * Torch power: a stat, 0 and above.
   * Seen by its owner, to 1 decimal.
   */
  get torchPower(): number | undefined {
    return this.source.value('torchPower');
  }

  /**
   * Handling: a stat, 0.5 to 2.
   * Seen by its owner, to 2 decimals.
   */
  get handling(): number | undefined {
    return this.source.value('handling');
  }

  /**
   * Body radius: a stat, 4 to 60.
   * Seen by everyone, to 1 decimal.
   */
  get bodyRadius(): number | undefined {
    return this.source.value('bodyRadius');
  }

  /**
   * Scrip: a counter, 0 and above.
   * Seen by its owner, to whole numbers.
   */
  get scrip(): number | undefined {
    return this.source.value('scrip');
  }

  /**
   * Pods taken: a counter, 0 and above.
   * Seen by its owner, to whole numbers.
   */
  get podsTaken(): number | undefined {
    return this.source.value('podsTaken');
  }

  /**
   * Foes felled: a counter, 0 and above.
   * Seen by its owner, to whole numbers.
   */
  get foesFelled(): number | undefined {
    return this.source.value('foesFelled');
  }

  /**
   * Brass fittings: a counter, 0 and above.
   * Seen by its owner, to whole numbers.
   */
  get brassFittings(): number | undefined {
    return this.source.value('brassFittings');
  }

  /**
   * Cut glass: a counter, 0 and above.
   * Seen by its owner, to whole numbers.
   */
  get cutGlass(): number | undefined {
    return this.source.value('cutGlass');
  }

  /**
   * Tide-pearls: a counter, 0 and above.
   * Seen by its owner, to whole numbers.
   */
  get tidePearls(): number | undefined {
    return this.source.value('tidePearls');
  }

  /**
   * Manifest pages: a counter, 0 and above.
   * Seen by its owner, to whole numbers.
   */
  get pagesFound(): number | undefined {
    return this.source.value('pagesFound');
  }
}
