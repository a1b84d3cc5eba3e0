import { MARKED_BY_HAND } from '../scoring/recognise.ts';
import { concrete } from '../scoring/concrete.ts';
import { interactionsOf } from '../model/visit.ts';
import { bestOf } from '../scoring/best.ts';
import type { Check } from './check.ts';

/** Kinds that a person marks, or that nobody does. */
const UNMARKED: ReadonlySet<string> = new Set([...MARKED_BY_HAND, 'media', 'endAttempt']);

/** An item that a machine should mark, and no answer that scores. */
export const keyMissing: Check<'key-missing'> = {
  code: 'key-missing',
  severity: 'error',
  item: (item) => {
    const kinds = interactionsOf(item).map((i) => i.kind);
    if (kinds.length === 0 || kinds.every((k) => UNMARKED.has(k)) || kinds.includes('custom')) return [];
    if (item.outcomes.some((o) => o.externalScored) || item.scoring.untranslated.length > 0) return [];
    if (
      item.metadata.some(
        (f) => f.label.toLowerCase() === 'qmd_computerscored' && f.value.toLowerCase() === 'no',
      )
    )
      return [];
    return bestOf(concrete(item)).raw > 0 || item.responses.some((r) => r.correct.length > 0) ? [] : [{}];
  },
};
