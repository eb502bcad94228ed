import { isDuration, toMilliseconds } from '../../../ruleset/fields.js';
import type { Rules } from '../../../ruleset/rules.js';
import type { Time } from '../schema.js';

/** Of a hair too much nobody waits a tick longer. */
const SLACK = 1e-9;

/** Seconds of a stretch of time as a check says it. */
export const secondsOf = (time: Time): number => (typeof time === 'number' ? time : toMilliseconds(time) / 1000);

/** Ticks until a stretch of time is over. */
export const ticksIn = (rules: Rules, time: Time): number => Math.ceil(secondsOf(time) * rules.tickRate - SLACK);

/** A stretch of time in words: `1.5 s`. */
export const asTime = (time: Time): string => (typeof time === 'number' || isDuration(time) ? `${secondsOf(time)} s` : time);
