import { own } from '../model/own.ts';
import { responseIdsOf } from '../model/options.ts';
import { interactionsOf } from '../model/visit.ts';
import { recognise } from '../scoring/recognise.ts';
import type { Check } from './check.ts';

/** Kinds that are blanks within a text. */
const BLANKS: ReadonlySet<string> = new Set(['textEntry', 'inlineChoice']);

/** One of several blanks in which nothing is accepted, while others score: somebody forgot it. */
export const blankUnanswered: Check<'blank-unanswered'> = {
  code: 'blank-unanswered',
  severity: 'warning',
  item: (item) => {
    const blanks = interactionsOf(item).filter((i) => BLANKS.has(i.kind));
    if (blanks.length < 2 || item.scoring.untranslated.length > 0) return [];
    const { key, shape } = recognise(item);
    if (shape.kind === 'none' || shape.kind === 'manual') return [];
    return blanks.flatMap((blank, at) => {
      const [response] = responseIdsOf(blank);
      const declared = item.responses.find((r) => r.id === response);
      // A blank of the same response as another is that one again.
      const first = blanks.findIndex((b) => responseIdsOf(b)[0] === response) === at;
      if (response === undefined || !declared || !first || declared.correct.length > 0) return [];
      return (own(key, response) ?? []).length > 0 ? [] : [{ blank: at + 1, response }];
    });
  },
};
