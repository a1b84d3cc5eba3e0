import { cut } from '../model/cut.ts';
import { eachExpr } from '../scoring/literals.ts';
import { patternTrouble } from '../scoring/supported.ts';
import type { Check } from './check.ts';

const LONGEST_SHOWN = 60;

/** A pattern that the scoring compares answers with and that cannot be run: what it accepts is not known. */
export const patternNotRun: Check<'pattern-not-run'> = {
  code: 'pattern-not-run',
  severity: 'warning',
  item(item) {
    const found = new Map<string, string>();
    eachExpr(item.scoring.rules, (expr) => {
      if (expr.op !== 'call' || expr.name !== 'patternMatch') return;
      const why = patternTrouble(expr);
      if (why !== null) found.set(expr.attrs?.['pattern'] ?? '', why);
    });
    return [...found].map(([pattern, why]) => ({
      pattern: cut(pattern, LONGEST_SHOWN),
      why,
    }));
  },
};
