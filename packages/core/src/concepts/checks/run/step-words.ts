import { describeActions, describeInputs, type ActionDescription } from '../../../ruleset/describe.js';
import { entryOf, type Rules } from '../../../ruleset/rules.js';
import type { Step } from '../schema.js';
import { asTime } from './time-words.js';

type Asked = Readonly<Record<string, unknown>> & { readonly do: string };

/** A sentence with what is asked in its places; a part of it between commas goes where nothing stands in it. */
function filled(rules: Rules, { sentence, args }: ActionDescription, asked: Asked, to: string): string {
  const value = (name: string): string | undefined => {
    if (name === 'to') return to;
    const given = asked[name];
    if (given === undefined) return undefined;
    const field = args.find((arg) => arg.name === name);
    const label = field?.kind === 'reference' ? entryOf(rules, field.chapter, String(given))?.label : undefined;
    return label?.toLowerCase() ?? (typeof given === 'object' ? JSON.stringify(given) : String(given));
  };
  return sentence
    .split(/(?=,| for \{| with \{)/)
    .map((part) => {
      const names = [...part.matchAll(/\{(\w+)\}/g)].map(([, name]) => name);
      if (names.length > 0 && names.every((name) => value(name) === undefined)) return '';
      return part.replace(/\{(\w+)\}/g, (_, name: string) => value(name) ?? '');
    })
    .join('');
}

const described = (all: readonly ActionDescription[], asked: Asked) => all.find((one) => one.do === asked.do);

/** What happens in a step, in a few words: `north sells brass fittings, 1 of them`. */
export function wordsOfStep(rules: Rules, step: Step): string {
  if ('pass' in step) return `${asTime(step.pass)} pass`;
  if ('restarts' in step) return 'the game is restarted';
  if ('joins' in step) return `${step.joins} comes in`;
  if ('leaves' in step) return `${step.leaves} leaves`;
  if ('returns' in step) return `${step.returns} comes back`;
  if ('until' in step) return `until ${step.until}, within ${asTime(step.within)}`;
  if ('untilEvent' in step) return `until ${step.untilEvent.on} happens, within ${asTime(step.within)}`;
  const [all, asked] = 'seat' in step ? [describeInputs(), step.input as Asked] : [describeActions(), step.action as Asked];
  const found = described(all, asked);
  if (!found) return asked.do;
  return 'seat' in step
    ? `${step.seat} ${filled(rules, found, asked, '')}`
    : `from outside: ${filled(rules, found, asked, step.on ?? 'nobody')}`;
}
