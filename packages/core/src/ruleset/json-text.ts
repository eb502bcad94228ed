import { pointer, type Problem } from './problem.js';

interface Open {
  /** The names seen so far in an object; undefined for a list. */
  readonly names: Set<string> | undefined;
  at: string | number;
}

const TOKEN = /"(?:[^"\\]|\\.)*"|[{}[\]:,]/g;

/**
 * The names that stand twice in one object of a JSON text. The standard parser lets the last one win without a word, and
 * what an author wrote first would be lost.
 * @param text valid JSON
 */
export function repeatedNames(text: string): readonly Problem[] {
  const problems: Problem[] = [];
  const open: Open[] = [];
  let name: string | undefined;
  for (const [token] of text.matchAll(TOKEN)) {
    const top = open.at(-1);
    if (token === '{') open.push({ names: new Set(), at: '' });
    else if (token === '[') open.push({ names: undefined, at: 0 });
    else if (token === '}' || token === ']') open.pop();
    else if (token === ',' && top && !top.names) top.at = (top.at as number) + 1;
    else if (token === ':' && top?.names && name !== undefined) {
      top.at = name;
      if (top.names.has(name)) problems.push({ path: pointer(open.map((o) => o.at)), message: `"${name}" stands here twice.` });
      top.names.add(name);
    }
    // Only a text right before a colon is a name; the colon says so.
    name = token.startsWith('"') ? (JSON.parse(token) as string) : undefined;
  }
  return problems;
}
