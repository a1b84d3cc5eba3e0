import { interactionsOf } from '../model/visit.ts';
import { bestOf } from '../scoring/best.ts';
import type { Check } from './check.ts';

/** An item that a machine should mark, and no answer that scores. */
export const keyMissing: Check = {
  code: 'key-missing',
  severity: 'error',
  item: (item) => {
    const kinds = interactionsOf(item).map((i) => i.kind);
    if (kinds.length === 0 || kinds.some((k) => k === 'extendedText' || k === 'custom')) return [];
    if (item.outcomes.some((o) => o.externalScored) || item.scoring.untranslated.length > 0) return [];
    if (
      item.metadata.some(
        (f) => f.label.toLowerCase() === 'qmd_computerscored' && f.value.toLowerCase() === 'no',
      )
    )
      return [];
    return bestOf(item).raw > 0 || item.responses.some((r) => r.correct.length > 0) ? [] : [{}];
  },
};
