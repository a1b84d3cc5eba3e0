import { seeded, shuffled } from '../scoring/random.ts';

/** Something that goes by an identifier. */
export interface Named {
  readonly id: string;
}

/** What a delivery leaves to chance. A place is where in the quiz it happens; the same in every delivery. */
export interface Chance {
  /** Some of a pool, in its order; with repeats one may come several times. */
  readonly pick: <T extends Named>(
    place: string,
    pool: readonly T[],
    count: number,
    repeats: boolean,
  ) => readonly T[];
  /** A list in some order. */
  readonly order: <T extends Named>(place: string, list: readonly T[]) => readonly T[];
}

/** Chance as a seed has it: every outcome is equally likely. */
export function seededChance(seed: number): Chance {
  const random = seeded(seed);
  return {
    pick: (_, pool, count, repeats) =>
      repeats ? withRepeats(pool, count, random) : without(pool, count, random),
    order: (_, list) => shuffled(list, random),
  };
}

function without<T>(pool: readonly T[], count: number, random: () => number): T[] {
  const chosen = new Set(shuffled([...pool.keys()], random).slice(0, count));
  return pool.filter((_, at) => chosen.has(at));
}

export function withRepeats<T>(pool: readonly T[], count: number, random: () => number): T[] {
  return pool.length === 0
    ? []
    : Array.from({ length: count }, () => pool[Math.floor(random() * pool.length)]!);
}
