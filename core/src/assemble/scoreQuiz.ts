import type { Item, Quiz } from '../model/holding.ts';
import { tidyNumber } from '../model/number.ts';
import type { Operator } from '../model/scoring.ts';
import type { TestStructure } from '../model/testStructure.ts';
import { compileExpr, compileRules, type Names } from '../scoring/compile.ts';
import { evaluate, type Answers, type Result } from '../scoring/evaluate.ts';
import { named } from '../scoring/named.ts';
import { NO_SIZE, ORDINARY, type Run as ProgramRun } from '../scoring/run.ts';
import { ITEM_STEPS, RUN_STEPS, spend, within } from '../scoring/budget.ts';
import type { TestEnvironment } from '../scoring/operators/operator.ts';
import { seeded } from '../scoring/random.ts';
import { asBoolean, asNumber, float, held, integer, type Value } from '../scoring/value.ts';
import { deliver, type Delivered } from './deliver.ts';
import { Route } from './route.ts';
import { own } from '../model/own.ts';

export interface QuizScore {
  /** In points, weights and draws applied; what outcome processing gives where the test has its own. */
  readonly total: number;
  readonly outcomes: Readonly<Record<string, Value>>;
  /** Against the pass mark; null where there is none. */
  readonly passed: boolean | null;
  readonly items: readonly {
    readonly ref: string;
    readonly item: string;
    readonly score: number;
    /** False where a condition left it out. */
    readonly presented: boolean;
  }[];
}

interface Sat extends Delivered {
  readonly of: Item;
  readonly result: Result;
  readonly answered: boolean;
}

/** Where one candidate's way is known already. */
export interface ScoreOptions {
  /** What the candidate is set; else what the seed gives. */
  readonly set?: readonly Delivered[];
  /** What an item gave for its answers; else it is run on them. */
  readonly run?: (one: Delivered, item: Item, answers: Answers) => Result;
}

/**
 * Scores a whole quiz: what the seed sets, each item run on its answers, then the quiz's own outcome
 * processing (QTI 2.1, "outcomeProcessing"), else the sum of the points.
 * @param answers by item id; what is not in it is not answered
 */
export function scoreQuiz(
  quiz: Quiz,
  items: readonly Item[],
  answers: ReadonlyMap<string, Answers>,
  seed = 1,
  options: ScoreOptions = {},
): QuizScore {
  const byId = new Map(items.map((i) => [i.id, i]));
  return scoreKnown(quiz, byId, answers, seed, options);
}

/** The same where the items are at hand by their ids. */
export function scoreKnown(
  quiz: Quiz,
  byId: ReadonlyMap<string, Item>,
  answers: ReadonlyMap<string, Answers>,
  seed: number,
  options: ScoreOptions,
): QuizScore {
  const { set = deliver(quiz, seed), run = running(seed) } = options;
  if (!quiz.test) return sumOfPoints(quiz, byId, answers, set, run);
  return scoreTest(quiz, quiz.test, byId, answers, seed, set, run);
}

type Run = NonNullable<ScoreOptions['run']>;
const running =
  (seed: number): Run =>
  (_, item, answers) =>
    evaluate(item, answers, { seed });

/** A quiz without a structure of its own: nothing depends on anything else. */
function sumOfPoints(
  quiz: Quiz,
  byId: ReadonlyMap<string, Item>,
  answers: ReadonlyMap<string, Answers>,
  set: readonly Delivered[],
  run: Run,
): QuizScore {
  const items: { ref: string; item: string; score: number; presented: boolean }[] = [];
  let sum = 0;
  for (const one of set) {
    const item = byId.get(one.item);
    if (!item) continue;
    const points = pointsOf(item, run(one, item, answers.get(one.item) ?? {}), one.pointsEach, 1);
    sum += points;
    items.push({ ref: one.ref, item: one.item, score: tidyNumber(points), presented: true });
  }
  const total = tidyNumber(sum);
  return { total, outcomes: {}, passed: passedWith(quiz, total), items };
}

const passedWith = ({ settings: { passMark } }: Quiz, total: number): boolean | null =>
  passMark === null ? null : total >= passMark;

function scoreTest(
  quiz: Quiz,
  test: TestStructure,
  byId: ReadonlyMap<string, Item>,
  answers: ReadonlyMap<string, Answers>,
  seed: number,
  set: readonly Delivered[],
  run: Run,
): QuizScore {
  const sat: Sat[] = [];
  const left: Delivered[] = [];
  const route = new Route((c) =>
    within(
      RUN_STEPS,
      () => {
        const { names, run: program } = testScope(quiz, sat, seed);
        return asBoolean(compileExpr(c, names)(program)) === true;
      },
      () => false,
    ),
  );
  for (const one of set) {
    const item = byId.get(one.item);
    if (!item) continue;
    if (!route.enters(one)) {
      left.push(one);
      continue;
    }
    const given = answers.get(one.item) ?? {};
    sat.push({
      ...one,
      of: item,
      result: run(one, item, given),
      answered: Object.values(given).some((v) => v.length > 0),
    });
    route.answered(one);
  }
  const scope = testScope(quiz, sat, seed);
  within(
    ITEM_STEPS,
    () => void compileRules(test.outcomeRules, scope.names)(scope.run),
    () => undefined,
  );
  const stated = test.outcomeRules.length > 0 ? asNumber(scope.outcomes.get('SCORE') ?? null) : null;
  const weights = drawnWeights(quiz);
  const points = sat.map((s) => pointsOf(s.of, s.result, s.pointsEach, weights.get(s.item) ?? 1));
  const total = tidyNumber(stated ?? points.reduce((a, b) => a + b, 0));
  return {
    total,
    outcomes: Object.fromEntries(scope.outcomes),
    passed: passedWith(quiz, total),
    items: [
      ...sat.map((s, at) => ({ ref: s.ref, item: s.item, score: tidyNumber(points[at]!), presented: true })),
      ...left.map((d) => ({ ref: d.ref, item: d.item, score: 0, presented: false })),
    ],
  };
}

/** Weights of items in the draws of a test; those of items for everybody are in their points already. */
export const drawnWeights = (quiz: Quiz): ReadonlyMap<string, number> =>
  new Map(
    quiz.sections.flatMap(
      ({ draw }) => draw?.weights?.map((w, at) => [draw.pool[at] ?? '', w] as const) ?? [],
    ),
  );

/** An item's points in its quiz; in a draw, its share of what each is worth there. */
function pointsOf(of: Item, result: Result, pointsEach: number | null, weight: number): number {
  if (pointsEach === null || of.points <= 0) return result.score * weight;
  return (result.score / of.points) * pointsEach;
}

/**
 * What outcome processing and conditions can see: the test's own outcomes and the variables of the items sat
 * so far.
 */
function testScope(
  quiz: Quiz,
  sat: readonly Sat[],
  seed: number,
): { outcomes: Map<string, Value>; names: Names; run: ProgramRun } {
  const declarations = quiz.test?.outcomes ?? [];
  const outcomes = new Map(declarations.map((o) => [o.id, held(o.cardinality, o.baseType, o.defaultValue)]));
  const read = (id: string, weight?: string): Value => {
    if (outcomes.has(id)) return outcomes.get(id)!;
    const dot = id.lastIndexOf('.');
    const one = dot < 0 ? undefined : sat.find((s) => s.ref === id.slice(0, dot));
    return one ? itemVariable(one, id.slice(dot + 1), weight) : null;
  };
  const write: Names['write'] = (id) => (_, value) => void outcomes.set(id, value);
  return {
    outcomes,
    names: {
      read: (id, weight) => () => read(id, weight),
      write,
      writeOutcome: write,
      response: () => undefined,
      outcome: (id) => named(declarations, id),
      sizeOf: () => NO_SIZE,
      parameters: false,
      set: () => undefined,
    },
    run: {
      values: [],
      made: ORDINARY,
      unmet: false,
      environment: { variable: read, random: seeded(seed), test: environment(sat), size: NO_SIZE },
    },
  };
}

/** A variable of an item, under the name the test gives it, times the weight asked for. */
function itemVariable(one: Sat, name: string, weight: string | undefined): Value {
  const source = one.node?.variableMappings.find((m) => m.to === name)?.from ?? name;
  const value = own(one.result.outcomes, source) ?? null;
  const by = weight === undefined || weight === '' ? 1 : (own(one.weights, weight) ?? 1);
  const n = asNumber(value);
  return n === null || by === 1 ? value : float(n * by);
}

type Filter = Readonly<Record<string, string>>;

const words = (text: string | undefined): string[] => (text ?? '').split(/\s+/u).filter((w) => w !== '');

function chosen(sat: readonly Sat[], attrs: Filter): Sat[] {
  spend(sat.length >> 2);
  const include = words(attrs['includeCategory']);
  const exclude = words(attrs['excludeCategory']);
  const section = attrs['sectionIdentifier'] ?? '';
  return sat.filter(
    (s) =>
      (section === '' || s.sections.includes(section)) &&
      (include.length === 0 || include.some((c) => s.categories.includes(c))) &&
      !exclude.some((c) => s.categories.includes(c)),
  );
}

function environment(sat: readonly Sat[]): TestEnvironment {
  return {
    testVariables: (attrs) => {
      const values = chosen(sat, attrs).flatMap(
        (s) =>
          itemVariable(s, attrs['variableIdentifier'] ?? 'SCORE', attrs['weightIdentifier'])?.values ?? [],
      );
      return held('multiple', 'float', values);
    },
    count: (what, attrs) => count(what, chosen(sat, attrs), attrs),
  };
}

function count(what: Operator, sat: readonly Sat[], attrs: Filter): Value {
  const correct = (s: Sat): boolean =>
    s.of.responses.length > 0 && s.of.pointsExact && s.of.points > 0 && s.result.score >= s.of.points;
  switch (what) {
    case 'numberCorrect':
      return integer(sat.filter(correct).length);
    case 'numberIncorrect':
      return integer(sat.filter((s) => s.answered && !correct(s)).length);
    case 'numberResponded':
      return integer(sat.filter((s) => s.answered).length);
    case 'outcomeMaximum':
    case 'outcomeMinimum': {
      const id = attrs['outcomeIdentifier'] ?? 'SCORE';
      const end = what === 'outcomeMaximum' ? 'normalMaximum' : 'normalMinimum';
      const limits = sat.map((s) => {
        const found = s.of.outcomes.find((o) => o.id === id)?.[end] ?? null;
        return found === null ? null : found * (own(s.weights, attrs['weightIdentifier'] ?? '') ?? 1);
      });
      return limits.includes(null) ? null : float(limits.reduce((a: number, b) => a + b!, 0));
    }
    default:
      return integer(sat.length);
  }
}
