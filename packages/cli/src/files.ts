import { readFileSync } from 'node:fs';
import type { Problem } from '@eager-ember/core';

/** Largest file that is read, in bytes. */
const LARGEST_FILE = 16 * 1024 * 1024;

/** A file's text, or why it can't be had. */
export function readText(
  file: string,
): { readonly text: string; readonly problem?: undefined } | { readonly text?: undefined; readonly problem: string } {
  try {
    const bytes = readFileSync(file);
    if (bytes.length > LARGEST_FILE) return { problem: `${file} is larger than ${LARGEST_FILE} bytes.` };
    return { text: bytes.toString('utf8') };
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    return { problem: code === 'ENOENT' ? `There is no file ${file}.` : `${file} can't be read: ${(error as Error).message}.` };
  }
}

/** `path: message`, a line each; the root's path is `/`. */
export function inLines(problems: readonly Problem[]): string {
  return problems
    .map(({ path, message, at }) => `${path || '/'}: ${message}${at === undefined ? '' : ` (character ${at + 1})`}\n`)
    .join('');
}
