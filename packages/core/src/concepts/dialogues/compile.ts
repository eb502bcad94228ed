import type { CompileContext, CompiledThen } from '../../ruleset/context.js';
import type { Path } from '../../ruleset/problem.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { type DialogueEntry } from './schema.js';
import { type Choice, type Dialogue, type Line } from './state.js';

export function compileDialogue(context: CompileContext, entry: DialogueEntry, i: number): Dialogue {
  const path = ['dialogues', i, 'lines'];
  const ids = entry.lines.map(({ id }) => id);
  ids.forEach((id, k) => {
    if (ids.indexOf(id) < k) context.problem([...path, k, 'id'], `${id} is taken by line ${ids.indexOf(id)} of this dialogue.`);
  });
  const follow = (next: string | undefined, behind: number, at: Path): number => {
    if (next === undefined) return behind < ids.length ? behind : -1;
    if (next === 'end') return -1;
    if (!ids.includes(next)) context.problem(at, `This dialogue has no line ${next}.${didYouMean(next, [...ids, 'end'])}`);
    return ids.indexOf(next);
  };
  return {
    id: entry.id,
    voice: entry.voice ?? entry.label,
    within: entry.within,
    luck: context.purpose(['dialogues', i, 'speaker']),
    lines: entry.lines.map((line, k): Line => {
      const at = [...path, k];
      const part = (
        one: { text: string; if?: string | undefined; next?: string | undefined },
        then: CompiledThen,
        where: Path,
      ): Choice => ({
        text: one.text,
        test: one.if === undefined ? undefined : context.condition(one.if, ['target']),
        then,
        next: follow(one.next, k + 1, [...where, 'next']),
      });
      return {
        ...part(line, context.then(line.then ?? [], [...at, 'then']), at),
        id: line.id,
        speaker: line.speaker,
        ticks: Math.max(1, context.ticks(line.for)),
        choices: (line.choices ?? []).map((choice, c) =>
          part(choice, context.then(choice.then ?? [], [...at, 'choices', c, 'then']), [...at, 'choices', c]),
        ),
      };
    }),
  };
}
