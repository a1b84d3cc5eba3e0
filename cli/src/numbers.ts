import { finding, Refusal } from '@alforja/core';

/** A whole number from 1 that an option gives. @throws Refusal when it is none */
export function wholeNumber(option: string, given: string, most: number): number {
  const n = /^\d+$/u.test(given) ? Number(given) : NaN;
  if (n >= 1 && n <= most) return n;
  throw new Refusal(
    finding(
      'usage',
      'error',
      {},
      { detail: `${option} is a whole number from 1 to ${most}, not “${given}”` },
    ),
  );
}
