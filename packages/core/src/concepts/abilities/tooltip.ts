import type { CompiledText } from '../../formula/index.js';
import { roundTo } from '../../math/grid.js';
import type { CompileContext } from '../../ruleset/context.js';
import type { World } from '../../world/world.js';
import { type AbilityEntry, NUMBERS } from './schema.js';

export type AbilityNumbers = Readonly<Record<(typeof NUMBERS)[number], number>>;

export interface Tooltip {
  readonly text: CompiledText;
  readonly width: number;
  readonly lines: number;
}

const NO_TEXT: CompiledText = { pieces: [], references: [], lookups: [] };

export function compileTooltip(context: CompileContext, { text, width, lines }: NonNullable<AbilityEntry['tooltip']>): Tooltip {
  const place = { yields: 'text', parties: [], event: NUMBERS, carrier: 'ability' } as const;
  return { text: context.text(text, place) ?? NO_TEXT, width, lines };
}

/** The text of a tooltip for an actor, with at most two decimals in its numbers. */
export function fillTooltip({ text }: Tooltip, world: World, actor: number, numbers: AbilityNumbers): string {
  const parties = { owner: actor, source: actor, target: actor, event: numbers };
  return text.pieces.map((piece) => ('words' in piece ? piece.words : String(roundTo(piece.hole(world, parties), 2)))).join('');
}

/** A number as long as any that is likely to be shown. */
const LONG_NUMBER = '0000000.00';

/** Whether a tooltip fits its box whatever its numbers come to. */
export function hasRoom({ text, width, lines }: Tooltip): boolean {
  const longest = text.pieces.map((piece) => ('words' in piece ? piece.words : LONG_NUMBER)).join('');
  return wrapText(longest, width).length <= lines;
}

/** Breaks a text into lines of at most this many characters, between words where it can. */
export function wrapText(text: string, width: number): readonly string[] {
  const lines: string[] = [];
  for (const paragraph of text.split('\n')) {
    let line = '';
    for (const word of paragraph.split(/ +/)) {
      let rest = word;
      if (line !== '' && line.length + 1 + rest.length <= width) line += ` ${rest}`;
      else {
        if (line !== '') lines.push(line);
        // A word that is longer than a line is cut.
        for (; rest.length > width; rest = rest.slice(width)) lines.push(rest.slice(0, width));
        line = rest;
      }
    }
    lines.push(line);
  }
  return lines;
}
