import type { Expr, Rule } from '../model/scoring.ts';
import { NAMED_PATTERN } from './operators/comparison.ts';
import { OPERATOR_TABLE } from './operators/table.ts';
import { compilePattern } from './pattern.ts';

/** What of a program the evaluator does not run. */

/** Why a pattern of a program cannot be run; null where it can, and where a template variable holds it. */
export function patternTrouble(expr: Extract<Expr, { op: 'call' }>): string | null {
  const written = expr.attrs?.['pattern'] ?? '';
  if (NAMED_PATTERN.test(written)) return null;
  const compiled = compilePattern(written);
  return compiled.ok ? null : compiled.why;
}

/**
 * Operators a program uses that this evaluator does not run; its scores cannot be trusted where there are
 * any.
 */
export function unsupported(rules: readonly Rule[]): string[] {
  const found = new Set<string>();
  const visitExpr = (expr: Expr): void => {
    if (expr.op !== 'call') return;
    if (!OPERATOR_TABLE[expr.name] || (expr.name === 'patternMatch' && patternTrouble(expr) !== null))
      found.add(expr.name);
    expr.args.forEach(visitExpr);
  };
  const visit = (list: readonly Rule[]): void => {
    for (const rule of list) {
      if (rule.do === 'if') {
        for (const branch of rule.branches) {
          visitExpr(branch.when);
          visit(branch.then);
        }
        visit(rule.otherwise);
      } else if (rule.do !== 'exit') visitExpr(rule.value);
    }
  };
  visit(rules);
  return [...found];
}
