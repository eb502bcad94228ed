/** In the order in which they have to be asked for: many call themselves by the names of others as well. */
const BROWSERS: readonly [string, RegExp][] = [
  ['Edge', /\bEdg\w*\//],
  ['Opera', /\bOPR\//],
  ['Firefox', /\bFirefox\//],
  ['Chromium', /\bHeadlessChrome\/|\bChromium\//],
  ['Chrome', /\bChrome\//],
  ['Safari', /\bSafari\//],
];
const SYSTEMS: readonly [string, RegExp][] = [
  ['Android', /Android/],
  ['iPhone', /iPhone|iPad/],
  ['Windows', /Windows/],
  ['macOS', /Mac OS X|Macintosh/],
  ['Linux', /Linux/],
];

/** What a browser is called, by what it says of itself. */
export function browserOf(agent: string): string {
  const named = (list: readonly [string, RegExp][]) => list.find(([, pattern]) => pattern.test(agent))?.[0];
  const [browser, system] = [named(BROWSERS), named(SYSTEMS)];
  if (browser === undefined) return agent.trim() === '' ? 'A browser that does not say its name' : agent.slice(0, 60);
  return system === undefined ? browser : `${browser} on ${system}`;
}
