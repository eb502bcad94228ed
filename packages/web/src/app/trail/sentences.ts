import type { TrailNote } from '../shared/api';
import { browserOf } from '../shared/browser';

type About = TrailNote['about'];
const word = (about: About, key: string): string => String(about[key] ?? '');

/** The first names of a path, which say where it is: `attributes, 6` of `/attributes/6/start`. */
const place = (path: string): string =>
  path
    .split('/')
    .slice(1, 3)
    .map((part) => part.replace(/~1/g, '/').replace(/~0/g, '~'))
    .join(' ') || 'the whole';

function edited(about: About): string {
  const paths = Array.isArray(about['paths']) ? about['paths'].map((path) => place(String(path))) : [];
  const places = [...new Set(paths)];
  const count = Number(about['operations'] ?? 0);
  const more = places.length > 3 || count > paths.length ? ' and more' : '';
  return `edited ${places.slice(0, 3).join(', ')}${more}: revision ${word(about, 'revision')}`;
}

function poked(about: About): string {
  const { do: name, ...rest } = (about['action'] ?? {}) as { do?: unknown };
  const details = Object.entries(rest)
    .map(([key, value]) => `${key} ${typeof value === 'object' ? JSON.stringify(value) : String(value)}`)
    .join(', ');
  const whom = about['seat'] === undefined ? '' : ` ${word(about, 'seat')}`;
  const by = about['from'] === undefined ? '' : ` as if from ${word(about, 'from')}`;
  return `poked${whom}${by} in ${word(about, 'room')}: ${String(name)}${details ? ` (${details})` : ''}`;
}

const SENTENCES: Readonly<Record<string, (about: About) => string>> = {
  signedIn: (about) => `signed in: ${browserOf(word(about, 'agent'))}`,
  signedOut: (about) => `signed out: ${browserOf(word(about, 'agent'))}`,
  sessionEnded: (about) => `signed out another browser: ${browserOf(word(about, 'agent'))}`,
  linkPrinted: () => 'had a sign-in link printed',
  begun: (about) => `began ${word(about, 'name')}`,
  edited,
  playerChanged: (about) => `changed what is kept of ${word(about, 'player')}`,
  playerDeleted: (about) => `deleted ${word(about, 'player')}`,
  asideDeleted: (about) => `deleted what was set aside of ${word(about, 'player')}`,
  roomOpened: (about) => `opened room ${word(about, 'room')}`,
  roomClosed: (about) => `closed room ${word(about, 'room')}`,
  linkReplaced: (about) => `replaced the join link of ${word(about, 'seat')} in ${word(about, 'room')}`,
  linkEnded: (about) => `ended the join link of ${word(about, 'seat')} in ${word(about, 'room')}`,
  poked,
};

/** A note as a sentence, without who it is of. */
export function sentenceOf({ what, about }: TrailNote): string {
  return SENTENCES[what]?.(about) ?? what;
}
