import { randomUUID } from 'node:crypto';
import { isGone, LEASE_MS, otherLeases, type Process } from '../store/processes.ts';

/** Ids under which this process has leases. */
const mine = new Set<string>();

/** An id under which this process takes leases, from now on. */
export function newOwner(): string {
  const id = randomUUID();
  mine.add(id);
  return id;
}

export const forgetOwner = (id: string): void => void mine.delete(id);

/**
 * Finds leases of other processes that have lapsed. Clocks may jump, and differ: what counts is that a lease was
 * not renewed for its length since this process first saw it as it is, by a clock that only goes forward.
 */
export class LeaseWatch {
  readonly #seen = new Map<string, { readonly leaseUntil: number; readonly at: number }>();

  /** @param length after so long a lease that is not renewed has lapsed, in ms */
  constructor(readonly length = LEASE_MS) {}

  async lapsed(): Promise<Process[]> {
    const now = performance.now();
    const others = await otherLeases([...mine]);
    const lapsed = others.filter((other) => {
      const seen = this.#seen.get(other.id);
      if (seen?.leaseUntil === other.leaseUntil) return now - seen.at > this.length || isGone(other);
      this.#seen.set(other.id, { leaseUntil: other.leaseUntil, at: now });
      return isGone(other);
    });
    for (const id of this.#seen.keys()) if (!others.some((o) => o.id === id)) this.#seen.delete(id);
    return lapsed;
  }
}
