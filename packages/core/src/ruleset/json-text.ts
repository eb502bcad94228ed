import { parseTree, type ParseError, printParseErrorCode } from 'jsonc-parser';
import { pointer, type Problem } from './problem.js';

/** A JSON text that can't be read: where, from 1 on, and what to do. */
export interface JsonProblem {
  readonly line: number;
  readonly column: number;
  readonly message: string;
}

/** What is wrong, by what the parser calls it. */
const WRONG: Readonly<Record<string, string>> = {
  InvalidSymbol:
    'this is no value: a text stands in double quotes, and a value is a number, a text, true, false, null, a list or an object',
  InvalidNumberFormat: 'this is no number',
  PropertyNameExpected: 'a name in double quotes is expected here, or there is a comma too many before it',
  ValueExpected: 'a value is expected here, or there is a comma too many before it',
  ColonExpected: 'a colon is expected here, between a name and its value',
  CommaExpected: 'a comma is expected here, between two values',
  CloseBraceExpected: 'a closing } is missing here',
  CloseBracketExpected: 'a closing ] is missing here',
  EndOfFileExpected: 'there is more behind the end of the document',
  InvalidCommentToken: 'JSON has no comments: write a note instead',
  UnexpectedEndOfComment: 'JSON has no comments: write a note instead',
  UnexpectedEndOfString: 'this text is not closed in its line: a double quote is missing, or a line break is to be written as \\n',
  UnexpectedEndOfNumber: 'this number is not complete',
  InvalidUnicode: 'this is no character: \\u is followed by four digits',
  InvalidEscapeCharacter: 'this is no character: in a text, \\ stands before ", \\, n, r, t or u alone',
  InvalidCharacter: 'this character can not stand in a text: write a line break as \\n',
};

/** Reads a JSON text. What is wrong with it is told by line and column, for the first place alone: what follows from it would mislead. */
export function readJson(text: string): { readonly value: unknown; readonly wrong?: undefined } | { readonly wrong: JsonProblem } {
  try {
    return { value: JSON.parse(text) };
  } catch {
    return { wrong: whereWrong(text) };
  }
}

function whereWrong(text: string): JsonProblem {
  if (text.trim() === '') return { line: 1, column: 1, message: 'there is nothing' };
  const errors: ParseError[] = [];
  parseTree(text, errors, { disallowComments: true, allowTrailingComma: false, allowEmptyContent: false });
  const [first] = errors.sort((a, b) => a.offset - b.offset);
  const offset = first?.offset ?? 0;
  const before = text.slice(0, offset).split('\n');
  return {
    line: before.length,
    column: before.at(-1)!.length + 1,
    message: WRONG[first ? printParseErrorCode(first.error) : ''] ?? 'this can’t be read',
  };
}

/** A JSON problem in one sentence. */
export const jsonWords = ({ line, column, message }: JsonProblem): string =>
  `This is not JSON: in line ${line}, column ${column}, ${message}.`;

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
