import { readFileSync } from 'node:fs';
import { actorOfSeat, compileRuleset, Copy, Publisher, shownTo, type Viewer, wireSchemaOf, World } from '@eager-ember/core';
import jsonPatch from 'fast-json-patch';
import { median, rounded, type Row } from './measure.js';

const SEATS = 8;
const TICKS = 1500;
/** Ticks that are not counted: a room runs for hours, and its code is compiled in its first seconds. */
const WARM_UP = 500;

/** Bytes and time of the frames of eight seats that all move, beside a general JSON diff and JSON of the same change. */
export function frames(): readonly Row[] {
  const rules = compileRuleset(JSON.parse(readFileSync(new URL('../../examples/brinewick.json', import.meta.url), 'utf8')));
  const world = World.start(rules, 1);
  const names = Array.from({ length: SEATS }, (_, i) => `seat${i}`);
  world.step(names.map((seat, i) => ({ kind: 'join', args: { seat, team: i % 2 === 0 ? 'petrel' : 'gannet' } })));
  world.step(
    names.map((seat, i) => ({
      kind: 'input',
      args: { seat, input: { do: 'move', x: i % 2 === 0 ? 1 : -1, y: i % 3 === 0 ? 0.2 : -0.3 } },
    })),
  );
  const viewers = names.map((name): Viewer => {
    const actor = actorOfSeat(world, name);
    return { actor, team: world.actors.cells.team[world.actors.rowOf(actor)] };
  });
  const publisher = new Publisher(world);
  const copies = viewers.map(() => new Copy(wireSchemaOf(rules)));
  publisher.capture();
  copies.forEach((copy, i) => copy.apply(publisher.frameFor(viewers[i], 0)));
  let before = viewers.map((viewer) => shownTo(world, viewer));
  const bytes: number[] = [];
  const diffs: number[] = [];
  const floors: number[] = [];
  const ours: number[] = [];
  const theirs: number[] = [];
  for (let tick = 0; tick < TICKS; tick++) {
    if (tick % 40 === 0)
      world.step(names.map((seat) => ({ kind: 'input', args: { seat, input: { do: 'move', x: Math.sign(Math.sin(tick)), y: 0.3 } } })));
    else world.step();
    const began = performance.now();
    publisher.capture(false);
    const sent = viewers.map((viewer, i) => publisher.frameFor(viewer, copies[i].frame));
    const took = (performance.now() - began) * 1000;
    const after = viewers.map((viewer) => shownTo(world, viewer));
    const patches = after.map((now, i) => jsonPatch.compare(before[i], now));
    const started = performance.now();
    const texts = patches.map((patch) => JSON.stringify(patch));
    if (tick >= WARM_UP) {
      ours.push(took);
      theirs.push((performance.now() - started) * 1000);
    }
    sent.forEach((frame, i) => {
      bytes.push(frame.length);
      diffs.push(Buffer.byteLength(texts[i]));
      floors.push(patches[i].length * 6);
      copies[i].apply(frame);
    });
    before = after;
  }
  const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);
  return [
    {
      what: 'frame bytes: 8 moving seats, per seat and frame',
      value: rounded(sum(bytes) / bytes.length),
      reference: rounded(sum(diffs) / diffs.length),
      unit: 'bytes',
      referenceIs: 'a JSON Patch of the same change',
      ratio: `${(sum(diffs) / sum(bytes)).toFixed(1)}x smaller; ${(sum(bytes) / sum(floors)).toFixed(2)}x the floor of 6 bytes a changed number`,
      reach: 'at least 8x smaller; at most 2x the floor',
    },
    {
      what: 'encoding the frames of all 8 seats, comparison included',
      value: rounded(median(ours)),
      reference: rounded(median(theirs)),
      unit: 'µs',
      referenceIs: 'JSON.stringify of the ready-made patches alone',
      ratio: `${(median(ours) / median(theirs)).toFixed(2)}x`,
      reach: 'less than 1x',
    },
  ];
}
