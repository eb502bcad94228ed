import { inject, Injectable } from '@angular/core';
import type { Use } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import { CoreClient } from '../shared/core-client';
import type { RulesetJson } from '../shared/api';
import { Editor } from '../store/editor';
import { chapterOf } from './chapters';
import { entriesOf, labelOf } from './entries';

/** A place that speaks of an entry, for reading. */
export interface UseInWords {
  readonly chapter: string | undefined;
  readonly id: string | undefined;
  readonly label: string;
  readonly where: string;
}

/** What came of a deletion: it is done, the entry is in use, or something else is in the way. */
export interface Outcome {
  readonly uses?: readonly UseInWords[];
  readonly problem?: string;
}

/** Deletes entries that nobody speaks of. What is nothing without one goes with it: its own situation, its place among what an actor has. */
@Injectable({ providedIn: 'root' })
export class Deletion {
  private readonly editor = inject(Editor);
  private readonly client = inject(CoreClient);

  async remove(chapter: string, id: string): Promise<Outcome> {
    await this.editor.settled();
    const document = this.editor.document();
    if (!document) return {};
    const uses = await this.client.core.uses(document, chapter, id);
    const own = `/${chapter}/${entriesOf(document, chapter).findIndex((entry) => entry.id === id)}`;
    const goes = [own, ...uses.flatMap(({ item }) => item ?? [])];
    const others = uses.filter(
      ({ path, chapter: by }) => !chapterOf(by ?? '')?.ahead && !goes.some((gone) => path === gone || path.startsWith(`${gone}/`)),
    );
    if (others.length > 0) return { uses: others.map((use) => inWords(document, use)) };
    // From the end of each list, so that places still to come stay where they are.
    const paths = [...new Set(goes)].sort((a, b) => b.localeCompare(a, 'en', { numeric: true }));
    const patch: readonly Operation[] = paths.map((path) => ({ op: 'remove', path }));
    const problems = await this.editor.propose(() => patch, `delete ${labelOf(document, chapter, id)}`);
    return problems.length > 0 ? { problem: problems.map((problem) => problem.message).join(' ') } : {};
  }
}

function inWords(document: RulesetJson, { path, chapter, id }: Use): UseInWords {
  const [, key, position, ...rest] = path.split('/');
  const where = rest.map((part) => (/^\d+$/.test(part) ? String(Number(part) + 1) : part)).join(' ');
  if (chapter === undefined || id === undefined) return { chapter, id, label: key, where: [position, where].filter(Boolean).join(' ') };
  return { chapter, id, label: labelOf(document, chapter, id), where: `${chapterOf(chapter)?.one ?? chapter.replace(/s$/, '')}, ${where}` };
}
