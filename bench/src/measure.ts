/** A figure with the reference it was measured beside. */
export interface Row {
  readonly what: string;
  readonly value: number;
  readonly reference: number;
  readonly unit: string;
  readonly referenceIs: string;
  /** How the two are compared, in words with the number in it. */
  readonly ratio: string;
  readonly reach: string;
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)];
}

/** Microseconds that a call takes: the median of rounds, after some that are thrown away. The two are run in turn. */
export function compare(one: () => void, other: () => void, rounds: number, calls: number): { one: number; other: number } {
  const times: [number[], number[]] = [[], []];
  for (let round = -Math.ceil(rounds / 4); round < rounds; round++) {
    [one, other].forEach((work, i) => {
      const began = performance.now();
      for (let n = 0; n < calls; n++) work();
      if (round >= 0) times[i].push(((performance.now() - began) * 1000) / calls);
    });
  }
  return { one: median(times[0]), other: median(times[1]) };
}

export const rounded = (value: number) => Number(value.toPrecision(3));
