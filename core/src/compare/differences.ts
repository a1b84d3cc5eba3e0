import equal from 'fast-deep-equal';
import { composedAll } from '../model/composed.ts';
import type { Facet, SaidOf } from './said.ts';
import type { Difference, Example } from './types.ts';

/** One difference of a facet, whatever the facet. */
export function difference<F extends Facet>(
  facet: F,
  from: SaidOf[F],
  to: SaidOf[F],
  example: Example | null = null,
): Difference {
  // A mapped type over all facets: that facet, from and to belong together is what the parameters say.
  return { facet, from, to, example } as unknown as Difference;
}

/** Whether two values are the same once every letter in them is composed. */
export const sayTheSame = (from: unknown, to: unknown): boolean =>
  equal(from, to) || equal(composedAll(from), composedAll(to));

/** Collects what differs, facet by facet. */
export class Differences {
  readonly list: Difference[] = [];

  add<F extends Facet>(facet: F, from: SaidOf[F], to: SaidOf[F]): void {
    if (!sayTheSame(from, to)) this.list.push(difference(facet, from, to));
  }
}
