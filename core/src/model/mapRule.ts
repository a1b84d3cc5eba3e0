import type { Expr, Rule } from './scoring.ts';

/** A rule that does one thing with one value. */
export type Step = Exclude<Rule, { readonly do: 'if' } | { readonly do: 'exit' }>;

/**
 * A rule with every expression in it replaced, branches and all.
 * @param step what becomes of a rule that does one thing, where more than its value changes
 */
export function mapRule(
  rule: Rule,
  expr: (expr: Expr) => Expr,
  step: (rule: Step) => Rule = (r) => ({ ...r, value: expr(r.value) }),
): Rule {
  if (rule.do === 'exit') return rule;
  if (rule.do !== 'if') return step(rule);
  const all = (rules: readonly Rule[]): readonly Rule[] => rules.map((r) => mapRule(r, expr, step));
  return {
    do: 'if',
    branches: rule.branches.map((b) => ({ when: expr(b.when), then: all(b.then) })),
    otherwise: all(rule.otherwise),
  };
}
