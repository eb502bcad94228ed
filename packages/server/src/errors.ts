import type { Problem } from '@eager-ember/core';

/**
 * Why something that was asked for is not done, in words for whoever asked. What carries the answer says it in its own way: HTTP
 * as a status with problem details, a socket as a goodbye.
 */
export abstract class Refused extends Error {
  constructor(
    readonly title: string,
    readonly detail?: string,
  ) {
    super(detail ?? title);
  }
}

/** What is asked for is not there. */
export class Missing extends Refused {
  constructor(what: string) {
    super(`There is no such ${what}`);
  }
}

/** A ruleset has problems, and is not taken over. */
export class Unsound extends Refused {
  constructor(
    readonly problems: readonly Problem[],
    detail: string,
  ) {
    super('The ruleset has problems', detail);
  }
}

/** It can't be done the way that things are, and trying again does not help. */
export class Impossible extends Refused {}

/** It can't be done at present. */
export class NotNow extends Refused {}

/** Players are with another room: two rooms cannot play the same player at once. */
export class PlayersElsewhere extends Refused {
  constructor(
    readonly names: readonly string[],
    readonly room: string,
  ) {
    const plays = `${names.join(' and ')} ${names.length === 1 ? 'plays' : 'play'}`;
    super(`${plays} just now`, `${plays} in room ${room} just now, and nobody plays in two rooms at once. Leave that room first.`);
  }
}
