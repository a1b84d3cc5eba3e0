import { typeErrors } from '../scoring/types.ts';
import type { Check } from './check.ts';

/** Scoring that compares or adds what cannot be compared or added: it runs, and gives nothing. */
export const scoringType: Check<'scoring-type'> = {
  code: 'scoring-type',
  severity: 'warning',
  item: (item) => (item.standard === 'qti1.2' ? [] : typeErrors(item).map((what) => ({ what }))),
};
