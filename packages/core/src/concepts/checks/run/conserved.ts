import { attributes, hasAttribute } from '../../attributes/index.js';
import { roundTo } from '../../../math/grid.js';
import { sentenceOf } from '../../../replication/announcements.js';
import { positionOf, type Rules } from '../../../ruleset/rules.js';
import type { GameEvent } from '../../../world/events.js';
import type { ConservedTest, Origin } from '../schema.js';
import { lower, type Story } from './story.js';
import type { Test, Verdict } from './verdicts.js';

/** How far off a sum may be and still be the same: amounts lie on a grid of one millionth. */
const SLACK = 1e-5;

/** The rules that are meant, as chapter/id, and the parts of a ruleset of which all are. */
function named(origins: readonly Origin[] = []): (rule: string) => boolean {
  const rules = new Set(
    origins.flatMap(({ anyOf, ...entry }) => (anyOf === undefined ? Object.entries(entry).map((pair) => pair.join('/')) : [])),
  );
  const parts = new Set(origins.flatMap(({ anyOf }) => anyOf ?? []));
  return (rule) => rules.has(rule) || parts.has(rule.split('/')[0]);
}

interface Change {
  readonly event: GameEvent;
  readonly by: number;
  readonly rule: string;
}

/**
 * That a sum over all who are meant changes by nothing but rules that are named for it, and by what is done from outside: what
 * one pays another is neither more nor less, and who leaves takes with them what they come back with.
 */
export function conservedTest(rules: Rules, test: ConservedTest, path: string, ruleOf: (event: GameEvent) => string | undefined): Test {
  const attribute = test.conserved;
  const index = positionOf(rules, 'attributes', attribute);
  const isSource = named(test.sources);
  const isSink = named(test.sinks);
  /** What each had the last time, by name: also of those who are away. */
  const had = new Map<string, number>();
  const pokes = new Set<number>();
  const announced = new Map<string, number>();
  let unnamed: Change[] = [];

  const hear = (story: Story, event: GameEvent) => {
    if (event.name === 'poked') pokes.add(event.serial);
    if (event.name !== 'attributeChanged' || event.data['attribute'] !== attribute || !story.isMeant(event.subject, test.of)) return;
    const by = Number(event.data['given']);
    announced.set(event.who, (announced.get(event.who) ?? 0) + by);
    const rule = ruleOf(event) ?? '';
    if (pokes.has(event.cause) || (by > 0 ? isSource : isSink)(rule)) return;
    unnamed.push({ event, by, rule });
  };

  const look = (story: Story): Verdict => {
    const { world } = story;
    const own = attributes.in(world).cells[index].own.data;
    const one = attributes.of(rules).list[index];
    const called = lower(rules, 'attributes', attribute);
    let total = 0;
    let silent: { readonly name: string; readonly from: number; readonly to: number } | undefined;
    for (const { actor, name } of story.of(test.of)) {
      const row = world.actors.rowOf(actor);
      if (!hasAttribute(world, one, row)) continue;
      const now = own[row];
      total += now;
      const expected = (had.get(name) ?? now) + (had.has(name) ? (announced.get(name) ?? 0) : 0);
      if (Math.abs(now - expected) > SLACK) silent ??= { name, from: had.get(name)!, to: now };
      had.set(name, now);
    }
    announced.clear();
    pokes.clear();
    const open = unnamed;
    unnamed = [];
    const says = `${roundTo(total, 2)} in all`;
    const failed = (words: string, who: string, cause: number): Verdict => ({
      holds: false,
      says,
      failure: { says: words, expected: 'only what is named for it', found: says, who, cause },
    });
    if (silent) {
      const { name, from, to } = silent;
      return failed(`${name}’s ${called} went from ${roundTo(from, 2)} to ${roundTo(to, 2)}, and nothing did that.`, name, 0);
    }
    const off = open.reduce((sum, { by }) => sum + by, 0);
    if (Math.abs(off) <= SLACK) return { holds: true, says };
    const { event, by, rule } = open.find((change) => change.by > 0 === off > 0)!;
    const source =
      rule === '' ? 'no rule that is named' : rule.split('/').length < 2 ? rule : lower(rules, ...(rule.split('/') as [string, string]));
    const way = by > 0 ? 'in' : 'out';
    return failed(
      `${sentenceOf(rules, event)}: ${roundTo(Math.abs(by), 2)} ${called} ${way} by ${source}, which is no ${by > 0 ? 'source' : 'sink'} of it.`,
      event.who,
      event.serial,
    );
  };
  return { path, within: 0, waits: false, watches: { of: test.of, attributes: [attribute] }, hear, look };
}
