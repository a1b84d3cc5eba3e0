import type { Item } from '../model/holding.ts';
import { recognise, shapeIn, type Recognised } from '../scoring/recognise.ts';
import type { NumericShape, ScoringShape } from '../scoring/shapes.ts';
import { near } from '../model/number.ts';
import { interactionFor } from '../model/options.ts';
import { feedbackRoles, type RoledFeedback } from '../scoring/feedbackRoles.ts';
import { choiceIds, pairEnds } from '../scoring/probe.ts';
import type { Condition12, Test12 } from '../model/conditions12.ts';
import { own } from '../model/own.ts';
import { sayRules } from './rules12.ts';
import { and, equal, type Said } from './said12.ts';

type Part = Exclude<ScoringShape, { kind: 'sum-of-parts' }>;

/**
 * Says an item's scoring in QTI 1.2's conditions, in the units asked for (`factor` times the raw score): as
 * it stands where its rules are of the kind that QTI 1.2 has, else by its shape.
 * @param works whether the item still asks there what it asked; else no text can depend on answers
 */
export function sayScoring(item: Item, factor: number, works: boolean): Said {
  const direct = sayRules(item, factor);
  if (direct) return { ...direct, lost: null };
  const recognised = recognise(item);
  const said = sayShape(item, recognised, factor);
  return works ? { ...said, conditions: [...sayFeedback(item, recognised), ...said.conditions] } : said;
}

/**
 * Texts that are shown to who is right, wrong, or picked a choice, on conditions of their own before the scoring
 * and apart from it. What is shown on others is not said.
 */
function sayFeedback(item: Item, recognised: Recognised): Condition12[] {
  const scored = item.responses.filter((r) => (own(recognised.key, r.id) ?? []).length > 0);
  const marks = scored.map((r) => allPoints(item, r.id, recognised));
  const full = marks.length === 0 || marks.includes(null) ? null : and(marks as Test12[]);
  const when = ({ role }: RoledFeedback): Test12 | null => {
    switch (role?.on) {
      case 'right':
        return full;
      case 'wrong':
        if (!full) return null;
        return role.unanswered
          ? { test: 'not', part: full }
          : and([{ test: 'not', part: full }, ...scored.map((r) => answered(r.id))]);
      case 'choice':
        return equal(role.response, role.choice);
      default:
        return null;
    }
  };
  return feedbackRoles(item).flatMap((f): Condition12[] => {
    const test = when(f);
    return test && !f.inside
      ? [{ when: test, score: null, action: 'Set', goesOn: true, feedback: [f.id] }]
      : [];
  });
}

const answered = (response: string): Test12 => ({
  test: 'not',
  part: { test: 'unanswered', response },
});

function sayShape(item: Item, recognised: Recognised, factor: number): Said {
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
      if (!when) return said([], 'an answer that it cannot name');
      // Places can be asked for, that there are no more of them cannot.
      const left = shape.ordered && choiceIds(item, responseId).length > keyLength(recognised, responseId);
      return said([give(when, shape.points)], left ? 'that some are to be left out of the order' : null);
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
    case 'numeric':
      return said([give(numberTest(responseId, shape), shape.points)]);
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

/** The value a number stands for, or anything from the lower end to the upper one. */
function numberTest(response: string, { value, stated, tolerance: t }: NumericShape): Test12 {
  const exact = equal(response, String(value));
  if (!t) return exact;
  const range: Test12 = {
    test: 'and',
    parts: [
      { test: t.includesLow ? 'gte' : 'gt', response, value: String(t.low) },
      { test: t.includesHigh ? 'lte' : 'lt', response, value: String(t.high) },
    ],
  };
  return stated ? { test: 'or', parts: [exact, range] } : range;
}

/** A condition that holds for all points of one response, capitals and tolerance as its scoring has them. */
function allPoints(item: Item, id: string, recognised: Recognised): Test12 | null {
  const part = shapeIn(recognised.shape, id);
  if (part?.kind === 'numeric') return numberTest(id, part);
  if (part?.kind === 'pattern' || part?.kind === 'program') return null;
  if (part?.kind !== 'accepted-answers') return fullMark(item, id, recognised);
  const most = Math.max(...part.answers.map((a) => a.points));
  const tests = part.answers
    .filter((a) => near(a.points, most))
    .map((a) => equal(id, a.text, { caseSensitive: a.caseSensitive }));
  return tests.length === 1 ? tests[0]! : { test: 'or', parts: tests };
}

const keyLength = ({ best }: Recognised, id: string): number => (own(best.answers, id) ?? []).length;

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
