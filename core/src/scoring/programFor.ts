import type { Item } from '../model/holding.ts';
import { call, number, set, value, variable, when } from '../model/make.ts';
import { near, withoutTail } from '../model/number.ts';
import { own } from '../model/own.ts';
import type { Expr, ResponseDeclaration, Rule, Scalar, Shape } from '../model/scoring.ts';
import { choiceIds } from './probe.ts';
import type { Key, ScoringShape } from './shapes.ts';
import { allOf, anyOf, exactly, holdsValue, isNumber, isText } from './tests.ts';

/** What a scoring is written in: the parts of an item that say how it is scored. */
export type Scoring = Pick<Item, 'responses' | 'outcomes' | 'scoring' | 'scale' | 'pointsSources'>;

/**
 * Standards that map answers to points (QTI 2 and 3), and the one that has conditions alone (QTI 1.2): a program
 * is written in what its own standard says best.
 */
const maps = (item: Pick<Item, 'standard'>): boolean => item.standard !== 'qti1.2';

/**
 * The program of a shape: the inverse of `recognise`, which gives the same shape of what is written here.
 * @param shape in points; numbers of mode `rounded` become a range of the same ends
 * @param key full-credit answers by response, where the shape does not say them itself
 * @returns null for a shape that is a program, and for areas of a picture where the key alone says nothing
 */
export function programFor(item: Item, shape: ScoringShape, key: Key): Scoring | null {
  const scale = item.scale > 0 ? item.scale : 1;
  const writer = new Writer({ ...item, scale });
  const written = writer.whole(shape, key);
  return written ? { ...written, scale } : null;
}

/** The most a shape gives, in points. */
export function mostOf(shape: ScoringShape, single: boolean): number {
  switch (shape.kind) {
    case 'all-or-nothing':
    case 'numeric':
    case 'pattern':
      return shape.points;
    case 'accepted-answers':
      return Math.max(0, ...shape.answers.map((a) => a.points));
    case 'per-choice': {
      const values = Object.values(shape.values);
      const most = single
        ? Math.max(0, ...values)
        : values.filter((v) => v > 0).reduce((sum, v) => sum + v, 0);
      return shape.upper === null ? most : Math.min(shape.upper, most);
    }
    case 'sum-of-parts':
      return shape.parts.reduce((sum, p) => sum + mostOf(p.shape, true), 0);
    default:
      return 0;
  }
}

class Writer {
  private readonly responses: Map<string, ResponseDeclaration>;
  constructor(private readonly item: Item) {
    this.responses = new Map(item.responses.map((r) => [r.id, r]));
  }

  whole(shape: ScoringShape, key: Key): Omit<Scoring, 'scale'> | null {
    const rules = this.rulesOf(shape, key);
    if (!rules) return null;
    return {
      responses: this.item.responses.map((r) => this.responses.get(r.id)!),
      outcomes: this.item.outcomes.map((o) =>
        o.id !== this.item.scoreOutcome
          ? o
          : { ...o, defaultValue: [0], normalMaximum: null, normalMinimum: null, lookup: null },
      ),
      scoring: { rules, untranslated: [] },
      pointsSources: this.item.pointsSources.filter((s) => s.source !== 'declared'),
    };
  }

  private rulesOf(shape: ScoringShape, key: Key): readonly Rule[] | null {
    if (shape.kind === 'manual' || shape.kind === 'none') return [];
    if (shape.kind === 'sum-of-parts') {
      const parts = shape.parts.map((p) => {
        const response = this.responses.get(p.responseId);
        return response ? this.part(response, p.shape, own(key, p.responseId) ?? [], true) : null;
      });
      return parts.some((p) => p === null) ? null : (parts as Rule[][]).flat();
    }
    const scored = this.item.responses.filter((r) => (own(key, r.id) ?? []).length > 0);
    if (shape.kind === 'all-or-nothing' && scored.length > 1) return this.together(shape.points, scored, key);
    const [response = this.item.responses[0]] = scored;
    return response ? this.part(response, shape, own(key, response.id) ?? [], false) : null;
  }

  private declare(response: ResponseDeclaration, change: Partial<ResponseDeclaration>): void {
    this.responses.set(response.id, { ...response, ...change });
  }

  private readonly raw = (points: number): number => withoutTail(points / this.item.scale);

  /** Gives points where a test holds: set for a scoring of one part, added for one of several. */
  private give(test: Expr, points: number, adds: boolean): Rule {
    const { scoreOutcome } = this.item;
    const amount = number(this.raw(points));
    return adds
      ? when(test, [set(scoreOutcome, call('sum', [variable(scoreOutcome), amount]))])
      : when(test, [set(scoreOutcome, amount)], [set(scoreOutcome, number(0))]);
  }

  private credit(expr: Expr, adds: boolean): Rule {
    const { scoreOutcome } = this.item;
    return set(scoreOutcome, adds ? call('sum', [variable(scoreOutcome), expr]) : expr);
  }

  /** All of several responses at once, or nothing. */
  private together(points: number, scored: readonly ResponseDeclaration[], key: Key): Rule[] | null {
    const tests = scored.map((r) => {
      const wanted = own(key, r.id) ?? [];
      this.declare(r, { correct: wanted, mapping: null });
      if (r.baseType === 'point' || r.baseType === 'file') return null;
      if (r.baseType === 'float' || r.baseType === 'integer')
        return isNumber(r, { value: Number(wanted[0]), tolerance: null });
      return this.keyTest(r, wanted);
    });
    return tests.includes(null) ? null : [this.give(allOf(tests as Expr[]), points, false)];
  }

  private keyTest(response: ResponseDeclaration, key: readonly Scalar[]): Expr {
    const several = response.cardinality === 'single' && key.length > 1;
    return maps(this.item) && !several
      ? call('match', [variable(response.id), { op: 'correct', id: response.id }])
      : exactly(this.item, response, key);
  }

  private part(
    response: ResponseDeclaration,
    shape: ScoringShape,
    key: readonly Scalar[],
    adds: boolean,
  ): Rule[] | null {
    switch (shape.kind) {
      case 'all-or-nothing':
        if (response.baseType === 'point') return this.oneArea(response, shape.points, adds);
        if (response.baseType === 'file' || key.length === 0) return null;
        this.declare(response, { correct: key, mapping: null });
        return [this.give(this.keyTest(response, key), shape.points, adds)];
      case 'per-choice':
        return shape.unit === 'area'
          ? this.areas(response, shape, adds)
          : this.values(response, shape, key, adds);
      case 'accepted-answers':
        return this.answers(response, shape, adds);
      case 'numeric':
        this.declare(response, { correct: shape.stated ? [shape.value] : [], mapping: null });
        return [this.give(isNumber(response, shape), shape.points, adds)];
      case 'pattern': {
        const answer = variable(response.id);
        const tests = [
          ...shape.patterns.map((pattern) => call('patternMatch', [answer], { pattern })),
          ...shape.substrings.map((text) =>
            call('substring', [value('string', text), answer], { caseSensitive: 'true' }),
          ),
        ];
        this.declare(response, { correct: [], mapping: null });
        return tests.length > 0 ? [this.give(anyOf(tests), shape.points, adds)] : null;
      }
      case 'manual':
      case 'none':
        return [];
      case 'program':
      case 'sum-of-parts':
        return null;
    }
  }

  private values(
    response: ResponseDeclaration,
    shape: Extract<ScoringShape, { kind: 'per-choice' }>,
    key: readonly Scalar[],
    adds: boolean,
  ): Rule[] {
    const known = choiceIds(this.item, response.id);
    const worth = Object.entries(shape.values).filter(([, v]) => v !== 0 || shape.otherwise !== 0);
    const bounded = shape.lower !== null || shape.upper !== null;
    const limit = (bound: number | null): number | null => (bound === null ? null : this.raw(bound));
    if (maps(this.item) || shape.unit === 'pair' || (bounded && adds)) {
      this.declare(response, {
        correct: key,
        mapping: {
          lowerBound: limit(shape.lower),
          upperBound: limit(shape.upper),
          defaultValue: this.raw(shape.otherwise),
          entries: worth.map(([id, v]) => ({ key: id, value: this.raw(v), caseSensitive: true })),
        },
      });
      return [this.credit({ op: 'mapResponse', id: response.id }, adds)];
    }
    this.declare(response, { correct: key, mapping: null });
    const { scoreOutcome } = this.item;
    const score = variable(scoreOutcome);
    const lower = limit(shape.lower);
    const upper = limit(shape.upper);
    let within: Expr = score;
    if (upper !== null) within = call('min', [within, number(upper)]);
    if (lower !== null) within = call('max', [within, number(lower)]);
    return [
      ...worth
        .filter(([id, v]) => v !== 0 && known.includes(id))
        .map(([id, v]) => this.give(holdsValue(response, id), v, true)),
      ...(bounded ? [set(scoreOutcome, within)] : []),
    ];
  }

  /** One area that gives everything; where the program alone knows of it, there is nothing to write it from. */
  private oneArea(response: ResponseDeclaration, points: number, adds: boolean): Rule[] | null {
    const areas = response.areaMapping?.entries ?? [];
    if (areas.length !== 1) return null;
    const values = Object.fromEntries(areas.map((a) => [`${a.shape} ${a.coords}`, points]));
    return this.areas(
      response,
      { kind: 'per-choice', unit: 'area', values, otherwise: 0, lower: null, upper: points },
      adds,
    );
  }

  private areas(
    response: ResponseDeclaration,
    shape: Extract<ScoringShape, { kind: 'per-choice' }>,
    adds: boolean,
  ): Rule[] {
    const limit = (bound: number | null): number | null => (bound === null ? null : this.raw(bound));
    this.declare(response, {
      areaMapping: {
        lowerBound: limit(shape.lower),
        upperBound: limit(shape.upper),
        defaultValue: this.raw(shape.otherwise),
        entries: Object.entries(shape.values).map(([area, v]) => {
          const [form = 'default', ...coords] = area.split(' ');
          return { shape: form as Shape, coords: coords.join(' '), value: this.raw(v) };
        }),
      },
    });
    return [this.credit({ op: 'mapResponsePoint', id: response.id }, adds)];
  }

  private answers(
    response: ResponseDeclaration,
    shape: Extract<ScoringShape, { kind: 'accepted-answers' }>,
    adds: boolean,
  ): Rule[] | null {
    if (response.cardinality !== 'single') return null;
    // Where capitals tell two answers apart, the exact one has to be asked for first.
    const answers = [...shape.answers].sort((a, b) => Number(b.caseSensitive) - Number(a.caseSensitive));
    const most = mostOf(shape, true);
    const best = shape.answers.find((a) => near(a.points, most));
    const correct = best ? [best.text] : [];
    if (maps(this.item)) {
      this.declare(response, {
        correct,
        mapping: {
          lowerBound: null,
          upperBound: null,
          defaultValue: 0,
          entries: answers.map((a) => ({
            key: a.text,
            value: this.raw(a.points),
            caseSensitive: a.caseSensitive,
          })),
        },
      });
      return [this.credit({ op: 'mapResponse', id: response.id }, adds)];
    }
    this.declare(response, { correct, mapping: null });
    const branches = answers.map((a) => {
      const rule = this.give(isText(response, a.text, a.caseSensitive), a.points, adds);
      return rule.do === 'if' ? rule.branches[0]! : null;
    });
    return [
      {
        do: 'if',
        branches: branches.filter((b) => b !== null),
        otherwise: adds ? [] : [set(this.item.scoreOutcome, number(0))],
      },
    ];
  }
}
