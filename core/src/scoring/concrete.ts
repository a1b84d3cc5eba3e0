import type { ContentNode } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { mapRule } from '../model/mapRule.ts';
import type { Expr } from '../model/scoring.ts';
import { instantiate } from './evaluate.ts';
import { filledContent } from './filled.ts';
import type { Value } from './value.ts';

/**
 * A parameterised item as one candidate gets it: template variables in what is read and in its scoring replaced by
 * the values the seed gives, right answers and starting values set by template processing in place. An ordinary
 * item is given back as it is.
 */
export function concrete(item: Item, seed = 1): Item {
  if (item.templates.length === 0 && item.templateRules.length === 0) return item;
  const made = instantiate(item, seed);
  const filling = { values: made.templates, templates: item.templates };
  const fill = (nodes: readonly ContentNode[]): ContentNode[] => filledContent(nodes, filling);
  return {
    ...item,
    body: fill(item.body),
    stimuli: item.stimuli.map((s) => ({ ...s, content: fill(s.content) })),
    feedback: item.feedback.map((f) => ({ ...f, content: fill(f.content) })),
    templates: [],
    templateRules: [],
    responses: item.responses.map((r) => {
      const [correct, start] = [made.correct.get(r.id), made.defaults.get(r.id)];
      return {
        ...r,
        ...(correct === undefined ? {} : { correct: correct?.values ?? [] }),
        ...(start === undefined ? {} : { defaultValue: start?.values ?? [] }),
      };
    }),
    scoring: {
      ...item.scoring,
      rules: item.scoring.rules.map((r) => mapRule(r, (e) => fillExpr(e, made.templates))),
    },
  };
}

function fillExpr(expr: Expr, values: ReadonlyMap<string, Value>): Expr {
  if (expr.op === 'variable' && values.has(expr.id)) return constant(values.get(expr.id)!);
  if (expr.op !== 'call') return expr;
  const attrs =
    expr.attrs &&
    Object.fromEntries(Object.entries(expr.attrs).map(([key, v]) => [key, fillAttribute(v, values)]));
  return { ...expr, args: expr.args.map((a) => fillExpr(a, values)), ...(attrs ? { attrs } : {}) };
}

/** Tolerances, figures and patterns may name a template variable. */
function fillAttribute(written: string, values: ReadonlyMap<string, Value>): string {
  return written
    .split(' ')
    .map((part) => {
      const value = values.get(part.replace(/^\{|\}$/gu, ''));
      return value ? String(value.values[0]) : part;
    })
    .join(' ');
}

function constant(value: Value): Expr {
  if (value === null) return { op: 'null' };
  const parts = value.values.map((v): Expr => ({
    op: 'baseValue',
    baseType: value.baseType ?? 'string',
    value: v,
  }));
  if (value.cardinality === 'single') return parts[0]!;
  return { op: 'call', name: value.cardinality === 'ordered' ? 'ordered' : 'multiple', args: parts };
}
