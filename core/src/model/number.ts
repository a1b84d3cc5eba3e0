/** Twelve significant figures: what is left of a sum once its binary tail is gone. */
export const tidyNumber = (n: number): number => Number(n.toPrecision(12));

/** A number as people write it: no binary tail. */
export const plainNumber = (n: number): string => String(tidyNumber(n));

const EPSILON = 1e-9;

/** Equal but for the binary tail. */
export const near = (a: number, b: number): boolean =>
  Math.abs(a - b) <= EPSILON * Math.max(1, Math.abs(a), Math.abs(b));
