import { valueInRow } from '../../attributes/index.js';
import { why } from '../../attributes/why.js';
import { seriesOf } from '../../situations/play.js';
import { SpanKeeper } from '../../situations/spans.js';
import { sentenceOf } from '../../../replication/announcements.js';
import { entryOf, labelOf, type Rules } from '../../../ruleset/rules.js';
import type { GameEvent } from '../../../world/events.js';
import { NONE, type Evidence, type Series } from '../../../workbench/evidence.js';
import type { Outcome } from './result.js';
import type { Watcher } from './runner.js';
import type { Story } from './story.js';
import type { Watched } from './verdicts.js';

/** Most lines of a chart, and most moments that are told. */
const MOST_LINES = 4;
const MOST_MOMENTS = 200;
const LONGEST_CHAIN = 8;

const QUIET = new Set(['asked', 'poked', 'stateChanged', 'channelPulsed']);
/** What every value is of, and so leads to no rule by itself. */
const TOO_COMMON = new Set(['attributes', 'actors', 'teams']);

/** What led to something: the event itself first, what began it last. */
export interface Chain {
  readonly links: readonly { readonly t: number; readonly text: string }[];
  /** That the value has moved by itself since, in words. */
  readonly drift?: string;
  /** The entry of the ruleset that did it, as far as one can be told. */
  readonly rule?: { readonly chapter: string; readonly id: string; readonly label: string };
}

/** Writes down all that happens in a check, for who wants to see it. */
export class Recorder implements Watcher {
  private readonly events = new Map<number, GameEvent>();
  private readonly moments: { t: number; text: string; refusal: boolean }[] = [];
  private lines: { readonly who: string; readonly attribute: string; readonly values: number[] }[] | undefined;
  private readonly spans: SpanKeeper;
  private own = '';
  private story: Story | undefined;
  private worlds = 1;

  constructor(private readonly rules: Rules) {
    this.spans = new SpanKeeper(rules);
  }

  tick(story: Story, events: readonly GameEvent[], watched: readonly Watched[]): void {
    this.story = story;
    // Of a world that is no more nothing leads on.
    if (this.worlds !== story.worlds) this.events.clear();
    this.worlds = story.worlds;
    const { world } = story;
    this.lines ??= this.linesOf(story, watched);
    for (const event of events) {
      this.events.set(event.serial, event);
      if (QUIET.has(event.name) || this.moments.length >= MOST_MOMENTS) continue;
      const refusal = this.rules.registry.events.get(event.name)?.refusal === true;
      this.moments.push({ t: story.at(), text: sentenceOf(this.rules, event), refusal });
    }
    for (const { who, attribute, values } of this.lines) {
      const [member] = story.of(who);
      values.push(valueInRow(world, world.actors.rowOf(member?.actor ?? 0), attribute));
    }
    const [first] = story.of(this.own);
    if (first)
      this.spans.note(
        world,
        first.actor,
        world.actors.rowOf(first.actor),
        events.filter(({ subject }) => subject === first.actor),
      );
  }

  private linesOf(story: Story, watched: readonly Watched[]) {
    const keys = watched.flatMap(({ of, attributes }) =>
      attributes.flatMap((attribute) => story.of(of).map(({ name }) => ({ key: `${name}/${attribute}`, who: name, attribute }))),
    );
    const once = [...new Map(keys.map((one) => [one.key, one])).values()].slice(0, MOST_LINES);
    this.own = once[0]?.who ?? story.given[0]?.name ?? '';
    return once.map(({ who, attribute }) => ({ who, attribute, values: [] as number[] }));
  }

  /** What there is to be seen. */
  evidence(): Evidence {
    const { story, lines = [] } = this;
    if (!story) return NONE;
    // A line goes by what tells it from the others: whose it is, or of what.
    const [whose, what] = [new Set(lines.map(({ who }) => who)).size, new Set(lines.map(({ attribute }) => attribute)).size];
    const called = (who: string, label: string) => (what === lines.length ? label : whose === lines.length ? who : `${who}: ${label}`);
    const series = lines.map(({ who, attribute, values }): Series => {
      const label = labelOf(this.rules, 'attributes', attribute);
      return seriesOf(this.rules, attribute, values.length > 1 ? values.slice(1) : values, called(who, label));
    });
    return {
      ...NONE,
      actor: this.own,
      seconds: Math.max(story.at(), 1 / this.rules.tickRate),
      perSecond: this.rules.tickRate,
      series,
      spans: this.spans.all(),
      moments: this.moments,
    };
  }

  /** What led to an outcome that was not expected. */
  chainOf({ t, failure }: Outcome): Chain {
    const { story } = this;
    if (!failure || !story) return { links: [] };
    const { about } = failure;
    const last = failure.cause !== 0 ? failure.cause : about === undefined ? 0 : this.lastChange(about.actor, about.attribute, t, story);
    const chain: GameEvent[] = [];
    for (let at = this.events.get(last); at && chain.length < LONGEST_CHAIN; at = this.events.get(at.cause)) chain.push(at);
    const links = chain.map((event) => ({ t: story.when(event), text: sentenceOf(this.rules, event) }));
    // Where the value has moved since, or was never changed, it did so by itself.
    const drifted = about && (chain.length === 0 || story.when(chain[0]) < t);
    const drift = drifted ? this.driftOf(story, about.actor, about.attribute) : undefined;
    const rule = this.ruleIn(chain) ?? (about && this.labelled('attributes', about.attribute));
    return { links, ...(drift !== undefined && { drift }), ...(rule && { rule }) };
  }

  private lastChange(actor: number, attribute: string, t: number, story: Story): number {
    let found = 0;
    for (const event of this.events.values()) {
      const { serial, subject, data, name } = event;
      if (subject === actor && data['attribute'] === attribute && name !== 'attributeLacking' && story.when(event) <= t) found = serial;
    }
    return found;
  }

  /** That a value moves by itself, in words; nothing where it does not. */
  private driftOf({ world }: Story, actor: number, attribute: string): string | undefined {
    const made = why(world, actor, attribute);
    if (!made?.rate) return undefined;
    return `${made.label} ${made.rate > 0 ? 'refills' : 'drains'} ${Math.abs(made.rate)} a second.`;
  }

  /** The first entry that an event of a chain names, and that is no mere value. */
  private ruleIn(chain: readonly GameEvent[]): Chain['rule'] {
    for (const { name, data } of chain)
      for (const [field, { chapter }] of Object.entries(this.rules.registry.events.get(name)?.fields ?? {})) {
        if (typeof chapter !== 'string' || TOO_COMMON.has(chapter) || data[field] === undefined) continue;
        const found = this.labelled(chapter, String(data[field]));
        if (found) return found;
      }
    return undefined;
  }

  private labelled(chapter: string, id: string): Chain['rule'] {
    const entry = entryOf(this.rules, chapter, id);
    return entry && { chapter, id, label: entry.label };
  }
}
