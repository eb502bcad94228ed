import { type Copy, lidsTable, pickupsTakenTable, rowInHandle, talksTable, visitsTable } from '@eager-ember/core';
import { type ActorView, displayOf } from './display';
import type { Pen } from './sketch';
import { until } from './surroundings';

/** From this scale on everybody’s name is written, and that of zones. */
export const NAMES_FROM = 0.42;
type Colours = (name: string) => string;

const font = (px: number) => `600 ${px}px 'Atkinson Hyperlegible Next Variable', sans-serif`;

/** The zones of the arena: under everything, each with its name. */
export function drawZones(ctx: Pen, copy: Copy, colour: Colours, scale: number): void {
  for (const zone of displayOf(copy.schema).zones) {
    const own = zone.colour ?? colour('copy');
    ctx.beginPath();
    if (zone.radius !== undefined) ctx.arc(zone.x, zone.y, zone.radius, 0, 2 * Math.PI);
    else ctx.rect(zone.x - (zone.width ?? 0) / 2, zone.y - (zone.height ?? 0) / 2, zone.width ?? 0, zone.height ?? 0);
    ctx.globalAlpha = 0.13;
    ctx.fillStyle = own;
    ctx.fill();
    ctx.globalAlpha = 0.8;
    ctx.strokeStyle = own;
    ctx.lineWidth = 1 / scale;
    ctx.setLineDash([2 / scale, 3 / scale]);
    ctx.stroke();
    ctx.setLineDash([]);
    ctx.globalAlpha = scale < NAMES_FROM ? 0 : 0.8;
    ctx.fillStyle = colour('soft');
    ctx.font = font(10 / scale);
    ctx.textAlign = 'center';
    ctx.fillText(zone.label.toLowerCase(), zone.x, zone.y - (zone.radius ?? (zone.height ?? 0) / 2) + 11 / scale);
    ctx.globalAlpha = 1;
  }
}

/** What is gone for a seat although it lies there for others. */
export function takenBy(copy: Copy): ReadonlySet<number> {
  return new Set(
    copy
      .of(pickupsTakenTable)
      .all()
      .flatMap(({ row }) => row ?? []),
  );
}

/** Lids that are up, whom characters are busy with, and what is said: words over their heads. */
export function drawWords(ctx: Pen, copy: Copy, actors: readonly ActorView[], colour: Colours, scale: number): void {
  const words = new Map<number, string>();
  const lids = copy.of(lidsTable);
  for (const row of lids.rows()) {
    const { lid = 'closed' } = lids.row(row);
    if (lid !== 'closed') words.set(row, lid);
  }
  for (const visit of copy.of(visitsTable).all()) {
    const left = until(copy, visit.until ?? 0);
    words.set(rowInHandle(visit.thing ?? 0), left === '' ? 'busy' : `busy, ${left}`);
  }
  ctx.textAlign = 'center';
  for (const [row, text] of words) {
    const actor = actors.find((one) => one.row === row);
    if (!actor) continue;
    ctx.font = font(10.5 / scale);
    ctx.fillStyle = colour('brass');
    ctx.fillText(text, actor.x, actor.y - actor.radius - 5 / scale);
  }
  for (const talk of copy.of(talksTable).all()) {
    // A voice without a body is heard where its visitor is.
    const at = rowInHandle(talk.speaker || talk.visitor || 0);
    const speaker = actors.find((one) => one.row === at);
    if (!speaker) continue;
    ctx.fillStyle = colour('copy');
    ctx.font = font(17 / scale);
    ctx.fillText('“…”', speaker.x, speaker.y - speaker.radius - 14 / scale);
  }
}
