import type { Item } from '../model/holding.ts';
import type { Expr, ResponseDeclaration, Rule, Scalar } from '../model/scoring.ts';
import { spend, stepsLeft } from './budget.ts';
import type { Answers } from './evaluate.ts';
import { clean } from './operators/comparison.ts';
import { choiceIds } from './probe.ts';

type Branching = Pick<Item, 'responses' | 'scoring' | 'body'>;

/** What would make one condition true, by response. */
interface Wishes {
  readonly picks: Map<string, Scalar[]>;
  readonly bounds: Map<string, number[]>;
  /** Of ordered responses: the value at each place, counted from 1. */
  readonly places: Map<string, Map<number, Scalar>>;
}

const noWishes = (): Wishes => ({ picks: new Map(), bounds: new Map(), places: new Map() });

/** For each branch of each condition, answers that would make it true if nothing else speaks against them. */
export function branchAnswers(item: Branching): Answers[] {
  return wishesOf(item).flatMap((wishes) => {
    const { picks, bounds, places } = wishes;
    for (const [id, ends] of bounds)
      if (!picks.has(id)) picks.set(id, [clean(ends.reduce((a, b) => a + b, 0) / ends.length)]);
    for (const [id, placed] of places) picks.set(id, inPlaces(item, id, placed));
    return picks.size > 0 ? [Object.fromEntries(picks)] : [];
  });
}

/**
 * The order that most branches ask for, of every response in which the places of values are asked for one by
 * one: where two branches speak of one place, the first is believed.
 */
export function placedAnswers(item: Branching): Answers | null {
  const all = new Map<string, Map<number, Scalar>>();
  for (const { places } of wishesOf(item))
    for (const [id, placed] of places) {
      const known = all.get(id) ?? new Map<number, Scalar>();
      spend((known.size * placed.size) >> 3);
      for (const [place, value] of placed)
        if (!known.has(place) && ![...known.values()].includes(value)) known.set(place, value);
      all.set(id, known);
    }
  if (all.size === 0) return null;
  return Object.fromEntries([...all].map(([id, placed]) => [id, inPlaces(item, id, placed)]));
}

/** Values at their places; the others that can be put in order fill what is left, as they stand. */
function inPlaces(item: Branching, id: string, placed: ReadonlyMap<number, Scalar>): Scalar[] {
  const used = new Set([...placed.values()].map(String));
  const ids = choiceIds(item, id);
  spend((placed.size + ids.length) >> 3);
  const rest = ids.filter((choice) => !used.has(choice)).values();
  const out: Scalar[] = [];
  let next = 1;
  for (const [place, value] of [...placed].sort(([a], [b]) => a - b)) {
    for (; next < place; next++) {
      const { value: filler, done } = rest.next();
      if (done) break;
      out.push(filler);
    }
    out.push(value);
    next = place + 1;
  }
  return [...out, ...rest];
}

/** Of the last item asked about, with the steps it took: it takes them again. */
let last: { readonly of: Branching; readonly wishes: Wishes[]; readonly steps: number } | null = null;

function wishesOf(item: Branching): Wishes[] {
  if (last && last.of.scoring === item.scoring && last.of.responses === item.responses) {
    spend(last.steps);
    return last.wishes;
  }
  const before = stepsLeft();
  const wishes = wishesIn(item);
  // Where steps are not counted, nobody knows how many it took.
  if (Number.isFinite(before)) last = { of: item, wishes, steps: before - stepsLeft() };
  return wishes;
}

function wishesIn(item: Branching): Wishes[] {
  const out: Wishes[] = [];
  const visit = (rules: readonly Rule[]): void => {
    for (const rule of rules) {
      if (rule.do !== 'if') continue;
      for (const branch of rule.branches) {
        const wishes = noWishes();
        satisfy(branch.when, item.responses, wishes);
        out.push(wishes);
        visit(branch.then);
      }
      visit(rule.otherwise);
    }
  };
  visit(item.scoring.rules);
  return out;
}

/** Values are said literally, as the declared right ones, or gathered of such. */
function valuesOf(expr: Expr, responses: readonly ResponseDeclaration[]): readonly Scalar[] {
  if (expr.op === 'baseValue') return [expr.value];
  if (expr.op === 'correct') return responses.find((r) => r.id === expr.id)?.correct ?? [];
  if (expr.op === 'call' && (expr.name === 'ordered' || expr.name === 'multiple'))
    return expr.args.flatMap((a) => valuesOf(a, responses));
  return [];
}

function satisfy(expr: Expr, responses: readonly ResponseDeclaration[], wishes: Wishes): void {
  if (expr.op !== 'call' || expr.name === 'not') return;
  if (expr.name === 'and') return expr.args.forEach((a) => satisfy(a, responses, wishes));
  if (expr.name === 'or') return expr.args[0] && satisfy(expr.args[0], responses, wishes);
  const placed = expr.args.find((a) => a.op === 'call' && a.name === 'index');
  if (placed?.op === 'call') return satisfyPlace(placed, expr, responses, wishes);
  const answer = expr.args.find((a) => a.op === 'variable');
  const other = expr.args.find((a) => a !== answer);
  if (answer?.op !== 'variable' || !other) return;
  const values = valuesOf(other, responses);
  if (values.length === 0) return;
  const { picks, bounds } = wishes;
  if (['lt', 'gt', 'lte', 'gte'].includes(expr.name) && typeof values[0] === 'number') {
    spend((bounds.get(answer.id)?.length ?? 0) >> 3);
    bounds.set(answer.id, [...(bounds.get(answer.id) ?? []), values[0]]);
    return;
  }
  spend(((picks.get(answer.id)?.length ?? 0) + values.length) >> 3);
  picks.set(answer.id, [...(picks.get(answer.id) ?? []), ...values]);
}

/** What is asked for at one place: "index" compared with a value. */
function satisfyPlace(
  placed: Extract<Expr, { op: 'call' }>,
  test: Extract<Expr, { op: 'call' }>,
  responses: readonly ResponseDeclaration[],
  { places }: Wishes,
): void {
  const [of] = placed.args;
  const other = test.args.find((a) => a !== placed);
  const place = Number(placed.attrs?.['n']);
  if (of?.op !== 'variable' || !other || !Number.isInteger(place) || place < 1) return;
  const [value] = valuesOf(other, responses);
  if (value === undefined) return;
  const known = places.get(of.id) ?? new Map<number, Scalar>();
  known.set(place, value);
  places.set(of.id, known);
}
