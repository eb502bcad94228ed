import { withoutFalls } from '../lives/index.js';
import type { ActorEntry } from '../actors/index.js';
import { type AttributeEntry, FOLLOWS } from './schema.js';
import { compileRuleset } from '../../ruleset/compile.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import { holderOf, play, type Played, SEAT, seriesOf } from '../situations/play.js';
import { pinsOf, pokesOf, situationOf } from '../situations/situations.js';
import {
  EVIDENCE_SECONDS,
  type Evidence,
  inWords,
  complete,
  NONE,
  type PinAction,
  type ProposedSituation,
  type Series,
} from '../../workbench/evidence.js';
import { attributeChapter } from './schema.js';

const entryOf = (rules: Rules, id: string) => attributeChapter.of(rules).find((e) => e.id === id);

/** Statuses that its refill asks about. */
function askedStatuses(rules: Rules, entry: AttributeEntry): readonly string[] {
  const texts = [entry.refill?.rate, entry.refill?.while].filter((text) => typeof text === 'string');
  const ids = texts.flatMap((text) => [...text.matchAll(/\bhas\(\s*([A-Za-z0-9]+)\s*\)/g)].map((m) => m[1]));
  return rules.chapters.get('statuses')?.ids.filter((id) => ids.includes(id)) ?? [];
}

/** While the proposed situation has the status that a refill asks about, so that both rates are seen. */
const WITH_STATUS = { from: '20s', to: '34s' };
/** When a pool that refills and would otherwise stay full is hurt, so that its refill is seen. */
const HURT_AT = '5s';

function propose(rules: Rules, entry: AttributeEntry, actor: ActorEntry): Omit<ProposedSituation, 'authored'> {
  const [status] = askedStatuses(rules, entry);
  const seconds = EVIDENCE_SECONDS;
  if (status !== undefined)
    return {
      seconds,
      pins: [
        { at: WITH_STATUS.from, action: { do: 'grant', status } },
        { at: WITH_STATUS.to, action: { do: 'withdraw', status } },
      ],
    };
  const first = play(rules, { actor, seconds: 1, watch: [entry.id] }).values.get(entry.id)![0];
  const loss = entry.kind === 'pool' && entry.refill && first > 0 ? Math.ceil(first / 2) : 0;
  const hurt: PinAction = { do: 'hurt', attribute: entry.id, amount: loss };
  return { seconds, pins: loss > 0 ? [{ at: HURT_AT, action: hurt }] : [] };
}

interface Setting {
  readonly entry: AttributeEntry;
  readonly actor: ActorEntry;
  readonly situation: ProposedSituation;
}

function settingOf(rules: Rules, id: string): Setting | undefined {
  const entry = entryOf(rules, id);
  const actor = holderOf(rules, (type) => type.attributes.some((a) => a.attribute === id));
  if (!entry || !actor) return undefined;
  return { entry, actor, situation: situationOf(rules, 'attribute', id, () => propose(rules, entry, actor)) };
}

const playSetting = (rules: Rules, { actor, situation }: Setting, watch: readonly string[]): Played =>
  play(rules, { actor, pokes: pokesOf(situation), seconds: situation.seconds, watch, company: situation.pins.some((pin) => pin.from) });

/** An attribute in its situation: the one that its author pinned, or one that shows how it refills. */
export const attributeEvidence = (rules: Rules, id: string): Evidence => complete(attributeCourse(rules, id));

/** The same as soon as its course is known: how long it takes to fill and to empty is still to be asked for. */
export function attributeCourse(rules: Rules, id: string): Evidence {
  const setting = settingOf(rules, id);
  if (!setting) return NONE;
  const { entry, actor, situation } = setting;
  const linked = entry.max !== undefined && typeof entry.max === 'string' ? [`${id}.max`] : [];
  const played = playSetting(rules, setting, [id, ...linked]);
  const own = played.values.get(id)!;
  const most = played.values.get(`${id}.max`);
  const moves = most !== undefined && most.some((value) => value !== most[0]);
  return {
    actor: actor.label,
    seconds: situation.seconds,
    perSecond: rules.tickRate,
    series: [seriesOf(rules, id, own), ...(moves ? [{ ...seriesOf(rules, id, most, 'maximum'), id: `${id}.max` }] : [])],
    spans: played.spans,
    pins: pinsOf(rules, situation, played.events),
    moments: played.moments,
    facts: attributeFacts(setting, own, played),
    ...(entry.kind === 'pool' && entry.refill && { further: () => refillFacts(rules, entry, actor, own, isHurt(entry, played)) }),
    situation,
  };
}

/** The same situation with each of the three ways in which a pool can follow its maximum. */
export function followEvidence(rules: Rules, id: string): Evidence {
  const setting = settingOf(rules, id);
  if (setting?.entry.kind !== 'pool' || setting.entry.max === undefined) return NONE;
  const series = FOLLOWS.map((follow): Series => {
    const all = rules.document['attributes'] as readonly AttributeEntry[];
    const document = { ...rules.document, attributes: all.map((entry) => (entry.id === id ? { ...entry, follow } : entry)) };
    const variant = compileRuleset(document);
    return { ...seriesOf(variant, id, playSetting(variant, setting, [id]).values.get(id)!, follow), id: follow };
  });
  return { ...attributeEvidence(rules, id), series };
}

/** Whether something outside took of it in the situation. */
const isHurt = ({ id }: AttributeEntry, { events }: Played): boolean =>
  events.some(({ name, data }) => name === 'attributeChanged' && data['attribute'] === id && data['how'] === 'hurt');

function attributeFacts({ entry, situation }: Setting, course: readonly number[], played: Played): Evidence['facts'] {
  const facts = [
    { label: 'Highest', value: inWords(Math.max(...course)) },
    { label: 'Lowest', value: inWords(Math.min(...course)) },
    { label: `After ${situation.seconds} s of this`, value: inWords(course[course.length - 1]) },
  ];
  const changes = played.events.filter((event) => event.name === 'attributeChanged' && event.data['attribute'] === entry.id);
  const sum = (how: string, field: string) =>
    changes.filter((event) => event.data['how'] === how).reduce((total, event) => total + Number(event.data[field] ?? 0), 0);
  const [overHeal, overkill, resisted] = [sum('heal', 'lost'), -sum('hurt', 'lost'), -sum('hurt', 'resisted')];
  if (resisted > 0) facts.push({ label: 'Kept off by its resistance', value: inWords(resisted) });
  if (resisted < 0) facts.push({ label: 'Added by its weakness', value: inWords(-resisted) });
  if (overHeal > 0) facts.push({ label: 'Over-heal, lost', value: inWords(overHeal) });
  if (overkill > 0) facts.push({ label: 'Overkill, lost', value: inWords(overkill) });
  for (const threshold of entry.thresholds) {
    const entered = played.events.filter(
      (e) => e.name === 'thresholdEntered' && e.data['threshold'] === threshold.id && e.data['attribute'] === entry.id,
    );
    facts.push({
      label: `Enters ${threshold.id}`,
      value: entered.length === 0 ? 'never' : entered.length === 1 ? 'once' : `${entered.length} times`,
    });
  }
  return facts;
}

/** How long it takes to fill and to empty. */
function refillFacts(
  authored: Rules,
  entry: AttributeEntry,
  actor: ActorEntry,
  course: readonly number[],
  hurt: boolean,
): Evidence['facts'] {
  const rules = withoutFalls(authored);
  const [status] = askedStatuses(rules, entry);
  const long = 600;
  const granted = status === undefined ? [] : [{ at: 0, seat: SEAT, do: 'grant', status }];
  const set = (value: number) => ({ at: 0, seat: SEAT, do: 'set', attribute: entry.id, value });
  const until = (from: number, grants: boolean, done: (now: number) => boolean) => {
    const pokes = [...(grants ? granted : []), set(from)];
    const list = play(rules, { actor, pokes, seconds: long, watch: [entry.id], enough: done }).values.get(entry.id)!;
    return done(list[list.length - 1]) ? `${Number((list.length / rules.tickRate).toFixed(2))} s` : `not within ${long / 60} minutes`;
  };
  const label = status === undefined ? '' : `, ${labelOf(rules, 'statuses', status).toLowerCase()}`;
  const at = (value: number) =>
    play(rules, { actor, pokes: [...granted, set(value)], seconds: 1, watch: [entry.id] }).values.get(entry.id)![0];
  const low = Math.min(0, ...course);
  const top = at(1e6);
  if (top <= low) return [];
  const facts = [{ label: `Full, from empty${label}`, value: until(-1e6, true, (now) => now >= top) }];
  // A loss from outside says nothing of how long it drains by itself.
  if (!hurt && course.some((now, i) => i > 0 && now < course[i - 1]))
    facts.push({ label: 'Empty, from full', value: until(1e6, false, (now) => now <= low) });
  return facts;
}
