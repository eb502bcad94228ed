import { announcementsFor } from '../../../replication/announcements.js';
import { Copy } from '../../../replication/copy.js';
import { Publisher, type Viewer } from '../../../replication/publisher.js';
import { wireSchemaOf } from '../../../replication/schema.js';
import { cellShownTo } from '../../../replication/shown.js';
import type { GameEvent } from '../../../world/events.js';
import { actorOfSeat } from '../../seats/index.js';
import type { KnowsTest, ReadsTest } from '../schema.js';
import { lower, type Story } from './story.js';
import { countWords, nobodyMeant, NOTHING_WATCHED, oftenEnough, type Test, timesWords, type Verdict } from './verdicts.js';

/** A seat as those see it who send to it; undefined where nobody sits there. */
function viewerOf({ world }: Story, seat: string): Exclude<Viewer, 'truth'> | undefined {
  const actor = actorOfSeat(world, seat);
  const row = world.actors.rowOf(actor);
  return row < 0 ? undefined : { actor, team: world.actors.cells.team[row] };
}

/** Whether a seat is told of an event. */
export function isToldOf(story: Story, seat: string, event: GameEvent): boolean {
  const viewer = viewerOf(story, seat);
  return viewer !== undefined && announcementsFor(story.world, [event], viewer).length > 0;
}

const nobodyThere = (seat: string, expected: string): Verdict => {
  const says = `Nobody sits at ${seat}.`;
  return { holds: false, says, failure: { says, expected, found: 'nobody', who: seat, cause: 0 } };
};

/** That a seat is shown words, so often: in the sentence of what it is told, or in a text that this carries. */
export function readsTest(test: ReadsTest, path: string): Test {
  const { seat, reads } = test;
  const words = reads.toLowerCase();
  const shown: { readonly event: GameEvent; readonly t: number }[] = [];
  let there = false;
  let last = '';
  return {
    path,
    within: 0,
    waits: false,
    watches: NOTHING_WATCHED,
    hear: (story, event) => {
      const viewer = viewerOf(story, seat);
      if (!viewer) return;
      there = true;
      for (const { text, data } of announcementsFor(story.world, [event], viewer)) {
        const texts = [text, ...Object.values(data).filter((value) => typeof value === 'string')];
        last = text;
        if (texts.some((one) => one.toLowerCase().includes(words))) shown.push({ event, t: story.at() });
      }
    },
    look: (story) => {
      const expected = `${countWords(test)}: “${reads}”`;
      if (!there && viewerOf(story, seat) === undefined) return nobodyThere(seat, expected);
      const says = shown.length === 0 ? 'never' : `at ${shown.map(({ t }) => `${t} s`).join(', ')}`;
      if (oftenEnough(test, shown.length)) return { holds: true, says };
      const instead = shown.length === 0 && last !== '' ? `; what it read last is “${last}”` : '';
      return {
        holds: false,
        says,
        failure: {
          says: `${seat} reads this ${timesWords(shown.length)}${shown.length === 0 ? instead : `: ${says}`}.`,
          expected,
          found: timesWords(shown.length),
          who: seat,
          cause: shown.at(-1)?.event.serial ?? 0,
        },
      };
    },
  };
}

/** What a seat is told of an attribute of somebody: read out of the frame that would be sent to it, and not only on its screen. */
function fromFrame({ world }: Story, viewer: Exclude<Viewer, 'truth'>, attribute: string) {
  const publisher = new Publisher(world);
  publisher.capture();
  const copy = new Copy(wireSchemaOf(world.rules));
  copy.apply(publisher.frameFor(viewer, 0));
  return (row: number) => copy.value('attributes', row, attribute);
}

/** The same from what it may see: at every tick a frame would take long, and that they are the same is looked at by itself. */
const fromSight =
  ({ world }: Story, viewer: Exclude<Viewer, 'truth'>, attribute: string) =>
  (row: number) =>
    cellShownTo(world, viewer, 'attributes', attribute, row);

/** That a seat is told a value of somebody, or is not. */
export const knowsTest = (test: KnowsTest, path: string): Test => toldTest(test, path, fromFrame);

/** The same all the while. */
export const knowsAlways = (test: KnowsTest, path: string): Test => toldTest(test, path, fromSight);

function toldTest({ seat, knows, of, not = false }: KnowsTest, path: string, read: typeof fromFrame | typeof fromSight): Test {
  const look = (story: Story): Verdict => {
    const expected = not ? 'not told' : 'told';
    const viewer = viewerOf(story, seat);
    if (!viewer) return nobodyThere(seat, expected);
    const { world } = story;
    const members = story.of(of);
    if (members.length === 0) return nobodyMeant(story, of, expected, seat);
    const valueOf = read(story, viewer, knows);
    const called = lower(world.rules, 'attributes', knows);
    const verdicts = members.map(({ actor, name }): Verdict => {
      const told = valueOf(world.actors.rowOf(actor));
      const says = told === undefined ? 'not told' : `told ${told}`;
      if ((told === undefined) === not) return { holds: true, says };
      const words = told === undefined ? `${seat} is not told ${called} of ${name}.` : `${seat} is told ${called} of ${name}: ${told}.`;
      return { holds: false, says, failure: { says: words, expected, found: says, who: seat, cause: 0 } };
    });
    return verdicts.find(({ holds }) => !holds) ?? verdicts[0];
  };
  return { path, within: 0, waits: false, watches: NOTHING_WATCHED, look };
}
