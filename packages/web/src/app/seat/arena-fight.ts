import { areasTable, type Copy, type Prediction, projectilesTable } from '@eager-ember/core';
import { castsOf } from './casting';
import { type ActorView, displayOf } from './display';
import type { Pen } from './sketch';

type Colour = (name: string) => string;

const VISIBLE = 3;

/** What abilities have on their way: circles that are about to land or stay, and what flies. */
export function drawDeliveries(ctx: Pen, copy: Copy, colour: Colour, scale: number, truth: boolean): void {
  const { abilities } = displayOf(copy.schema);
  const kindOf = (id: string | undefined) => abilities.find((ability) => ability.id === id);
  for (const { ability, x = 0, y = 0, radius = 0, lands = 0 } of copy.of(areasTable).all()) {
    const landed = lands <= copy.tick;
    ctx.strokeStyle = kindOf(ability)?.colour ?? colour('ember');
    ctx.fillStyle = ctx.strokeStyle;
    ctx.lineWidth = 1.6 / scale;
    ctx.setLineDash(landed ? [] : [7 / scale, 5 / scale]);
    ctx.beginPath();
    ctx.arc(x, y, radius, 0, 2 * Math.PI);
    ctx.stroke();
    ctx.globalAlpha = landed ? 0.25 : 0.08;
    ctx.fill();
    ctx.globalAlpha = 1;
    ctx.setLineDash([]);
    if (landed) continue;
    // The time that is left until it lands, as a circle that closes in.
    ctx.beginPath();
    ctx.arc(x, y, (radius * Math.min(40, lands - copy.tick)) / 40, 0, 2 * Math.PI);
    ctx.stroke();
  }
  for (const { ability, x = 0, y = 0, wayX = 0, wayY = 0 } of copy.of(projectilesTable).all()) {
    const kind = kindOf(ability);
    const radius = Math.max(VISIBLE / scale, kind?.radius ?? 4);
    ctx.strokeStyle = kind?.colour ?? colour('ember');
    ctx.fillStyle = truth ? ctx.strokeStyle : colour('paper');
    ctx.lineWidth = 1.5 / scale;
    // A tail says where it comes from.
    ctx.beginPath();
    ctx.moveTo(x - wayX * radius * 4, y - wayY * radius * 4);
    ctx.lineTo(x, y);
    ctx.stroke();
    ctx.beginPath();
    ctx.arc(x, y, radius, 0, 2 * Math.PI);
    ctx.fill();
    ctx.stroke();
  }
}

/** Bars over those who are casting, channelling or recovering, and where what is aimed goes. */
export function drawCasts(ctx: Pen, copy: Copy, actors: readonly ActorView[], colour: Colour, scale: number, named: boolean): void {
  const casts = castsOf(copy);
  if (casts.size === 0) return;
  const [wide, tall] = [44 / scale, 5 / scale];
  for (const actor of actors) {
    const cast = casts.get(actor.row);
    if (!cast) continue;
    const left = actor.x - wide / 2;
    const top = actor.y - actor.radius - 12 / scale;
    ctx.fillStyle = colour('paper');
    ctx.fillRect(left, top, wide, tall);
    ctx.fillStyle = cast.phase === 'recovering' ? colour('soft') : colour('ember');
    ctx.fillRect(left, top, wide * (cast.phase === 'channelling' ? 1 - cast.share : cast.share), tall);
    ctx.strokeStyle = colour('ink');
    ctx.lineWidth = 1 / scale;
    ctx.strokeRect(left, top, wide, tall);
    if (cast.phase === 'recovering' || !named) continue;
    ctx.fillStyle = colour('ink');
    ctx.font = `${10.5 / scale}px 'Atkinson Hyperlegible Next Variable', sans-serif`;
    ctx.textAlign = 'center';
    ctx.fillText(cast.label, actor.x, top - 3 / scale);
  }
}

/** Where a seat expects its own actor to be, before it was told: dotted, with a line to where it was told to be. */
export function drawExpected(ctx: Pen, prediction: Prediction, told: ActorView, colour: Colour, scale: number): void {
  const place = prediction.place();
  if (!place || prediction.ahead() < 0.5) return;
  ctx.strokeStyle = colour('brass');
  ctx.lineWidth = 1.8 / scale;
  ctx.setLineDash([1.5 / scale, 3 / scale]);
  ctx.beginPath();
  ctx.arc(place.x, place.y, told.radius, 0, 2 * Math.PI);
  ctx.stroke();
  ctx.beginPath();
  ctx.moveTo(told.x, told.y);
  ctx.lineTo(place.x, place.y);
  ctx.stroke();
  ctx.setLineDash([]);
}
