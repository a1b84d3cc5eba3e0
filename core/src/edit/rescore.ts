import type { ContentNode } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { call, set, value, variable, when } from '../model/make.ts';
import { near, tidyNumber } from '../model/number.ts';
import { own } from '../model/own.ts';
import { mapLists } from '../model/visit.ts';
import type { Expr, Rule, Scalar } from '../model/scoring.ts';
import { feedbackRoles, type FeedbackRole, type RoledFeedback } from '../scoring/feedbackRoles.ts';
import { choiceIds } from '../scoring/probe.ts';
import { mostOf, programFor } from '../scoring/programFor.ts';
import { bestOf } from '../scoring/best.ts';
import { rawScore } from '../scoring/evaluate.ts';
import { shapeIn } from '../scoring/recognise.ts';
import type { Key, ScoringShape } from '../scoring/shapes.ts';
import { allOf, anyOf, exactly, holdsValue, isNumber, isText } from '../scoring/tests.ts';
import { scaleShape } from './keys.ts';
import { refused, type Refused } from './refusal.ts';

/**
 * An item scored by another shape, worth what it was: a shape of other points is brought to those. Texts that are
 * shown to who is right, wrong or picked a choice go on being shown to those; others keep the conditions they
 * have. What comes out has been run: its points and its key are what was asked for.
 * @param more.before the item as it was scored, where `item` has other choices by now
 * @param more.points what it is to be worth; null: what the shape gives
 */
export function rescore(
  item: Item,
  given: ScoringShape,
  key: Key,
  more: { readonly before?: Item; readonly points?: number | null } = {},
): Item | Refused {
  const { before = item, points = item.points > 0 ? item.points : null } = more;
  const most = mostOf(given, isSingle(item));
  const shape = points === null || most <= 0 || near(points, most) ? given : scaleShape(given, points / most);
  const made = programFor(item, shape, key);
  if (!made) return refused('scoring-program');
  const scored: Item = { ...item, ...made };
  const withTexts = keepTexts(scored, before, feedbackRoles(before), shape, key);
  const next: Item = { ...withTexts, points: tidyNumber(points ?? most), pointsExact: true };
  return holds(next, shape, key) ? next : refused('scoring-not-as-asked');
}

const isSingle = (item: Pick<Item, 'responses'>): boolean =>
  item.responses.every((r) => r.cardinality === 'single');

/** Whether running the item gives what was asked for: as many points, and for the same answers alone. */
function holds(item: Item, shape: ScoringShape, key: Key): boolean {
  if (shape.kind === 'manual' || shape.kind === 'none') return true;
  const best = bestOf(item);
  if (!near(best.raw * item.scale, item.points)) return false;
  return item.responses.every((r) => {
    const wanted = own(key, r.id) ?? [];
    const full = (values: readonly Scalar[]): boolean =>
      near(rawScore(item, { ...best.answers, [r.id]: values }), best.raw);
    if (wanted.length === 0) return full([]);
    if (r.cardinality !== 'single') return full(wanted);
    const others = choiceIds(item, r.id).filter((id) => !wanted.includes(id));
    return wanted.every((v) => full([v])) && !others.some((id) => full([id]));
  });
}

/** The rules that show texts, written for the new key, or kept as they were where they follow no role. */
function keepTexts(
  item: Item,
  before: Item,
  roles: readonly RoledFeedback[],
  shape: ScoringShape,
  key: Key,
): Item {
  if (roles.length === 0) return item;
  const full = fullMarks(item, shape, key);
  const rules = roles.map((f) => (f.role ? showRule(item, f, f.role, full) : null));
  const scores = (r: Simple): boolean =>
    r.do === 'exit' || ((r.do === 'set' || r.do === 'lookup') && r.id === before.scoreOutcome);
  const others = before.scoring.rules.flatMap((r) => withoutSteps(r, scores));
  const shown = rules.includes(null) || !onlyTexts(others, roles) ? others : (rules as Rule[][]).flat();
  return { ...item, scoring: { ...item.scoring, rules: [...item.scoring.rules, ...shown] } };
}

/** Whether rules do nothing but show these texts. */
function onlyTexts(rules: readonly Rule[], roles: readonly RoledFeedback[]): boolean {
  const outcomes = new Set(roles.map((f) => f.outcome));
  return rules.every((r) =>
    r.do === 'if'
      ? r.branches.every((b) => onlyTexts(b.then, roles)) && onlyTexts(r.otherwise, roles)
      : r.do === 'set' && outcomes.has(r.id),
  );
}

type Simple = Exclude<Rule, { readonly do: 'if' }>;

/** A rule without some of what it does, branches and all; nothing where that is all it does. */
export function withoutSteps(rule: Rule, gone: (step: Simple) => boolean): Rule[] {
  if (rule.do !== 'if') return gone(rule) ? [] : [rule];
  const all = (rules: readonly Rule[]): Rule[] => rules.flatMap((r) => withoutSteps(r, gone));
  const branches = rule.branches.map((b) => ({ when: b.when, then: all(b.then) }));
  const otherwise = all(rule.otherwise);
  const empty = branches.every((b) => b.then.length === 0) && otherwise.length === 0;
  return empty ? [] : [{ do: 'if', branches, otherwise }];
}

/** The rules that show a text to who has its role; null where nobody can be told apart so. */
export function showRule(
  item: Item,
  feedback: Pick<RoledFeedback, 'id' | 'outcome'>,
  role: FeedbackRole,
  full: Expr | null,
): Rule[] | null {
  const declared = item.outcomes.find((o) => o.id === feedback.outcome);
  const name = value('identifier', feedback.id);
  const shown = set(
    feedback.outcome,
    declared?.cardinality === 'single' ? name : call('multiple', [variable(feedback.outcome), name]),
  );
  switch (role.on) {
    case 'general':
      return declared?.defaultValue.includes(feedback.id) ? [] : [shown];
    case 'right':
      return full && [when(full, [shown])];
    case 'wrong':
      return full && [when(call('not', [role.unanswered ? answeredAnd(full) : full]), [shown])];
    case 'choice': {
      const response = item.responses.find((r) => r.id === role.response);
      // A choice that is gone is shown nothing any more.
      if (!response || !choiceIds(item, role.response).includes(role.choice)) return [];
      return [when(holdsValue(response, role.choice), [shown])];
    }
  }
}

/**
 * A condition that is false, not NULL, for what is not answered: under "not" it then holds (QTI 1.2, "not";
 * there a comparison with nothing is false).
 */
function answeredAnd(test: Expr): Expr {
  if (test.op !== 'call') return test;
  if (test.name === 'and' || test.name === 'or') return call(test.name, test.args.map(answeredAnd));
  const answer = test.args.flatMap((a) => (a.op === 'call' && a.name === 'index' ? a.args : [a]));
  const asked = answer.find((a) => a.op === 'variable');
  return asked ? call('and', [call('not', [call('isNull', [asked])]), test]) : test;
}

/** The condition that an answer gets all points; null where it is no condition on answers. */
export function fullMarks(item: Item, shape: ScoringShape, key: Key): Expr | null {
  const tests = item.responses.flatMap((r): (Expr | null)[] => {
    const wanted = own(key, r.id) ?? [];
    if (wanted.length === 0) return [];
    if (r.baseType === 'point' || r.baseType === 'file') return [null];
    const part = shapeIn(shape, r.id);
    if (part?.kind === 'numeric') return [isNumber(r, part)];
    if (r.baseType === 'float' || r.baseType === 'integer')
      return [isNumber(r, { value: Number(wanted[0]), tolerance: null })];
    if (part?.kind === 'accepted-answers') {
      const most = mostOf(part, true);
      const best = part.answers.filter((a) => near(a.points, most));
      return [anyOf(best.map((a) => isText(r, a.text, a.caseSensitive)))];
    }
    if (part?.kind === 'pattern' || part?.kind === 'program') return [null];
    return [exactly(item, r, wanted)];
  });
  return tests.length === 0 || tests.includes(null) ? null : allOf(tests as Expr[]);
}

/** The same content without some feedback in it. */
export function withoutFeedback(
  nodes: readonly ContentNode[],
  gone: (id: string, outcome: string) => boolean,
): ContentNode[] {
  return nodes
    .filter((n) => n.kind !== 'feedback' || !gone(n.identifier, n.outcome))
    .map((n) => mapLists(n, (list) => withoutFeedback(list, gone)));
}
