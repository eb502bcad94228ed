import type { CompileContext } from '../../ruleset/context.js';
import { type ActorEntry } from '../actors/index.js';
import { type Mind } from './state.js';

export function compileMind(context: CompileContext, entry: ActorEntry, i: number): Mind {
  const { behaviour } = entry;
  const path = ['actors', i, 'behaviour'];
  if (behaviour && entry.kind === 'player')
    context.problem(path, `${entry.label} is a player, whom a seat drives: only foes, characters and props have a behaviour.`);
  if (behaviour && behaviour.do !== 'stand' && entry.speed === undefined)
    context.problem([...path, 'do'], `${entry.label} has no speed: it can only stand. Say which stat is its speed.`);
  return {
    behaviour,
    rule: context.ruleAt(path),
    luck: [context.purpose([...path, 'x']), context.purpose([...path, 'y'])],
    pause: behaviour && 'pause' in behaviour && behaviour.pause !== undefined ? context.ticks(behaviour.pause) : 0,
  };
}
