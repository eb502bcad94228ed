import { amount, entry, text, word } from '../../world/event-fields.js';
import { type DataOf, defineEvents, type EventData, type GameEvent, type Speaker } from '../../world/events.js';
import { type Refusal } from '../../world/refusal.js';

/** Why somebody is refused at a thing within the world around them. */
const VISIT_REFUSALS = [
  'nothing',
  'tooFar',
  'hidden',
  'down',
  'state',
  'visiting',
  'served',
  'notForYou',
  'remembered',
  'busy',
  'needs',
  'tooPoor',
] as const;
export type VisitRefused = (typeof VISIT_REFUSALS)[number];

/** How a visit ends. */
const VISIT_ENDS = ['done', 'walkedOff', 'fell', 'gone', 'left'] as const;
export type VisitEnd = (typeof VISIT_ENDS)[number];

const ENDINGS: Readonly<Record<VisitEnd, string>> = {
  done: 'is done',
  walkedOff: 'ends: its visitor walked off',
  fell: 'ends: its visitor is down',
  gone: 'ends: one of them has gone',
  left: 'ends on request',
};

const nameOf = (data: EventData, speak: Speaker) =>
  data['interaction'] !== undefined
    ? speak.label('interactions', data['interaction'])
    : data['container'] !== undefined
      ? speak.label('containers', data['container'])
      : data['thing'] !== undefined
        ? speak.label('actors', data['thing'])
        : '';

const round = (value: unknown) => String(Math.round(Number(value) * 10) / 10);

/** Why an interaction or a container is refused, in words that a player can act on. */
export function refusalWords({ data }: Pick<GameEvent, 'data'>, speak: Speaker): string {
  const { reason, ticks, says, with: other, attribute, needs, present, state } = data;
  const name = nameOf(data, speak);
  const about = name === '' ? '' : `${name}: `;
  const later = ticks === undefined || Number(ticks) === 0 ? '' : ` for another ${speak.time(Number(ticks))}`;
  switch (reason as VisitRefused | undefined) {
    case undefined:
      return says === undefined ? `${about}not just now.` : `${about}${says}`;
    case 'nothing':
      return 'Nothing is within reach.';
    case 'tooFar':
      return `${about}come nearer.`;
    case 'hidden':
      return `${about}a wall is in the way.`;
    case 'down':
      return `${about}this takes two who are up.`;
    case 'state':
      return `${about}not while ${speak.label('states', state).toLowerCase()}.`;
    case 'visiting':
      return `${about}you are busy with another already.`;
    case 'served':
      return `${about}you are being served already${later}.`;
    case 'notForYou':
      return `${about}this is not for you.`;
    case 'remembered':
      return says === undefined ? `${about}not again${later}.` : `${about}${says}`;
    case 'busy':
      return `${about}busy with ${other}${later}.`;
    case 'needs':
      return `${about}${says}`;
    case 'tooPoor':
      return says === undefined
        ? `${about}this asks ${round(needs)} ${speak.label('attributes', attribute).toLowerCase()}, and you have ${round(present)}.`
        : `${about}${says}`;
  }
}

const fields = { interaction: entry('interactions'), thing: entry('actors') };
const patterns = ['interaction', 'thing'];
const refusedFields = {
  ...fields,
  container: entry('containers'),
  reason: word(VISIT_REFUSALS, 'state', 'attribute'),
  ticks: amount(),
  says: text(),
  with: text(),
  attribute: entry('attributes'),
  needs: amount('attribute'),
  present: amount('attribute'),
  state: entry('states'),
} as const;
/** Why an interaction or a container is refused, with what its words need. */
export type VisitRefusal = Refusal<VisitRefused, Omit<DataOf<typeof refusedFields>, 'reason'>>;

export const events = defineEvents({
  visitBegan: {
    label: 'a visit begins',
    when: 'What an interaction asks first is paid and its visitor is with it; what it does is still to come.',
    fields,
    patterns,
    arises: { from: 'interactions', field: 'interaction' },
    see: 'everyone',
    announced: true,
    sentence: (e, speak) => `${e.who}: ${nameOf(e.data, speak).toLowerCase()} begins`,
  },
  visitEnded: {
    label: 'a visit ends',
    when: 'A visit is over and nothing that it began goes on; what is given back for one that broke is still to come.',
    fields: { ...fields, how: word(VISIT_ENDS) },
    patterns: [...patterns, 'how'],
    arises: { from: 'interactions', field: 'interaction' },
    see: 'everyone',
    announced: true,
    sentence: (e, speak) => `${e.who}: ${nameOf(e.data, speak).toLowerCase()} ${ENDINGS[e.data['how'] as VisitEnd]}`,
  },
  visitRefused: {
    label: 'somebody is refused at a thing',
    when: 'An interaction or a container was asked for and not begun; nothing was changed and nothing was paid.',
    fields: refusedFields,
    patterns: [...patterns, 'container', 'reason'],
    arises: { from: 'interactions', field: 'interaction' },
    see: 'owner',
    announced: true,
    refusal: true,
    sentence: refusalWords,
  },
});
