import type { Condition12, Test12 } from '../model/conditions12.ts';
import type { Item } from '../model/holding.ts';
import type { Expr, Rule } from '../model/scoring.ts';
import { equal, type Said } from './said12.ts';

/** The rules as they stand, where QTI 1.2 has each of them; null where it has not. */
export function sayRules(item: Item, factor: number): Omit<Said, 'lost'> | null {
  if (item.scoring.template || item.templates.length > 0 || item.scoring.untranslated.length > 0) return null;
  const score = item.scoreOutcome;
  const rules = [...item.scoring.rules];
  let lower: number | null = null;
  let upper: number | null = null;
  const last = rules.at(-1);
  const bounds = last?.do === 'set' && last.id === score ? boundsOf(last.value, score) : null;
  if (bounds) {
    rules.pop();
    lower = bounds.lower === null ? null : bounds.lower * factor;
    upper = bounds.upper === null ? null : bounds.upper * factor;
  }
  const conditions: Condition12[] = [];
  if (!chain(rules, item, factor, conditions)) return null;
  if (bounds || conditions.length === 0) return conditions.length === 0 ? null : { conditions, lower, upper };
  return { conditions, lower, upper };
}

/** "Within these" as the reader of QTI 1.2 writes it: max with the least, min with the most. */
function boundsOf(expr: Expr, score: string): { lower: number | null; upper: number | null } | null {
  let lower: number | null = null;
  let upper: number | null = null;
  let at = expr;
  while (at.op === 'call' && (at.name === 'max' || at.name === 'min') && at.args.length === 2) {
    const limit = at.args[1]!;
    if (limit.op !== 'baseValue' || typeof limit.value !== 'number') return null;
    if (at.name === 'max') lower = limit.value;
    else upper = limit.value;
    at = at.args[0]!;
  }
  return at.op === 'variable' && at.id === score && (lower !== null || upper !== null)
    ? { lower, upper }
    : null;
}

/** Conditions that go on, then one chain that stops, whose else is the next; anything else cannot be said. */
function chain(rules: readonly Rule[], item: Item, factor: number, out: Condition12[]): boolean {
  for (const [at, rule] of rules.entries()) {
    if (rule.do === 'set') {
      const actions = sayActions([rule], item, factor);
      if (!actions) return false;
      out.push({ when: { test: 'other' }, goesOn: true, ...actions });
      continue;
    }
    if (rule.do !== 'if') return false;
    const alone = rule.branches.length === 1 && rule.otherwise.length === 0;
    const isLast = at === rules.length - 1;
    if (!alone && !isLast) return false;
    for (const branch of rule.branches) {
      const when = sayTest(branch.when, item, false);
      const actions = sayActions(branch.then, item, factor);
      if (!when || !actions) return false;
      out.push({ when, goesOn: alone && !isLast, ...actions });
    }
    if (!chain(rule.otherwise, item, factor, out)) return false;
  }
  return true;
}

type Actions = Pick<Condition12, 'score' | 'action' | 'feedback'>;

/** At most one change of the score, and feedback to show. */
function sayActions(rules: readonly Rule[], item: Item, factor: number): Actions | null {
  let found: Pick<Actions, 'score' | 'action'> = { score: null, action: 'Set' };
  const feedback: string[] = [];
  for (const rule of rules) {
    if (rule.do !== 'set') return null;
    if (rule.id === item.scoreOutcome) {
      const change = sayChange(rule.value, item.scoreOutcome);
      if (!change || found.score !== null) return null;
      const times = change.action === 'Multiply' || change.action === 'Divide' ? 1 : factor;
      found = { score: change.score * times, action: change.action };
    } else {
      const id = shownFeedback(rule.value, rule.id);
      if (id === null) return null;
      feedback.push(id);
    }
  }
  return { ...found, feedback };
}

const CHANGES: Readonly<Record<string, Condition12['action']>> = {
  sum: 'Add',
  subtract: 'Subtract',
  product: 'Multiply',
  divide: 'Divide',
};

function sayChange(expr: Expr, score: string): { score: number; action: Condition12['action'] } | null {
  if (expr.op === 'baseValue' && typeof expr.value === 'number') return { score: expr.value, action: 'Set' };
  if (expr.op !== 'call' || expr.args.length !== 2) return null;
  const [now, amount] = expr.args;
  const action = Object.hasOwn(CHANGES, expr.name) ? CHANGES[expr.name] : undefined;
  if (!action || now?.op !== 'variable' || now.id !== score) return null;
  return amount?.op === 'baseValue' && typeof amount.value === 'number'
    ? { score: amount.value, action }
    : null;
}

/** The identifier that a rule adds to an outcome, or sets it to. */
function shownFeedback(expr: Expr, outcome: string): string | null {
  if (expr.op === 'baseValue' && expr.baseType === 'identifier') return String(expr.value);
  if (expr.op !== 'call' || expr.name !== 'multiple') return null;
  const [now, id] = expr.args;
  return now?.op === 'variable' && now.id === outcome && id?.op === 'baseValue' ? String(id.value) : null;
}

const ORDERS: Readonly<Record<string, 'gt' | 'gte' | 'lt' | 'lte'>> = {
  gt: 'gt',
  gte: 'gte',
  lt: 'lt',
  lte: 'lte',
};

function sayTest(expr: Expr, item: Item, negated: boolean): Test12 | null {
  if (expr.op === 'baseValue' && expr.value === true) return { test: 'other' };
  if (expr.op !== 'call') return null;
  const inner = (e: Expr, n = negated): Test12 | null => sayTest(e, item, n);
  switch (expr.name) {
    case 'and':
    case 'or': {
      const guard = negated && expr.name === 'and' ? guarded(expr) : null;
      if (guard) return inner(guard);
      const parts = expr.args.map((a) => inner(a));
      return parts.includes(null) ? null : { test: expr.name, parts: parts as Test12[] };
    }
    case 'not': {
      const part = expr.args[0] ? inner(expr.args[0], !negated) : null;
      return part && { test: 'not', part };
    }
    default:
      return sayComparison(expr, item);
  }
}

/** "Answered, and …": what the reader puts around a comparison under "not"; QTI 1.2 means it anyway. */
function guarded(expr: Extract<Expr, { op: 'call' }>): Expr | null {
  const [answered, comparison] = expr.args;
  const isGuard =
    expr.args.length === 2 &&
    answered?.op === 'call' &&
    answered.name === 'not' &&
    answered.args[0]?.op === 'call' &&
    answered.args[0].name === 'isNull';
  return isGuard ? comparison! : null;
}

function sayComparison(expr: Extract<Expr, { op: 'call' }>, item: Item): Test12 | null {
  const answer = expr.args.find((a) => a.op === 'variable');
  const other = expr.args.find((a) => a !== answer);
  const indexed = expr.args.find((a) => a.op === 'call' && a.name === 'index');
  if (indexed?.op === 'call' && indexed.args[0]?.op === 'variable' && expr.name === 'match') {
    const value = expr.args.find((a) => a !== indexed);
    return value?.op === 'baseValue'
      ? equal(indexed.args[0].id, String(value.value), { index: Number(indexed.attrs?.['n'] ?? 1) })
      : null;
  }
  if (answer?.op !== 'variable' || !item.responses.some((r) => r.id === answer.id)) return null;
  const id = answer.id;
  if (expr.name === 'isNull') return { test: 'unanswered', response: id };
  if (expr.name === 'inside')
    return {
      test: 'inside',
      response: id,
      shape: (expr.attrs?.['shape'] ?? 'rect') as 'rect',
      coords: expr.attrs?.['coords'] ?? '',
    };
  if (other?.op !== 'baseValue') return null;
  const value = String(other.value);
  const order = Object.hasOwn(ORDERS, expr.name) ? ORDERS[expr.name] : undefined;
  if (order) return expr.args[0] === answer ? { test: order, response: id, value } : null;
  switch (expr.name) {
    case 'match':
    case 'member':
      return equal(id, value);
    case 'equal':
      return expr.attrs?.['toleranceMode'] === 'exact' ? equal(id, value) : null;
    case 'stringMatch':
      return expr.attrs?.['substring'] === 'true'
        ? null
        : equal(id, value, { caseSensitive: expr.attrs?.['caseSensitive'] !== 'false' });
    case 'substring':
      return {
        test: 'substring',
        response: id,
        value,
        caseSensitive: expr.attrs?.['caseSensitive'] !== 'false',
      };
    default:
      return null;
  }
}
