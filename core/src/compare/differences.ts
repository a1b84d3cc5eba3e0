import equal from 'fast-deep-equal';
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

/** Collects what differs, facet by facet. */
export class Differences {
  readonly list: Difference[] = [];

  add<F extends Facet>(facet: F, from: SaidOf[F], to: SaidOf[F]): void {
    if (!equal(from, to)) this.list.push(difference(facet, from, to));
  }
}
