/**
 * The files of a concept's page, by name: its sentences, and what the book has to know of it.
 * @returns {Readonly<Record<string, string>>}
 */
export function webFiles({ name, one, One, Name, said }) {
  return {
    'page.ts': `import type { ChapterPage } from '../chapter-page';

export const ${name}Page: ChapterPage = {
  key: '${name}',
  title: '${Name}',
  one: '${said}',
  fresh: () => ({}),
};
`,
    'pieces.ts': `import type { PagePieces } from '../chapter-page';
import { ${One}Sentences } from './${one}-sentences';

export const ${name}Pieces: PagePieces = { spec: [{ type: ${One}Sentences }] };
`,
    [`${one}-sentences.ts`]: `import { ChangeDetectionStrategy, Component } from '@angular/core';
import { type Clause, Clauses } from '../spec/clauses';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';

/** A ${said} in sentences. */
@Component({
  selector: 'ee-${one}-sentences',
  imports: [Part, Sentence, Clauses, Note],
  template: \`
    <ee-sentence>An actor has at most <ee-part at="most" label="most" /> of it. Seen by <ee-part at="see" label="seen by" />.</ee-sentence>
    <ee-note />
    <ee-clauses [all]="clauses" />
  \`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ${One}Sentences {
  protected readonly clauses: readonly Clause[] = [NOTE];
}
`,
  };
}
