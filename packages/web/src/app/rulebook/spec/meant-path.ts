type Json = Readonly<Record<string, unknown>>;

/** The value at a path below another: `refill/rate`, `entries/2/weight`. */
export function valueAt(value: unknown, at: string): unknown {
  return at.split('/').reduce<unknown>((inner, key) => (inner as Json | undefined)?.[key], value);
}

/**
 * Keeps what a path means. An edit waits its turn, and an edit before it may have taken something out of a list or put
 * something into it: the third line is then another one. What a path goes through in lists is found again by its id, or
 * by being the same; what has no id and was changed is taken to stand where it stood.
 * @returns the path to that in a later value; undefined where it is gone
 */
export function meantPath(value: unknown, at: string): (later: unknown) => string | undefined {
  const keys = at.split('/');
  const names = keys.map((key, i) => {
    const list = i === 0 ? value : valueAt(value, keys.slice(0, i).join('/'));
    if (!Array.isArray(list)) return undefined;
    const name = nameOf((list as unknown[])[Number(key)]);
    // Of several that are the same the place alone says which is meant.
    return name?.own || (list as unknown[]).filter((one) => nameOf(one)?.text === name?.text).length === 1 ? name : undefined;
  });
  return (later) => {
    let holder = later;
    const path: string[] = [];
    for (const [i, key] of keys.entries()) {
      const here = Array.isArray(holder) ? placeOf(holder, Number(key), names[i]) : key;
      if (here === undefined) return undefined;
      path.push(here);
      holder = (holder as Json | undefined)?.[here];
    }
    return path.join('/');
  };
}

interface Name {
  readonly text: string;
  /** It is an id: what does not have it is something else. */
  readonly own: boolean;
}

function nameOf(one: unknown): Name | undefined {
  if (one === undefined) return undefined;
  const id = (one as { readonly id?: unknown } | null)?.id;
  return typeof id === 'string' ? { text: id, own: true } : { text: JSON.stringify(one), own: false };
}

function placeOf(list: readonly unknown[], index: number, name: Name | undefined): string | undefined {
  const is = (one: unknown) => one !== undefined && nameOf(one)!.text === name?.text;
  if (name === undefined || is(list[index])) return String(index);
  const found = list.findIndex(is);
  if (found >= 0) return String(found);
  return name.own ? undefined : String(index);
}
