import type { Item } from '../model/holding.ts';
import type {
  Expr,
  Mapping,
  OutcomeDeclaration,
  ResponseDeclaration,
  Rule,
  Scalar,
} from '../model/scoring.ts';
import { OPERATOR_TABLE } from './operators/table.ts';
import { asBoolean, asNumber, float, held, scalarKey, type Value } from './value.ts';

/** A candidate's answers: response identifier to the scalars given, in order. Absent or empty: not answered. */
export type Answers = Readonly<Record<string, readonly Scalar[]>>;

export interface Result {
  readonly outcomes: Readonly<Record<string, Value>>;
  /** The raw value of the score outcome; 0 where it is NULL. */
  readonly raw: number;
  /** In points: raw times the item's scale. */
  readonly score: number;
}

type Scorable = Pick<Item, 'responses' | 'outcomes' | 'scoring' | 'scoreOutcome' | 'scale'>;

interface Scope {
  readonly responses: readonly ResponseDeclaration[];
  readonly declarations: readonly OutcomeDeclaration[];
  readonly answers: ReadonlyMap<string, Value>;
  readonly outcomes: Map<string, Value>;
}

/** An item declares a handful at most, so looking through them is the quickest. */
const named = <T extends { readonly id: string }>(list: readonly T[], id: string): T | undefined =>
  list.find((d) => d.id === id);

/** Signals exitResponse. */
const EXIT = Symbol('exit');

/** Runs an item's program on one set of answers. Deterministic; never throws on content. */
export function evaluate(item: Scorable, answers: Answers): Result {
  const outcomes = runProgram(item, answers);
  const raw = asNumber(outcomes.get(item.scoreOutcome) ?? null) ?? 0;
  return { outcomes: Object.fromEntries(outcomes), raw, score: raw * item.scale };
}

/** Only the raw score of an item for one set of answers; what probing asks for. */
export function rawScore(item: Scorable, answers: Answers): number {
  return asNumber(runProgram(item, answers).get(item.scoreOutcome) ?? null) ?? 0;
}

function runProgram(item: Scorable, answers: Answers): ReadonlyMap<string, Value> {
  const scope: Scope = {
    responses: item.responses,
    declarations: item.outcomes,
    answers: new Map(item.responses.map((r) => [r.id, answerValue(r, answers[r.id] ?? [])])),
    outcomes: new Map(item.outcomes.map((o) => [o.id, held(o.cardinality, o.baseType, o.defaultValue)])),
  };
  runRules(item.scoring.rules, scope);
  return scope.outcomes;
}

/** Answers that do not fit the base type (text for a number) count as not given. */
function answerValue(response: ResponseDeclaration, given: readonly Scalar[]): Value {
  const numeric = response.baseType === 'float' || response.baseType === 'integer';
  const fit = given.filter((v) => (numeric ? typeof v === 'number' : v !== ''));
  return held(
    response.cardinality,
    response.baseType,
    response.cardinality === 'single' ? fit.slice(0, 1) : fit,
  );
}

function runRules(rules: readonly Rule[], scope: Scope): typeof EXIT | undefined {
  for (const rule of rules) if (runRule(rule, scope) === EXIT) return EXIT;
  return undefined;
}

function runRule(rule: Rule, scope: Scope): typeof EXIT | undefined {
  switch (rule.do) {
    case 'exit':
      return EXIT;
    case 'if': {
      const taken = rule.branches.find((b) => asBoolean(evaluateExpr(b.when, scope)) === true);
      return runRules(taken ? taken.then : rule.otherwise, scope);
    }
    case 'set': {
      const value = evaluateExpr(rule.value, scope);
      scope.outcomes.set(rule.id, value);
      return undefined;
    }
    case 'lookup':
      scope.outcomes.set(
        rule.id,
        lookup(named(scope.declarations, rule.id), evaluateExpr(rule.value, scope)),
      );
      return undefined;
  }
}

function evaluateExpr(expr: Expr, scope: Scope): Value {
  switch (expr.op) {
    case 'baseValue':
      return { cardinality: 'single', baseType: expr.baseType, values: [expr.value] };
    case 'null':
      return null;
    case 'variable':
      return scope.answers.has(expr.id) ? scope.answers.get(expr.id)! : (scope.outcomes.get(expr.id) ?? null);
    case 'correct': {
      const response = named(scope.responses, expr.id);
      return response ? held(response.cardinality, response.baseType, response.correct) : null;
    }
    case 'default': {
      const outcome = named(scope.declarations, expr.id);
      return outcome ? held(outcome.cardinality, outcome.baseType, outcome.defaultValue) : null;
    }
    case 'mapResponse': {
      const response = named(scope.responses, expr.id);
      return response?.mapping
        ? mapResponse(scope.answers.get(expr.id) ?? null, response.mapping, response)
        : null;
    }
    case 'mapResponsePoint':
      return null;
    case 'call': {
      const operator = OPERATOR_TABLE[expr.name];
      return operator
        ? operator(
            expr.args.map((a) => evaluateExpr(a, scope)),
            expr.attrs ?? {},
          )
        : null;
    }
  }
}

/** The sum over the distinct values given, then the bounds (QTI 2.1, "mapResponse"). NULL maps to 0. */
function mapResponse(answer: Value, mapping: Mapping, response: ResponseDeclaration): Value {
  const distinct = new Map((answer?.values ?? []).map((v) => [scalarKey(v, response.baseType), v]));
  let total = 0;
  for (const [key, given] of distinct) {
    const entry = mapping.entries.find((e) => {
      const wanted = scalarKey(e.key, response.baseType);
      return (
        wanted === key ||
        (!e.caseSensitive && typeof given === 'string' && wanted.toLowerCase() === key.toLowerCase())
      );
    });
    total += entry ? entry.value : mapping.defaultValue;
  }
  if (mapping.lowerBound !== null) total = Math.max(mapping.lowerBound, total);
  if (mapping.upperBound !== null) total = Math.min(mapping.upperBound, total);
  return float(total);
}

function lookup(outcome: OutcomeDeclaration | undefined, value: Value): Value {
  const table = outcome?.lookup;
  const n = asNumber(value);
  if (!outcome || !table) return null;
  const entry =
    n === null
      ? undefined
      : table.kind === 'match'
        ? table.entries.find((e) => e.source === n)
        : table.entries.find((e) => (e.includeBoundary ? n >= e.source : n > e.source));
  const target = entry ? entry.target : table.defaultValue;
  return target === null ? null : held(outcome.cardinality, outcome.baseType, [target]);
}

/** Operators a program uses that this evaluator does not run; its scores cannot be trusted where there are any. */
export function unsupported(rules: readonly Rule[]): string[] {
  const found = new Set<string>();
  const visitExpr = (expr: Expr): void => {
    if (expr.op === 'mapResponsePoint') found.add(expr.op);
    if (expr.op !== 'call') return;
    if (!OPERATOR_TABLE[expr.name]) found.add(expr.name);
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
