import type { ActorEntry } from '../actors/index.js';
import { containerAt } from './openings.js';
import { type ContainerEntry } from './schema.js';
import { containers } from './state.js';
import { hold } from './contents.js';
import { actorOfSeat } from '../seats/index.js';
import { toMilliseconds } from '../../ruleset/fields.js';
import type { Rules } from '../../ruleset/rules.js';
import { foundName } from './found.js';
import { loot } from '../loot/index.js';
import { lootEvidence } from '../loot/evidence/index.js';
import { tablesIn } from '../loot/evidence/setting.js';
import { type Evidence, inWords, NONE, type Span } from '../../workbench/evidence.js';
import { ask, MIDDLE, perform, playerOf, put, type Scene, span, staged, VISITOR } from '../situations/stage.js';
import { lidsTable } from './tables.js';
import { containerChapter } from './schema.js';
import { entriesIn } from '../../ruleset/chapter.js';

/** How many are opened for what is in one on average. */
const OPENED = 400;
const BESIDE = { x: MIDDLE.x - 32, y: MIDDLE.y };

/** A container that is opened, emptied and closed, and what is in many of its kind. */
export function containerEvidence(rules: Rules, id: string): Evidence {
  const entry = containerChapter.of(rules).find((one) => one.id === id);
  const types = entriesIn<ActorEntry & { container?: string }>(rules, 'actors');
  const holder = types.find(({ container }) => container === id);
  const player = playerOf(rules);
  if (!entry || !holder || !player) return NONE;
  const stage = staged(withoutNeeds(rules, id), [{ actor: holder.id, ...MIDDLE }]);
  const [opening, closing] = [entry.opening, entry.closing].map((time) => toMilliseconds(time) / 1000);
  const [asks, takes] = [1.5, 1.5 + opening + 1.5];
  const closes = takes + 1.5;
  const seconds = Math.ceil(closes + closing + 2);
  const lids: number[] = [];
  const scene = perform(
    stage,
    seconds,
    [
      { at: 1, commands: [put(VISITOR, BESIDE)] },
      { at: asks, commands: [ask(VISITOR, { do: 'interact' })] },
      { at: takes, commands: [ask(VISITOR, { do: 'take' })] },
      { at: closes, commands: [ask(VISITOR, { do: 'interact' })] },
    ],
    { each: (world) => void lids.push(Math.max(...lidsTable.in(world).cells.lid)) },
  );
  return {
    ...NONE,
    actor: player.label,
    seconds,
    perSecond: rules.tickRate,
    spans: [...lidSpans(lids, rules.tickRate), ...insideSpan(scene, closes)],
    moments: scene.moments,
    facts: [
      ...contents(stage, entry, holder.id),
      { label: 'Visitors', value: entry.visitors === 'one' ? 'one at a time' : 'all who come' },
      {
        label: 'What is in it is',
        value: entry.contents === 'perPlayer' ? 'each player’s own' : 'for everybody: what one takes is gone for all',
      },
      {
        label: 'Filled anew',
        value:
          entry.refills === undefined ? 'never' : `${entry.refills.replace(/(ms|s)$/, ' $1')} after it was first opened, once it is closed`,
      },
    ],
  };
}

/** The scene is about its life: what it asks of its visitor is taken as given. */
function withoutNeeds(rules: Rules, id: string): Rules {
  const list = (rules.document['containers'] as readonly ContainerEntry[]).map((entry) => {
    const { who: _who, ...others } = entry;
    return entry.id === id ? { ...others, needs: [] } : entry;
  });
  return { ...rules, document: { ...rules.document, containers: list } };
}

const LIDS = ['closed', 'opening', 'open', 'closing'];
function lidSpans(lids: readonly number[], perSecond: number): readonly Span[] {
  const spans: Span[] = [];
  let from = 0;
  lids.forEach((lid, i) => {
    if (lid === lids[i + 1]) return;
    spans.push(span(from / perSecond, (i + 1) / perSecond, LIDS[lid], 'part'));
    from = i + 1;
  });
  return spans;
}

function insideSpan({ events }: Scene, closes: number): readonly Span[] {
  const [opened, taken] = ['containerOpened', 'itemTaken'].map((name) => events.find((event) => event.name === name)?.t);
  return opened === undefined
    ? []
    : [span(opened, closes, 'the window shows what is in it', 'step', taken === undefined ? undefined : `emptied at ${inWords(taken)} s`)];
}

/** What a loot table can put into it, nested tables included, with the chance of each at an opening where that is counted out. */
function linesOf(rules: Rules, id: string): readonly { id: string; label: string; chance?: number | string; gives?: string }[] {
  const { list } = loot.of(rules);
  const index = list.findIndex((table) => table.id === id);
  const drawn = new Map(lootEvidence(rules, id)?.lines.map((line) => [line.id, line.drawn]));
  return tablesIn(list, index).flatMap((table) =>
    [...table.always, ...table.entries].flatMap((drop) => {
      if (drop.what === 'table' || drop.what === 'nothing') return [];
      const sure = table.index === index && table.always.includes(drop) && !drop.test;
      const chance = sure ? undefined : table.index === index ? (drawn.get(drop.id) ?? '') : '';
      return [
        {
          id: foundName(table, drop),
          label: drop.label,
          ...(chance !== undefined && { chance }),
          ...(drop.what === 'gives' && { gives: drop.label }),
        },
      ];
    }),
  );
}

/** How often each thing is there, and how much of it: as it is written, and over many that were opened. */
function contents(rules: Rules, entry: ContainerEntry, actor: string): Evidence['facts'] {
  const stage = staged(
    rules,
    Array.from({ length: OPENED }, (_, i) => ({ actor, x: 20 + (i % 40) * 28, y: 20 + Math.floor(i / 40) * 40 })),
  );
  const { world } = perform(stage, 0.1, []);
  const visitor = actorOfSeat(world, VISITOR);
  const state = containers.in(world);
  let opened = 0;
  for (let row = 0; row < world.actors.high; row++) {
    const container = world.actors.live[row] === 1 ? containerAt(world, row) : undefined;
    if (!container) continue;
    hold(world, world.actors.handle(row), container, visitor);
    // Luck is the player's where each finds their own: one who opens many is as good as many who open one.
    opened++;
  }
  const { what, amount } = state.contents.cells;
  const rolled = entry.loot === undefined ? [] : linesOf(rules, entry.loot);
  return [...entry.holds, ...rolled].map(({ id, label, chance, gives }) => {
    const found: number[] = [];
    for (const row of state.contents.rows()) if (world.text(what[row]) === id) found.push(amount[row]);
    const written =
      typeof chance === 'number'
        ? `${inWords(chance * 100)} %`
        : chance === undefined
          ? 'always'
          : chance === ''
            ? 'now and then'
            : 'by its formula';
    const seen = chance === undefined ? '' : `, ${inWords((100 * found.length) / Math.max(1, opened))} % of ${opened} opened`;
    const [least, most] = [Math.min(...found), Math.max(...found)];
    const range =
      gives === undefined || found.length === 0
        ? ''
        : `; ${least === most ? inWords(least) : `${inWords(least)} to ${inWords(most)}, on average ${inWords(found.reduce((a, b) => a + b, 0) / found.length)}`}`;
    return { label, value: `${written}${seen}${range}` };
  });
}
