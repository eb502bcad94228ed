import type { ActorEntry } from '../actors/index.js';
import { type InteractionEntry } from './schema.js';
import { sentenceOf } from '../../replication/announcements.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import type { Command } from '../../world/commands.js';
import { type Evidence, NONE, type Span } from '../../workbench/evidence.js';
import {
  ask,
  AWAY,
  inSeconds,
  MIDDLE,
  PASSER,
  perform,
  playerOf,
  poke,
  put,
  type Scene,
  span,
  staged,
  VISITOR,
} from '../situations/stage.js';
import { entriesIn } from '../../ruleset/chapter.js';
import { interactionChapter } from './schema.js';

const SECONDS = 20;
const BESIDE = { x: MIDDLE.x - 40, y: MIDDLE.y };
const OTHER_SIDE = { x: MIDDLE.x + 40, y: MIDDLE.y };

/** The kind of actor that offers an interaction. */
export const holderOf = (rules: Rules, interaction: string): ActorEntry | undefined =>
  entriesIn<ActorEntry & { interactions: readonly string[] }>(rules, 'actors').find(({ interactions }) =>
    interactions.includes(interaction),
  );

/** A visit from its price to its end, with a second visitor who comes too early; the same broken off half-way; and one too poor. */
export function interactionEvidence(rules: Rules, id: string): Evidence {
  const entry = interactionChapter.of(rules).find((one) => one.id === id);
  const player = playerOf(rules);
  const holder = entry && holderOf(rules, id);
  if (!entry || !player || !holder) return NONE;
  const stage = staged(rules, [{ actor: holder.id, ...MIDDLE }]);
  const visit = { do: 'interact', what: id };
  const rich = entry.price && typeof entry.price.amount === 'number' ? entry.price.amount * 3 : 1000;
  const purse = (seat: string): readonly Command[] =>
    entry.price ? [poke(seat, { do: 'set', attribute: entry.price.attribute, value: rich })] : [];
  const begin = [
    { at: 0.5, commands: [...purse(VISITOR), ...purse(PASSER)] },
    { at: 1, commands: [put(VISITOR, BESIDE), put(PASSER, OTHER_SIDE)] },
    { at: 1.5, commands: [ask(VISITOR, visit)] },
  ];
  const whole = perform(stage, SECONDS, [...begin, { at: 2.5, commands: [ask(PASSER, visit)] }], { company: true });
  const began = timeOf(whole, 'visitBegan');
  const ended = timeOf(whole, 'visitEnded');
  const half = began !== undefined && ended !== undefined && ended > began ? (began + ended) / 2 : undefined;
  return {
    ...NONE,
    actor: player.label,
    seconds: SECONDS,
    perSecond: rules.tickRate,
    series: whole.lines,
    spans: spansOf(whole, began, ended, entry.label),
    moments: whole.moments,
    facts: [
      { label: 'Offered by', value: holder.label },
      ...(began === undefined
        ? [{ label: 'A visit', value: `is refused: ${firstRefusal(stage, whole)}` }]
        : [{ label: 'A visit takes', value: ended === undefined ? `more than ${SECONDS - 2} s` : inSeconds(ended - began) }]),
      ...(began === undefined ? [] : second(stage, whole)),
      ...(half === undefined
        ? []
        : brokenOff(
            stage,
            perform(stage, SECONDS, [...begin, { at: half, commands: [put(VISITOR, AWAY)] }], { company: true }),
            half - began!,
          )),
      ...poor(stage, entry, visit),
    ],
  };
}

const timeOf = ({ events }: Scene, name: string) => events.find((event) => event.name === name && event.who === VISITOR)?.t;

function firstRefusal(rules: Rules, { events }: Scene): string {
  const refused = events.find(({ name }) => name === 'visitRefused');
  return refused ? sentenceOf(rules, refused) : 'nothing was within reach.';
}

/** The visit, and the steps of its list between the waits. */
function spansOf({ events }: Scene, began: number | undefined, ended: number | undefined, label: string): readonly Span[] {
  if (began === undefined) return [];
  const to = ended ?? SECONDS;
  const steps = [
    ...new Set(
      events
        .filter(({ t, name }) => t > began && t <= to && ['flourish', 'attributeChanged', 'lineSpoken'].includes(name))
        .map(({ t }) => t),
    ),
  ];
  const marks = [began, ...steps.filter((t) => t > began)];
  return [
    span(began, to, label, 'part'),
    ...marks.flatMap((from, i) => {
      const next = marks[i + 1] ?? to;
      return next - from < 0.2 ? [] : [span(from, next, i === 0 ? 'begins' : `step ${i}`, 'step')];
    }),
  ];
}

function second(rules: Rules, { events }: Scene): Evidence['facts'] {
  const refused = events.find(({ name, who }) => name === 'visitRefused' && who === PASSER);
  const served = events.some(({ name, who }) => name === 'visitBegan' && who === PASSER);
  return [
    {
      label: 'Another who asks 1 s later',
      value: refused ? `reads “${sentenceOf(rules, refused)}”` : served ? 'is served too' : 'is offered nothing',
    },
  ];
}

function brokenOff(rules: Rules, { events }: Scene, after: number): Evidence['facts'] {
  const end = events.find(({ name, who }) => name === 'visitEnded' && who === VISITOR);
  if (!end) return [];
  const back = events.filter(
    ({ name, who, data, serial }) => name === 'attributeChanged' && who === VISITOR && data['how'] === 'give' && serial > end.serial,
  );
  const words = back.map(
    ({ data }) => `${String(data['given'])} ${labelOf(rules, 'attributes', String(data['attribute'])).toLowerCase()} given back`,
  );
  const later = events.some(({ name, who, t, cause }) => name === 'flourish' && who === VISITOR && t > end.t + 0.1 && cause < end.serial);
  return [
    {
      label: `Who walks off after ${inSeconds(after)}`,
      value: `ends it at once; ${words.length > 0 ? words.join(', ') : 'nothing is given back'}; ${later ? 'some steps still follow' : 'no step follows'}`,
    },
  ];
}

function poor(rules: Rules, { price }: InteractionEntry, visit: Record<string, unknown>): Evidence['facts'] {
  if (!price) return [];
  const scene = perform(rules, 3, [
    { at: 0.5, commands: [poke(VISITOR, { do: 'set', attribute: price.attribute, value: 0 }), put(VISITOR, BESIDE)] },
    { at: 1.5, commands: [ask(VISITOR, visit)] },
  ]);
  return [
    { label: `Who has no ${labelOf(rules, 'attributes', price.attribute).toLowerCase()}`, value: `reads “${firstRefusal(rules, scene)}”` },
  ];
}
