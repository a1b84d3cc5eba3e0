import { NO_ATTRIBUTES } from '../model/lists.ts';
import type { Expr, Operator, OutcomeDeclaration, ResponseDeclaration, Rule } from '../model/scoring.ts';
import { spend } from './budget.ts';
import type { Size } from './geometry.ts';
import { lookup, mapPoints, mapResponse } from './mappings.ts';
import { prepared, type Prepared } from './operators/table.ts';
import { NO_SIZE, NOWHERE, type Run } from './run.ts';
import { asBoolean, held, type Held, type Value } from './value.ts';

/**
 * Programs as functions: each expression and each rule becomes one, once, with what it says looked up and its
 * attributes read. Running is calling them. A rule uses up the steps of its expressions at once: they have no effect
 * before it has.
 */

/** What an expression comes to. */
export type Step = (run: Run) => Value;
/** A rule; true where processing ends with it. */
export type Act = (run: Run) => boolean;

interface Compiled {
  readonly step: Step;
  /** Steps of it and of all in it that are the same in every run. */
  readonly cost: number;
  /** Where it is the same in every run: that. */
  readonly constant?: Value;
  /** Whether looking at what it comes to takes no steps in a run: one number or truth at most, or constant. */
  readonly light: boolean;
}

/** Where a program finds its variables, and puts what it sets. */
export interface Names {
  /** @param weight in outcome processing: the weight of the item reference that a variable is multiplied by */
  read(id: string, weight?: string): Step;
  write(id: string): (run: Run, value: Value) => void;
  /** The same for what a table of outcomes gives. */
  writeOutcome(id: string): (run: Run, value: Value) => void;
  response(id: string): ResponseDeclaration | undefined;
  outcome(id: string): OutcomeDeclaration | undefined;
  /** The picture a response of points refers to. */
  sizeOf(responseId: string): Size;
  /** Where there may be parameters: what template processing made is asked first. */
  readonly parameters: boolean;
  /** Template processing sets right answers and starting values; elsewhere nothing comes of it. */
  set(what: 'correct' | 'defaults', id: string, value: Value): void;
}

/** Rules one after the other. */
export function compileRules(rules: readonly Rule[], names: Names): Act {
  const acts = rules.map((r) => compileRule(r, names));
  const [first] = acts;
  if (acts.length === 1) return first!;
  return (run) => {
    for (let at = 0; at < acts.length; at++) if (acts[at]!(run)) return true;
    return false;
  };
}

function compileRule(rule: Rule, names: Names): Act {
  if (rule.do === 'exit')
    return () => {
      spend(1);
      return true;
    };
  if (rule.do === 'if') return compileIf(rule, names);
  const { step, cost } = compiled(rule.value, names);
  const steps = 1 + cost;
  switch (rule.do) {
    case 'set': {
      const write = names.write(rule.id);
      return (run) => {
        spend(steps);
        write(run, step(run));
        return false;
      };
    }
    case 'lookup': {
      const write = names.writeOutcome(rule.id);
      const table = names.outcome(rule.id);
      return (run) => {
        spend(steps);
        write(run, lookup(table, step(run)));
        return false;
      };
    }
    case 'setCorrect':
    case 'setDefault': {
      const what = rule.do === 'setCorrect' ? 'correct' : 'defaults';
      return (run) => {
        spend(steps);
        names.set(what, rule.id, step(run));
        return false;
      };
    }
    case 'constraint':
      return (run) => {
        spend(steps);
        if (asBoolean(step(run)) === true) return false;
        run.unmet = true;
        return true;
      };
  }
}

function compileIf({ branches, otherwise }: Extract<Rule, { do: 'if' }>, names: Names): Act {
  const tests = branches.map((b) => compiled(b.when, names));
  const ways = branches.map((b) => compileRules(b.then, names));
  const other = compileRules(otherwise, names);
  return (run) => {
    spend(1);
    for (let at = 0; at < tests.length; at++) {
      const { step, cost } = tests[at]!;
      spend(cost);
      if (asBoolean(step(run)) === true) return ways[at]!(run);
    }
    return other(run);
  };
}

/** The value of one expression by itself. */
export function compileExpr(expr: Expr, names: Names): Step {
  const { step, cost } = compiled(expr, names);
  return (run) => {
    spend(cost);
    return step(run);
  };
}

function compiled(expr: Expr, names: Names): Compiled {
  switch (expr.op) {
    case 'baseValue':
      return always({ cardinality: 'single', baseType: expr.baseType, values: [expr.value] });
    case 'null':
      return always(null);
    case 'variable':
      return varying(names.read(expr.id, expr.weight));
    case 'correct': {
      const response = names.response(expr.id);
      const declared = response ? held(response.cardinality, response.baseType, response.correct) : null;
      return names.parameters ? made('correct', expr.id, declared) : always(declared);
    }
    case 'default': {
      const declared = names.outcome(expr.id);
      const response = declared ? undefined : names.response(expr.id);
      const value = declared
        ? held(declared.cardinality, declared.baseType, declared.defaultValue)
        : response
          ? held(response.cardinality, response.baseType, response.defaultValue ?? [])
          : null;
      return names.parameters ? made('defaults', expr.id, value) : always(value);
    }
    case 'mapResponse': {
      const response = names.response(expr.id);
      if (!response?.mapping) return always(null);
      const { mapping } = response;
      const answer = names.read(expr.id);
      return varying((run) => mapResponse(answer(run), mapping, response));
    }
    case 'mapResponsePoint': {
      const areas = names.response(expr.id)?.areaMapping;
      if (!areas) return always(null);
      const size = names.sizeOf(expr.id);
      const answer = names.read(expr.id);
      return varying((run) => mapPoints(answer(run), areas, size));
    }
    case 'call':
      return compileCall(expr, names);
  }
}

const always = (value: Value): Compiled => ({
  step: () => value,
  cost: 1,
  constant: value,
  light: true,
});

const varying = (step: Step): Compiled => ({ step, cost: 1, light: false });

const made = (what: 'correct' | 'defaults', id: string, declared: Value): Compiled =>
  varying(({ made: instance }) => {
    const found = instance[what].get(id);
    return found === undefined ? declared : found;
  });

/** Operators that come to one number or truth at most. */
const LIGHT: ReadonlySet<string> = new Set(
  (
    'and or anyN not isNull match equal equalRounded lt gt lte gte member contains stringMatch substring patternMatch ' +
    'inside sum subtract product divide power max min round truncate integerDivide integerModulus containerSize'
  ).split(' '),
);
/** Operators that gather constants into constants. */
const GATHERING: ReadonlySet<Operator> = new Set(['multiple', 'ordered']);
/** What takes more steps than this is left to the run, whose steps are counted. */
const MOST_GATHERED = 1000;

/** An operator on its operands, all of which are worked out whatever they come to. */
function compileCall(expr: Extract<Expr, { op: 'call' }>, names: Names): Compiled {
  const { name } = expr;
  const plain = prepared(name, expr.attrs ?? NO_ATTRIBUTES);
  if (!plain) return always(null);
  const operator = name === 'inside' ? placed(expr, plain, names) : plain;
  const steps: Step[] = [];
  const constants: Value[] = [];
  let cost = 1;
  /** What looking at the constant ones takes: counted now, unless all are looked at when it runs. */
  let weight = 0;
  let heavy = false;
  for (const given of expr.args) {
    const arg = compiled(given, names);
    steps.push(arg.step);
    cost += arg.cost;
    if (arg.constant !== undefined) {
      constants.push(arg.constant);
      weight += weightOf(arg.constant);
    } else if (!arg.light) heavy = true;
  }
  if (GATHERING.has(name) && constants.length === steps.length && cost + weight <= MOST_GATHERED)
    return { ...always(plain(constants, NOWHERE)), cost: cost + weight };
  return { step: called(operator, steps, heavy), cost: heavy ? cost : cost + weight, light: LIGHT.has(name) };
}

/** @param heavy whether there are operands that take steps to look at */
function called(operator: Prepared, args: readonly Step[], heavy: boolean): Step {
  const [a, b] = args;
  if (args.length === 1) {
    if (!heavy) return (run) => operator([a!(run)], run.environment);
    return (run) => {
      const x = a!(run);
      spend(weightOf(x));
      return operator([x], run.environment);
    };
  }
  if (args.length === 2) {
    if (!heavy) return (run) => operator([a!(run), b!(run)], run.environment);
    return (run) => {
      const x = a!(run);
      const y = b!(run);
      spend(weightOf(x) + weightOf(y));
      return operator([x, y], run.environment);
    };
  }
  return (run) => {
    const values: Value[] = [];
    let weight = 0;
    for (const arg of args) {
      const value = arg(run);
      if (heavy) weight += weightOf(value);
      values.push(value);
    }
    spend(weight);
    return operator(values, run.environment);
  };
}

/** Only an area needs the picture that its own operand points at. */
function placed(expr: Extract<Expr, { op: 'call' }>, operator: Prepared, names: Names): Prepared {
  const answer = expr.args.find((a) => a.op === 'variable' || a.op === 'correct');
  const pointed = answer?.op === 'variable' || answer?.op === 'correct';
  const size = pointed ? names.sizeOf(answer.id) : NO_SIZE;
  return (args, run) =>
    operator(args, {
      size,
      test: run.test,
      variable: (id) => run.variable(id),
      random: () => run.random(),
    });
}

/** What looking at a value costs beyond the step of the expression itself. */
function weightOf(value: Value): number {
  if (value === null) return 0;
  const { values }: Held = value;
  const [first] = values;
  const steps = values.length >> 1;
  return typeof first === 'string' ? steps + ((first.length * values.length) >> 6) : steps;
}
