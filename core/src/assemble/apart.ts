import { seeded, shuffled } from '../scoring/random.ts';
import { withRepeats, type Chance, type Named } from './chance.ts';

/** What versions before this one have at each place. */
export interface Others {
  /** Who sits beside it, the nearest first: as little as possible is shared with these. */
  readonly neighbours: readonly Had[];
  /** All of them. */
  readonly all: readonly Had[];
}

/** What one version drew, and in which order, by place. */
export interface Had {
  readonly drawn: Map<string, readonly string[]>;
  readonly orders: Map<string, readonly string[]>;
}

export const nothingYet = (): Had => ({ drawn: new Map(), orders: new Map() });

/** Orders tried before the best of them is taken; of four things more than a third leave none in its place. */
const ORDERS_TRIED = 60;
/** A neighbour's item counts more than all others' together. */
const NEIGHBOUR = 1000;

/**
 * Chance that keeps versions apart: what neighbours have is drawn last, what few have first; of many orders the one
 * that leaves the fewest things where a neighbour has them. What is equally good is as the seed has it.
 * @param into what this version has is put down here
 */
export function keepingApart(seed: number, others: Others, into: Had): Chance {
  const random = seeded(seed);
  const pick = <T extends Named>(place: string, pool: readonly T[], count: number, repeats: boolean): T[] => {
    const chosen = repeats
      ? withRepeats(pool, count, random)
      : inPoolOrder(pool, leastUsed(place, pool, others, random).slice(0, count));
    into.drawn.set(
      place,
      chosen.map((c) => c.id),
    );
    return chosen;
  };
  const order = <T extends Named>(place: string, list: readonly T[]): T[] => {
    const beside = others.neighbours.map((n) => n.orders.get(place) ?? []);
    const chosen = leastInPlace(list, beside, random);
    into.orders.set(
      place,
      chosen.map((c) => c.id),
    );
    return chosen;
  };
  return { pick, order };
}

function inPoolOrder<T>(pool: readonly T[], chosen: readonly T[]): T[] {
  const taken = new Set(chosen);
  return pool.filter((p) => taken.has(p));
}

function leastUsed<T extends Named>(
  place: string,
  pool: readonly T[],
  { neighbours, all }: Others,
  random: () => number,
): T[] {
  const used = new Map<string, number>();
  const count = (had: Had, by: number): void => {
    for (const id of had.drawn.get(place) ?? []) used.set(id, (used.get(id) ?? 0) + by);
  };
  for (const n of neighbours) count(n, NEIGHBOUR);
  for (const a of all) count(a, 1);
  return shuffled(pool, random).sort((a, b) => (used.get(a.id) ?? 0) - (used.get(b.id) ?? 0));
}

/** Of many orders the one with the fewest things in a place where one of the others has them. */
export function leastInPlace<T extends Named>(
  list: readonly T[],
  others: readonly (readonly string[])[],
  random: () => number,
): T[] {
  let best = shuffled(list, random);
  let least = inPlace(best, others);
  for (let n = 1; n < ORDERS_TRIED && least > 0; n++) {
    const next = shuffled(list, random);
    const same = inPlace(next, others);
    if (same < least) [best, least] = [next, same];
  }
  return best;
}

const inPlace = (list: readonly Named[], others: readonly (readonly string[])[]): number =>
  others.reduce((sum, other) => sum + list.filter((one, at) => other[at] === one.id).length, 0);
