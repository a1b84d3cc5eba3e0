import type { Item } from '../model/holding.ts';
import type { Expr, OutcomeDeclaration, ResponseDeclaration, Rule, Scalar } from '../model/scoring.ts';
import { interactionFor } from '../model/options.ts';
import { RUN_STEPS, spend, within } from './budget.ts';
import type { Size } from './geometry.ts';
import { lookup, mapPoints, mapResponse } from './mappings.ts';
import { OPERATOR_TABLE } from './operators/table.ts';
import type { Environment, TestEnvironment } from './operators/operator.ts';
import { seeded } from './random.ts';
import { asBoolean, asNumber, float, held, integer, numericRecord, type Value } from './value.ts';
import { own } from '../model/own.ts';

/**
 * A candidate's answers: response identifier to the scalars given, in order. Absent or empty: not answered.
 */
export type Answers = Readonly<Record<string, readonly Scalar[]>>;

export interface Result {
  readonly outcomes: Readonly<Record<string, Value>>;
  /** The raw value of the score outcome; 0 where it is NULL. */
  readonly raw: number;
  /** In points: raw times the item's scale. */
  readonly score: number;
}

interface Session {
  /** Parameters of the item are filled, and random numbers drawn, from it. Default 1. */
  readonly seed?: number;
  /** Outcomes an earlier attempt left, for adaptive items. */
  readonly previous?: Readonly<Record<string, Value>>;
  readonly attempts?: number;
  /** Seconds. */
  readonly duration?: number;
}

export type Scorable = Pick<
  Item,
  | 'body'
  | 'responses'
  | 'outcomes'
  | 'scoring'
  | 'scoreOutcome'
  | 'scale'
  | 'templates'
  | 'templateRules'
  | 'adaptive'
>;

/** What template processing made of an item for one seed. */
interface Instance {
  readonly templates: ReadonlyMap<string, Value>;
  readonly correct: ReadonlyMap<string, Value>;
  readonly defaults: ReadonlyMap<string, Value>;
}

export interface Scope {
  readonly responses: readonly ResponseDeclaration[];
  readonly declarations: readonly OutcomeDeclaration[];
  readonly answers: ReadonlyMap<string, Value>;
  readonly outcomes: Map<string, Value>;
  /** Filled while template processing runs; response processing only reads them. */
  readonly templates: ReadonlyMap<string, Value>;
  readonly correct: ReadonlyMap<string, Value>;
  readonly defaults: ReadonlyMap<string, Value>;
  /** The same maps, where template processing may fill them. */
  readonly filling: {
    templates: Map<string, Value>;
    correct: Map<string, Value>;
    defaults: Map<string, Value>;
  } | null;
  /** What operators may ask, made when the first one asks. */
  environment: Environment | null;
  readonly sizeOf: (responseId: string) => Size;
  readonly random: () => number;
  readonly test: TestEnvironment | null;
  /** A variable that stands in none of the maps: "ITEM.SCORE" in a test. */
  readonly outside: (id: string, weight: string | undefined) => Value;
  /** Set when a template constraint was not met. */
  unmet: boolean;
}

/** Few declarations are the quickest looked through; of many there is an index. */
const FEW = 16;
const indexes = new WeakMap<readonly unknown[], Map<string, unknown>>();
function named<T extends { readonly id: string }>(list: readonly T[], id: string): T | undefined {
  if (list.length <= FEW) return list.find((d) => d.id === id);
  let index = indexes.get(list);
  if (!index) {
    spend(list.length >> 3);
    index = new Map([...list].reverse().map((d) => [d.id, d]));
    indexes.set(list, index);
  }
  return index.get(id) as T | undefined;
}

/** Signals exitResponse. */
const EXIT = Symbol('exit');
/**
 * A constraint that cannot be met is given up after so many draws (QTI 2.1, "templateConstraint", speaks of
 * 100).
 */
const MAX_DRAWS = 100;
const NO_SIZE: Size = { width: null, height: null };

/**
 * Runs an item's program on one set of answers. Deterministic; never throws on content. A run that takes more than
 * `RUN_STEPS` is broken off: outcomes are what they were by then.
 */
export function evaluate(item: Scorable, answers: Answers, session: Session = {}): Result {
  const outcomes = runProgram(item, answers, session);
  const raw = asNumber(outcomes.get(item.scoreOutcome) ?? null) ?? 0;
  return { outcomes: Object.fromEntries(outcomes), raw, score: raw * item.scale };
}

/** Only the raw score of an item for one set of answers; what probing asks for. */
export function rawScore(item: Scorable, answers: Answers): number {
  return asNumber(runProgram(item, answers, {}).get(item.scoreOutcome) ?? null) ?? 0;
}

function runProgram(item: Scorable, answers: Answers, session: Session): ReadonlyMap<string, Value> {
  const outcomes = new Map<string, Value>();
  within(
    RUN_STEPS,
    () => runInto(outcomes, item, answers, session),
    () => undefined,
  );
  return outcomes;
}

function runInto(outcomes: Map<string, Value>, item: Scorable, answers: Answers, session: Session): void {
  const { seed = 1, previous, attempts = 1, duration } = session;
  spend(RUNNING + ((item.outcomes.length + item.responses.length) >> 3));
  const made = instantiate(item, seed);
  for (const o of item.outcomes)
    outcomes.set(
      o.id,
      (previous ? own(previous, o.id) : undefined) ?? held(o.cardinality, o.baseType, o.defaultValue),
    );
  // Built in: QTI 2.1, "completionStatus", "numAttempts" and "duration".
  if (item.adaptive || session.attempts !== undefined) {
    if (!outcomes.has('completionStatus'))
      outcomes.set(
        'completionStatus',
        previous?.['completionStatus'] ?? held('single', 'identifier', ['unknown']),
      );
    outcomes.set('numAttempts', integer(attempts));
  }
  if (duration !== undefined) outcomes.set('duration', float(duration));
  const given = new Map<string, Value>();
  for (const r of item.responses) given.set(r.id, answerValue(r, own(answers, r.id) ?? NONE));
  // Written out, not spread: this runs for every probe.
  const scope: Scope = {
    responses: item.responses,
    declarations: item.outcomes,
    answers: given,
    outcomes,
    templates: made.templates,
    correct: made.correct,
    defaults: made.defaults,
    filling: null,
    environment: null,
    sizeOf: (id) => sizeOf(item, id),
    random: seeded(seed + 7),
    test: null,
    outside: NOTHING.outside,
    unmet: false,
  };
  runRules(item.scoring.rules, scope);
}

/** What a run costs whatever it does. */
const RUNNING = 8;
const NONE: readonly Scalar[] = [];
const NOTHING = {
  filling: null,
  templates: new Map<string, Value>(),
  correct: new Map<string, Value>(),
  defaults: new Map<string, Value>(),
  sizeOf: () => NO_SIZE,
  test: null,
  outside: () => null,
};

/** The picture a response of points refers to. */
function sizeOf(item: Pick<Item, 'body'>, responseId: string): Size {
  const interaction = interactionFor(item, responseId);
  if (!interaction) return NO_SIZE;
  if (interaction.kind === 'positionObject') return interaction.stage;
  return 'picture' in interaction ? interaction.picture : NO_SIZE;
}

const ORDINARY: Instance = { templates: new Map(), correct: new Map(), defaults: new Map() };

/** Runs template processing: the same seed gives the same item. */
export function instantiate(
  item: Pick<Scorable, 'templates' | 'templateRules' | 'responses'>,
  seed: number,
): Instance {
  if (item.templates.length === 0 && item.templateRules.length === 0) return ORDINARY;
  const random = seeded(seed);
  let scope: Scope = fillingScope(item, random);
  const draws = (): void => {
    for (let draw = 0; draw < MAX_DRAWS; draw++) {
      if (draw > 0) scope = fillingScope(item, random);
      runRules(item.templateRules, scope);
      if (!scope.unmet) return;
    }
  };
  within(RUN_STEPS, draws, () => undefined);
  return scope;
}

function fillingScope(item: Pick<Scorable, 'templates' | 'responses'>, random: () => number): Scope {
  const filling = {
    templates: new Map(item.templates.map((t) => [t.id, held(t.cardinality, t.baseType, t.defaultValue)])),
    correct: new Map<string, Value>(),
    defaults: new Map<string, Value>(),
  };
  return {
    ...NOTHING,
    ...filling,
    filling,
    responses: item.responses,
    declarations: [],
    answers: new Map(),
    outcomes: new Map(),
    random,
    unmet: false,
    environment: null,
  };
}

/** Answers that do not fit the base type (text for a number) count as not given. */
function answerValue(response: ResponseDeclaration, given: readonly Scalar[]): Value {
  if (response.cardinality === 'record')
    return given[0] === undefined ? null : numericRecord(String(given[0]));
  const numeric =
    response.baseType === 'float' || response.baseType === 'integer' || response.baseType === 'duration';
  if (given.length === 0) return null;
  const fit = given.filter((v) => (numeric ? typeof v === 'number' : v !== ''));
  const typed = response.baseType === 'boolean' ? fit.map((v) => v === true || v === 'true') : fit;
  return held(
    response.cardinality,
    response.baseType,
    response.cardinality === 'single' ? typed.slice(0, 1) : typed,
  );
}

export function runRules(rules: readonly Rule[], scope: Scope): typeof EXIT | undefined {
  for (const rule of rules) if (runRule(rule, scope) === EXIT) return EXIT;
  return undefined;
}

function runRule(rule: Rule, scope: Scope): typeof EXIT | undefined {
  spend(1);
  switch (rule.do) {
    case 'exit':
      return EXIT;
    case 'if': {
      const taken = rule.branches.find((b) => asBoolean(evaluateExpr(b.when, scope)) === true);
      return runRules(taken ? taken.then : rule.otherwise, scope);
    }
    case 'set': {
      const value = evaluateExpr(rule.value, scope);
      (scope.filling?.templates ?? scope.outcomes).set(rule.id, value);
      return undefined;
    }
    case 'lookup':
      scope.outcomes.set(
        rule.id,
        lookup(named(scope.declarations, rule.id), evaluateExpr(rule.value, scope)),
      );
      return undefined;
    case 'setCorrect':
    case 'setDefault': {
      const value = evaluateExpr(rule.value, scope);
      scope.filling?.[rule.do === 'setCorrect' ? 'correct' : 'defaults'].set(rule.id, value);
      return undefined;
    }
    case 'constraint':
      if (asBoolean(evaluateExpr(rule.value, scope)) === true) return undefined;
      scope.unmet = true;
      return EXIT;
  }
}

/** The value of one expression. */
export function evaluateExpr(expr: Expr, scope: Scope): Value {
  spend(1);
  switch (expr.op) {
    case 'baseValue':
      return { cardinality: 'single', baseType: expr.baseType, values: [expr.value] };
    case 'null':
      return null;
    case 'variable':
      return variableValue(expr.id, scope, expr.weight);
    case 'correct': {
      if (scope.correct.has(expr.id)) return scope.correct.get(expr.id)!;
      const response = named(scope.responses, expr.id);
      return response ? held(response.cardinality, response.baseType, response.correct) : null;
    }
    case 'default': {
      if (scope.defaults.has(expr.id)) return scope.defaults.get(expr.id)!;
      const outcome = named(scope.declarations, expr.id);
      if (outcome) return held(outcome.cardinality, outcome.baseType, outcome.defaultValue);
      const response = named(scope.responses, expr.id);
      return response ? held(response.cardinality, response.baseType, response.defaultValue ?? []) : null;
    }
    case 'mapResponse': {
      const response = named(scope.responses, expr.id);
      return response?.mapping
        ? mapResponse(scope.answers.get(expr.id) ?? null, response.mapping, response)
        : null;
    }
    case 'mapResponsePoint': {
      const response = named(scope.responses, expr.id);
      return response?.areaMapping
        ? mapPoints(scope.answers.get(expr.id) ?? null, response.areaMapping, scope.sizeOf(expr.id))
        : null;
    }
    case 'call': {
      const operator = OPERATOR_TABLE[expr.name];
      if (!operator) return null;
      const args = expr.args.map((a) => evaluateExpr(a, scope));
      spend(weightOf(args));
      return operator(args, expr.attrs ?? NO_ATTRIBUTES, environment(expr, scope));
    }
  }
}

/** What looking at values costs beyond the step of the expression itself. */
function weightOf(args: readonly Value[]): number {
  let steps = 0;
  for (const arg of args) {
    if (arg === null) continue;
    const { values } = arg;
    const [first] = values;
    steps += values.length >> 1;
    if (typeof first === 'string') steps += (first.length * values.length) >> 6;
  }
  return steps;
}

function variableValue(id: string, scope: Scope, weight?: string): Value {
  if (scope.answers.has(id)) return scope.answers.get(id)!;
  if (scope.templates.has(id)) return scope.templates.get(id)!;
  return scope.outcomes.has(id) ? scope.outcomes.get(id)! : scope.outside(id, weight);
}

const NO_ATTRIBUTES = {};

/** One environment serves a whole run; only an area needs the picture that its own operand points at. */
function environment(expr: Extract<Expr, { op: 'call' }>, scope: Scope): Environment {
  scope.environment ??= {
    variable: (id) => variableValue(id, scope),
    random: scope.random,
    test: scope.test,
    size: NO_SIZE,
  };
  if (expr.name !== 'inside') return scope.environment;
  const answer = expr.args.find((a) => a.op === 'variable' || a.op === 'correct');
  const pointed = answer?.op === 'variable' || answer?.op === 'correct';
  return { ...scope.environment, size: pointed ? scope.sizeOf(answer.id) : NO_SIZE };
}
