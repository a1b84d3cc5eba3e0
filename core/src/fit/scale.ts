import { call, number, set, variable } from '../model/make.ts';
import type { Expr, Program, Rule } from '../model/scoring.ts';

/**
 * A program that gives `factor` times the score. Constants are scaled where the rules only set or add them,
 * so that the result stays readable; otherwise the score is multiplied once at the end.
 */
export function scaleProgram(program: Program, score: string, factor: number): Program {
  if (factor === 1) return program;
  const scaled = scaleRules(program.rules, score, factor);
  if (scaled) return { rules: scaled, untranslated: program.untranslated };
  const last = set(score, call('product', [variable(score), number(factor)]));
  return { rules: [...program.rules, last], untranslated: program.untranslated };
}

function scaleRules(rules: readonly Rule[], score: string, factor: number): Rule[] | null {
  const out: Rule[] = [];
  for (const rule of rules) {
    if (rule.do === 'exit' || rule.do === 'constraint') out.push(rule);
    else if (rule.do === 'if') {
      const branches = rule.branches.map((b) => ({
        when: b.when,
        then: scaleRules(b.then, score, factor),
        reads: reads(b.when, score),
      }));
      const otherwise = scaleRules(rule.otherwise, score, factor);
      if (!otherwise || branches.some((b) => !b.then || b.reads)) return null;
      out.push({ do: 'if', branches: branches.map(({ when, then }) => ({ when, then: then! })), otherwise });
    } else if (rule.id !== score) {
      if (reads(rule.value, score)) return null;
      out.push(rule);
    } else {
      const value = rule.do === 'set' ? scaleExpr(rule.value, score, factor) : null;
      if (!value) return null;
      out.push({ ...rule, value });
    }
  }
  return out;
}

/** Only what is linear in the score and in constants. */
function scaleExpr(expr: Expr, score: string, factor: number): Expr | null {
  if (expr.op === 'baseValue' && typeof expr.value === 'number') return number(exact(expr.value * factor));
  if (expr.op === 'variable') return expr.id === score ? expr : null;
  if (expr.op === 'mapResponse') return call('product', [expr, number(factor)]);
  if (expr.op !== 'call' || !['sum', 'subtract', 'max', 'min'].includes(expr.name)) return null;
  const args = expr.args.map((a) => scaleExpr(a, score, factor));
  return args.some((a) => a === null) ? null : call(expr.name, args as Expr[]);
}

const reads = (expr: Expr, id: string): boolean =>
  (expr.op === 'variable' && expr.id === id) || (expr.op === 'call' && expr.args.some((a) => reads(a, id)));

export const exact = (n: number): number => Number(n.toPrecision(12));
