import { placedActions } from '../../ruleset/actions.js';
import { toMilliseconds } from '../../ruleset/fields.js';
import type { Rules } from '../../ruleset/rules.js';
import { type Evidence, NONE } from '../../workbench/evidence.js';
import { holderOf } from '../interactions/evidence.js';
import { ask, inSeconds, MIDDLE, PASSER, perform, playerOf, put, span, staged, VISITOR } from '../situations/stage.js';
import { interactionChapter } from '../interactions/schema.js';
import { dialogueChapter } from './schema.js';

const BESIDE = { x: MIDDLE.x - 40, y: MIDDLE.y };
const MOST_SECONDS = 120;

/** A dialogue as it goes when the first choice is always taken; with one of the crew standing by. */
export function dialogueEvidence(rules: Rules, id: string): Evidence {
  const entry = dialogueChapter.of(rules).find((one) => one.id === id);
  const interactions = interactionChapter.of(rules);
  const begun = interactions.find(
    ({ then, id: own }) => holderOf(rules, own) && placedActions(then, []).some(({ action }) => action['dialogue'] === id),
  );
  const player = playerOf(rules);
  const holder = begun && holderOf(rules, begun.id);
  if (!entry || !player || !holder) return NONE;
  const whole = entry.lines.reduce((sum, line) => sum + toMilliseconds(line.for) / 1000, 0);
  const seconds = Math.min(MOST_SECONDS, Math.ceil(whole + 4));
  const stage = staged(rules, [{ actor: holder.id, ...MIDDLE }]);
  // A choice is taken a second after its line stands: asked for again and again, it is answered when it is offered.
  const answers = Array.from({ length: seconds }, (_, i) => ({ at: 2.5 + i, commands: [ask(VISITOR, { do: 'choose', choice: 0 })] }));
  const { events, moments } = perform(
    stage,
    seconds,
    [
      { at: 1, commands: [put(VISITOR, BESIDE), put(PASSER, { x: MIDDLE.x - 60, y: MIDDLE.y + 40 })] },
      { at: 1.5, commands: [ask(VISITOR, { do: 'interact', what: begun!.id })] },
      ...answers,
    ],
    { company: true },
  );
  const told = events.filter(({ name }) => ['lineSpoken', 'dialogueEnded'].includes(name));
  const ended = Math.ceil((told.at(-1)?.t ?? 8) + 1.5);
  const spans = told.flatMap((event, i) =>
    event.name === 'lineSpoken'
      ? [span(event.t, told[i + 1]?.t ?? ended, `${String(event.data['speaker'])}: ${String(event.data['text'])}`, 'part')]
      : [],
  );
  const choices = entry.lines.flatMap((line) => line.choices ?? []);
  return {
    ...NONE,
    actor: player.label,
    seconds: ended,
    perSecond: rules.tickRate,
    spans,
    moments: moments.filter(({ text }) => !text.includes('zone')),
    facts: [
      { label: 'Begun by', value: `${begun!.label}, with ${holder.label.toLowerCase()}` },
      { label: 'Lines', value: `${entry.lines.length}, ${inSeconds(whole)} in all if each is said` },
      {
        label: 'When the first choice is taken',
        value: spans.length === 0 ? 'nothing is said' : `${spans.length} lines, ${inSeconds((told.at(-1)?.t ?? 0) - told[0].t)}`,
      },
      ...(choices.length > 0 ? [{ label: 'Choices', value: choices.map(({ text }) => `“${text}”`).join(' ') }] : []),
    ],
  };
}
