/** A small seeded source of chance (mulberry32, common practice), so that every trial can be run again. */
export class Chance {
  constructor(private state: number) {}

  /** A number from 0 up to, not with, 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }

  /** A whole number from low to high, both among them. */
  whole(low: number, high: number): number {
    return low + Math.floor(this.next() * (high - low + 1));
  }

  maybe(share = 0.5): boolean {
    return this.next() < share;
  }

  pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.next() * list.length)]!;
  }

  shuffled<T>(list: readonly T[]): T[] {
    const out = [...list];
    for (let at = out.length - 1; at > 0; at--) {
      const other = this.whole(0, at);
      [out[at], out[other]] = [out[other]!, out[at]!];
    }
    return out;
  }
}
