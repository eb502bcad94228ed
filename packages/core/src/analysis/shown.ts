import { type Finding, pointer } from '../ruleset/problem.js';
import type { Rules } from '../ruleset/rules.js';
import { entriesOf, textsIn } from './entries.js';

/** Where words are shown as they stand. */
const AS_THEY_STAND: readonly (readonly [string, RegExp])[] = [
  ['dialogues', /^\/(voice|lines\/\d+\/(text|choices\/\d+\/text))$/],
  ['interactions', /^\/(prompt|needs\/\d+\/say|price\/say)$/],
  ['containers', /^\/(prompt|needs\/\d+\/say)$/],
];
const NAME_IN_BRACES = /\{ *[a-z][\w.]* *\}/i;

/** Names in braces where nothing is put in their place: players would read the braces. */
export function shownFindings(rules: Rules): readonly Finding[] {
  return AS_THEY_STAND.flatMap(([chapter, fields]) =>
    entriesOf(rules, chapter).flatMap((entry, i) =>
      textsIn(entry).flatMap(([at, text]): readonly Finding[] => {
        const name = fields.test(at) ? NAME_IN_BRACES.exec(text)?.[0] : undefined;
        return name === undefined
          ? []
          : [
              {
                kind: 'shownAsWritten',
                path: `${pointer([chapter, i])}${at}`,
                message: `Players read ${name} as it stands: nothing is put in its place here. Write the words themselves.`,
              },
            ];
      }),
    ),
  );
}
