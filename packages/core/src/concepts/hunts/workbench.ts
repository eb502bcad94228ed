import type { Rules } from '../../ruleset/rules.js';
import type { Workbench } from '../../workbench/workbench.js';
import { registry } from '../../ruleset/registry.js';
import { type CheckStory, storyOf } from '../checks/workbench.js';
import { type Found, type HuntGo, type HuntMistakes, Search } from './run/search.js';
import { huntChapter } from './schema.js';

function searchOf(rules: Rules, id: string): Search {
  const hunt = huntChapter.find(rules, id);
  if (!hunt) throw new RangeError(`The hunts have no entry ${id}`);
  return new Search(rules, hunt);
}

/** What keeps a hunt from being run. */
const mistakes = (rules: Rules, id: string): HuntMistakes => (huntChapter.find(rules, id) ? searchOf(rules, id).mistakes : []);

/** What happens in the story that was found, all of it to be seen. */
const story = (rules: Rules, check: Found['check']): CheckStory | undefined => storyOf(rules, { ...check, id: 'found', label: 'Found' });

/** What holds of any ruleset, by its name, each in a sentence. */
const invariants = (): readonly { readonly name: string; readonly label: string }[] =>
  [...registry().invariants].map(([name, { label }]) => ({ name, label }));

/** Begins a hunt: each go tries so many stories from a number on, or makes the one that was found shorter. */
function search(rules: Rules, id: string): (first: number, most: number) => HuntGo {
  const own = searchOf(rules, id);
  return (first, most) => own.go(first, most);
}

export const workbench = { questions: { mistakes, story, invariants }, tasks: { search } } satisfies Workbench;
export type HuntQuestions = (typeof workbench)['questions'];
export type HuntTasks = (typeof workbench)['tasks'];
