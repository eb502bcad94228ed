// Generated from the ruleset "Brinewick Salvage". Edit the ruleset, not this file.

export const TEAMS = {
  /** Petrel */
  petrel: 'petrel',
  /** Gannet */
  gannet: 'gannet',
} as const;
export type TeamId = keyof typeof TEAMS;

export const CURVES = {
} as const;
export type CurveId = keyof typeof CURVES;

export const ACTORS = {
  /** Diver */
  diver: 'diver',
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
} as const;
export type StatusId = keyof typeof STATUSES;

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
  /** Marked */
  marked: 'marked',
  /** Warmth */
  warmth: 'warmth',
  /** Keen eye */
  keenEye: 'keenEye',
} as const;
export type EffectId = keyof typeof EFFECTS;

export const ABILITIES = {
  /** Sonar ping */
  sonarPing: 'sonarPing',
} as const;
export type AbilityId = keyof typeof ABILITIES;

export const PICKUPS = {
  /** Slipstream pod */
  slipstreamPod: 'slipstreamPod',
  /** Silt pod */
  siltPod: 'siltPod',
  /** Air canister */
  airCanister: 'airCanister',
  /** Copper token */
  copperToken: 'copperToken',
} as const;
export type PickupId = keyof typeof PICKUPS;

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
   * Lung capacity: a stat, 1 and above.
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
}
