type Json = unknown;
type Holder = Record<string | number, Json>;

/** What somebody may have put into a place where it does not belong. */
const ODD: readonly Json[] = [
  null,
  true,
  0,
  -1,
  0.5,
  1e308,
  9_007_199_254_740_992,
  '',
  'x',
  'oxygen',
  'source.oxygen * 2',
  'min(',
  '1 / 0',
  '250ms',
  '-1s',
  '__proto__',
  'constructor',
  'a'.repeat(700),
  [],
  [[]],
  [null],
  {},
  { id: 'x' },
  { do: 'hurt' },
  { random: [3, 1] },
  { share: 2 },
];
const NAMES = ['zz', 'id', 'do', 'label', 'then', 'length', '__proto__', 'constructor', 'toString', 'formerly', 'see', 'width'];

/** Numbers that look drawn, the same for the same seed: from 0 to below 1. */
export function drawn(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    // A linear congruential generator (Numerical Recipes, 2nd edition, section 7.1), its upper bits.
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return (state >>> 8) / 0x1000000;
  };
}

/** Every object and list in a value, each with itself only once. */
function* holders(value: Json): Iterable<Holder> {
  if (typeof value !== 'object' || value === null) return;
  yield value as Holder;
  for (const inside of Object.values(value)) yield* holders(inside);
}

/**
 * A document with a few things wrong, as edits, scripts and accidents leave behind: values of another kind, parts that are gone,
 * doubled, moved elsewhere, or under names that nobody knows.
 */
export function mutated(document: Json, seed: number, most = 4): Json {
  const draw = drawn(seed);
  const one = <T>(of: readonly T[]): T => of[Math.floor(draw() * of.length)];
  const copy = structuredClone(document);
  const all = [...holders(copy)];
  for (let n = 1 + Math.floor(draw() * most); n > 0; n--) {
    const holder = one(all);
    const keys = Object.keys(holder);
    const key = one(keys.length > 0 ? keys : ['zz']);
    const set = (name: string, value: Json) => {
      // As a parser of JSON does it: a name such as __proto__ is one like any other.
      Object.defineProperty(holder, name, { value, enumerable: true, configurable: true, writable: true });
    };
    switch (Math.floor(draw() * 6)) {
      case 0:
        set(key, structuredClone(one(ODD)));
        break;
      case 1:
        if (Array.isArray(holder)) holder.splice(Math.floor(draw() * holder.length), 1);
        else Reflect.deleteProperty(holder, key);
        break;
      case 2:
        if (Array.isArray(holder)) holder.push(structuredClone(holder[Number(key)] as Json));
        else set(one(NAMES), structuredClone(one(ODD)));
        break;
      case 3:
        if (Array.isArray(holder)) holder.push(structuredClone(one(ODD)));
        else set(one(NAMES), structuredClone(holder[key]));
        break;
      case 4: {
        const from = one(all);
        const [name] = Object.keys(from);
        if (name !== undefined && JSON.stringify(from[name] ?? null).length < 2000) set(key, structuredClone(from[name]));
        break;
      }
      default: {
        const value = holder[key];
        if (typeof value === 'number') set(key, one([-value, value * 1e6, value + 0.1, Math.trunc(value / 2)]));
        else if (typeof value === 'string') set(key, value.slice(0, -1) + one(['', 's', ' ', '(', '.']));
        else set(key, structuredClone(one(ODD)));
      }
    }
  }
  return copy;
}
