import type { Item } from '../model/holding.ts';
import type { Expr, Rule } from '../model/scoring.ts';
import { recognise, type Recognised } from '../scoring/recognise.ts';
import type { ScoringShape } from '../scoring/shapes.ts';
import { interactionFor } from '../model/visit.ts';
import { choiceIds, pairEnds } from '../scoring/probe.ts';
import type { Condition12, Test12 } from '../model/conditions12.ts';
import { own } from '../model/own.ts';

type Part = Exclude<ScoringShape, { kind: 'sum-of-parts' }>;

/** What QTI 1.2 can say of an item's scoring: its conditions, and what of the rule is lost. */
export interface Said {
  readonly conditions: readonly Condition12[];
  /** Bounds that are applied once at the end, in the units of the conditions; null: none. */
  readonly lower: number | null;
  readonly upper: number | null;
  /** Why it is not the same any more; null where it is. */
  readonly lost: string | null;
}

const equal = (
  response: string,
  value: string,
  extra: Partial<Extract<Test12, { test: 'equal' }>> = {},
): Test12 => ({ test: 'equal', response, value, ...extra });
const and = (parts: readonly Test12[]): Test12 => (parts.length === 1 ? parts[0]! : { test: 'and', parts });

/**
 * Says an item's scoring in QTI 1.2's conditions, in the units asked for (`factor` times the raw score): as
 * it stands where its rules are of the kind that QTI 1.2 has, else by its shape.
 */
export function sayScoring(item: Item, factor: number): Said {
  const recognised = recognise(item);
  const direct = sayRules(item, factor);
  if (direct) return { ...direct, lost: null };
  const unit = factor / item.scale;
  const { shape } = recognised;
  if (shape.kind === 'manual' || shape.kind === 'none')
    return { conditions: [], lower: null, upper: null, lost: null };
  if (shape.kind === 'sum-of-parts') {
    const said = shape.parts.map((p) => sayPart(item, p.responseId, p.shape as Part, recognised, unit, true));
    const lost = said.find((s) => s.lost !== null)?.lost ?? null;
    const bounded = said.some((s) => s.lower !== null || s.upper !== null);
    return {
      conditions: said.flatMap((s) => s.conditions),
      lower: null,
      upper: null,
      lost: lost ?? (bounded ? 'the bounds of its parts' : null),
    };
  }
  const scored = item.responses.filter((r) => (own(recognised.key, r.id) ?? []).length > 0);
  if (scored.length > 1 && shape.kind === 'all-or-nothing') {
    const tests = scored.map((r) => fullMark(item, r.id, recognised));
    const lost = tests.includes(null) ? 'an answer that it cannot name' : null;
    return {
      conditions: [
        {
          when: and(tests.filter((t) => t !== null)),
          score: shape.points * unit,
          action: 'Set',
          goesOn: false,
          feedback: [],
        },
      ],
      lower: null,
      upper: null,
      lost,
    };
  }
  return sayPart(item, scored[0]?.id ?? '', shape, recognised, unit, false);
}

function sayPart(
  item: Item,
  responseId: string,
  shape: Part,
  recognised: Recognised,
  unit: number,
  adds: boolean,
): Said {
  const said = (conditions: readonly Condition12[], lost: string | null = null): Said => ({
    conditions,
    lower: null,
    upper: null,
    lost,
  });
  const give = (when: Test12, points: number): Condition12 => ({
    when,
    score: Math.abs(points * unit),
    action: adds ? (points < 0 ? 'Subtract' : 'Add') : 'Set',
    goesOn: adds,
    feedback: [],
  });
  switch (shape.kind) {
    case 'all-or-nothing': {
      const when = fullMark(item, responseId, recognised);
      return when ? said([give(when, shape.points)]) : said([], 'an answer that it cannot name');
    }
    case 'per-choice': {
      if (shape.unit === 'area') return areaConditions(item, responseId, shape, unit);
      const each = [...Object.entries(shape.values), ...otherPairs(item, responseId, shape)]
        .filter(([, v]) => v !== 0)
        .map(([value, v]): Condition12 => ({
          when: equal(responseId, value),
          score: Math.abs(v * unit),
          action: v < 0 ? 'Subtract' : 'Add',
          goesOn: true,
          feedback: [],
        }));
      return {
        conditions: each,
        lower: shape.lower === null ? null : shape.lower * unit,
        upper: shape.upper === null ? null : shape.upper * unit,
        lost: null,
      };
    }
    case 'accepted-answers':
      return said(
        [...shape.answers]
          .sort((a, b) => Number(b.caseSensitive) - Number(a.caseSensitive))
          .map((a) => give(equal(responseId, a.text, { caseSensitive: a.caseSensitive }), a.points)),
      );
    case 'numeric': {
      const exact = equal(responseId, String(shape.value));
      const t = shape.tolerance;
      if (!t) return said([give(exact, shape.points)]);
      const range: Test12 = {
        test: 'and',
        parts: [
          { test: t.includesLow ? 'gte' : 'gt', response: responseId, value: String(t.low) },
          { test: t.includesHigh ? 'lte' : 'lt', response: responseId, value: String(t.high) },
        ],
      };
      return said([give(shape.stated ? { test: 'or', parts: [exact, range] } : range, shape.points)]);
    }
    case 'pattern':
      if (shape.patterns.length > 0) return said([], 'a pattern');
      return said(
        shape.substrings.map((s) =>
          give({ test: 'substring', response: responseId, value: s }, shape.points),
        ),
        shape.substrings.length > 1 ? 'several parts of a text at once' : null,
      );
    case 'manual':
    case 'none':
      return said([]);
    case 'program':
      return fallback(item, responseId, recognised, unit, give);
  }
}

/** A rule that no shape holds for: the full mark for the key, and nothing else, is what is left of it. */
function fallback(
  item: Item,
  responseId: string,
  recognised: Recognised,
  unit: number,
  give: (when: Test12, points: number) => Condition12,
): Said {
  const when = responseId === '' ? null : fullMark(item, responseId, recognised);
  return {
    conditions: when ? [give(when, recognised.best.raw * item.scale)] : [],
    lower: null,
    upper: null,
    lost: 'partial credit and conditions of its own; the key alone scores',
  };
}

/** A condition that holds for full marks of one response, and for nothing else. */
function fullMark(item: Item, id: string, recognised: Recognised): Test12 | null {
  const response = item.responses.find((r) => r.id === id);
  const best = (own(recognised.best.answers, id) ?? own(recognised.key, id) ?? []).map(String);
  if (!response || best.length === 0) return null;
  if (response.baseType === 'point') {
    const areas = (response.areaMapping?.entries ?? []).filter((e) => e.value > 0);
    const tests = areas.map((a): Test12 => ({
      test: 'inside',
      response: id,
      shape: a.shape,
      coords: a.coords,
    }));
    return tests.length === 0
      ? equal(id, best[0]!)
      : tests.length === 1
        ? tests[0]!
        : { test: 'or', parts: tests };
  }
  if (response.cardinality === 'ordered')
    return and(best.map((value, at) => equal(id, value, { index: at + 1 })));
  if (response.cardinality === 'single') {
    const key = (own(recognised.key, id) ?? []).map(String);
    const tests = (key.length > 0 ? key : best).map((v) => equal(id, v));
    return tests.length === 1 ? tests[0]! : { test: 'or', parts: tests };
  }
  const others = choiceIds(item, id).filter((c) => !best.includes(c));
  return and([
    ...best.map((v) => equal(id, v)),
    ...others.map((v): Test12 => ({ test: 'not', part: equal(id, v) })),
  ]);
}

/** Pairs outside the key, where they too are worth something: each is named. */
function otherPairs(
  item: Item,
  id: string,
  shape: Extract<ScoringShape, { kind: 'per-choice' }>,
): [string, number][] {
  const ends = shape.unit === 'pair' && shape.otherwise !== 0 ? pairEnds(interactionFor(item, id)) : null;
  return (ends?.left ?? []).flatMap((a) =>
    (ends?.right ?? [])
      .map((b) => `${a} ${b}`)
      .filter((pair) => !Object.hasOwn(shape.values, pair))
      .map((pair): [string, number] => [pair, shape.otherwise]),
  );
}

function areaConditions(
  item: Item,
  id: string,
  shape: Extract<ScoringShape, { kind: 'per-choice' }>,
  unit: number,
): Said {
  const areas = item.responses.find((r) => r.id === id)?.areaMapping?.entries ?? [];
  return {
    conditions: areas.map((a) => ({
      when: { test: 'inside', response: id, shape: a.shape, coords: a.coords },
      score: Math.abs((shape.values[`${a.shape} ${a.coords}`] ?? 0) * unit),
      action: 'Add',
      goesOn: true,
      feedback: [],
    })),
    lower: shape.lower === null ? null : shape.lower * unit,
    upper: shape.upper === null ? null : shape.upper * unit,
    lost: shape.otherwise === 0 ? null : 'what points outside every area give',
  };
}

/** The rules as they stand, where QTI 1.2 has each of them; null where it has not. */
function sayRules(item: Item, factor: number): Omit<Said, 'lost'> | null {
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
