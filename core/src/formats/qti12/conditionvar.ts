// <conditionvar><and><varequal respident="r">A</varequal><not><varequal
// respident="r">B</varequal></not></and></conditionvar>
import { parseNumber } from '../../model/number.ts';
import { call, number, value, variable } from '../../model/make.ts';
import type { BaseType, Expr, Operator, ResponseDeclaration } from '../../model/scoring.ts';
import { areaOf } from './responses.ts';
import { attrOf, booleanAttr } from '../../xml/attrs.ts';
import { descendants, elements, textOf, type XmlElement } from '../../xml/tree.ts';
import { own } from '../../model/own.ts';

interface Scope {
  readonly responses: ReadonlyMap<string, ResponseDeclaration>;
  /** Blanks that stand in one response, by its identifier. */
  readonly blanks: ReadonlyMap<string, readonly string[]>;
  readonly untranslated: string[];
  /** Inside an odd number of `not`: a comparison with no answer must be false here, not NULL. */
  readonly negated: boolean;
  /** Responses that a sibling already requires to be answered. */
  readonly answered: ReadonlySet<string>;
}

const TRUE: Expr = value('boolean', true);
const FALSE: Expr = value('boolean', false);
const ORDER: Readonly<Record<string, Operator>> = { varlt: 'lt', varlte: 'lte', vargt: 'gt', vargte: 'gte' };

/** Translates a conditionvar; its children are joined by "and". */
export function readCondition(
  holder: XmlElement,
  responses: ReadonlyMap<string, ResponseDeclaration>,
  blanks: ReadonlyMap<string, readonly string[]>,
  untranslated: string[],
): Expr {
  return readAll(holder, { responses, blanks, untranslated, negated: false, answered: new Set() });
}

/** Responses that are asked whether they lie in an area. */
export function pointedResponses(item: XmlElement): Set<string> {
  return new Set(descendants(item, 'varinside').map((e) => attrOf(e, 'respident')));
}

/** Responses compared as numbers anywhere in an item's processing, and never as anything else. */
export function numericResponses(item: XmlElement): Set<string> {
  const numeric = new Set<string>();
  const textual = new Set<string>();
  const visit = (element: XmlElement): void => {
    for (const test of elements(element)) {
      const isOrder = Object.hasOwn(ORDER, test.name);
      if (isOrder && parseNumber(textOf(test)) !== null) numeric.add(attrOf(test, 'respident'));
      else if (
        test.name === 'varsubstring' ||
        (test.name === 'varequal' && parseNumber(textOf(test)) === null)
      )
        textual.add(attrOf(test, 'respident'));
      else if (!isOrder) visit(test);
    }
  };
  for (const processing of elements(item, 'resprocessing')) visit(processing);
  for (const id of textual) numeric.delete(id);
  return numeric;
}

function readAll(parent: XmlElement, scope: Scope): Expr {
  const children = elements(parent);
  const answered = new Set(scope.answered);
  if (!scope.negated) {
    for (const c of children)
      if (c.name === 'varequal' || Object.hasOwn(ORDER, c.name)) answered.add(attrOf(c, 'respident'));
  }
  const orders = wholeOrders(children, scope);
  const inside = { ...scope, answered };
  const parts: Expr[] = [];
  for (const c of children) {
    const order = orders.get(c);
    if (order !== null) parts.push(order ?? readTest(c, inside));
  }
  return parts.length === 0 ? TRUE : parts.length === 1 ? parts[0]! : call('and', parts.slice());
}

const NO_ORDERS: ReadonlyMap<XmlElement, Expr | null> = new Map();

function hasOrdered(responses: Scope['responses']): boolean {
  for (const response of responses.values()) if (response.cardinality === 'ordered') return true;
  return false;
}

/**
 * Values of an ordered response that stand one after the other without an index are its order (ASI Best
 * Practice Guide 1.2, ordered responses; from memory): the first of them is the whole test, the others are
 * part of it (null).
 */
function wholeOrders(children: readonly XmlElement[], scope: Scope): ReadonlyMap<XmlElement, Expr | null> {
  if (!hasOrdered(scope.responses)) return NO_ORDERS;
  const found = new Map<XmlElement, Expr | null>();
  const bare = children.filter((c) => c.name === 'varequal' && attrOf(c, 'index') === '');
  for (const id of new Set(bare.map((c) => attrOf(c, 'respident')))) {
    if (scope.responses.get(id)?.cardinality !== 'ordered') continue;
    const steps = bare.filter((c) => attrOf(c, 'respident') === id);
    if (steps.length < 2) continue;
    const order = call(
      'ordered',
      steps.map((s) => value('identifier', textOf(s).trim())),
    );
    steps.forEach((step, at) =>
      found.set(step, at === 0 ? guarded(call('match', [variable(id), order]), id, scope) : null),
    );
  }
  return found;
}

/** Under `not`, a comparison with no answer is false, not NULL. */
const guarded = (compared: Expr, id: string, scope: Scope): Expr =>
  !scope.negated || scope.answered.has(id)
    ? compared
    : call('and', [call('not', [call('isNull', [variable(id)])]), compared]);

function readTest(element: XmlElement, scope: Scope): Expr {
  switch (element.name) {
    case 'and':
      return readAll(element, scope);
    case 'or': {
      const parts = elements(element).map((e) => readTest(e, scope));
      return parts.length === 1 ? parts[0]! : call('or', parts);
    }
    case 'not':
      return call('not', [readAll(element, { ...scope, negated: !scope.negated })]);
    case 'other':
      return TRUE;
    case 'unanswered':
      return call('isNull', [variable(attrOf(element, 'respident'))]);
    default:
      return readComparison(element, scope);
  }
}

const DURATION: Readonly<Record<string, Operator>> = {
  durlt: 'lt',
  durlte: 'lte',
  durgt: 'gt',
  durgte: 'gte',
  durequal: 'equal',
};

/** A comparison of a response; never NULL where it stands under `not`. */
function readComparison(element: XmlElement, scope: Scope): Expr {
  const given = attrOf(element, 'respident');
  const blanks = scope.blanks.get(given);
  if (blanks) return readBlanks(element, blanks, scope);
  const duration = own(DURATION, element.name);
  const seconds = duration ? isoSeconds(textOf(element)) : null;
  if (duration && seconds !== null)
    return call(
      duration,
      [variable('duration'), number(seconds)],
      duration === 'equal' ? { toleranceMode: 'exact' } : undefined,
    );
  return comparisonOf(element, given, scope);
}

function comparisonOf(element: XmlElement, id: string, scope: Scope): Expr {
  const declared = scope.responses.get(id);
  const compared = declared ? compare(element, declared) : null;
  if (!compared) {
    scope.untranslated.push(`${element.name} ${id}`.trim());
    return FALSE;
  }
  return guarded(compared, id, scope);
}

/** `index` names one of several blanks, counted from 1; without it, any of them may hold the value. */
function readBlanks(element: XmlElement, blanks: readonly string[], scope: Scope): Expr {
  const index = parseNumber(attrOf(element, 'index'));
  if (index !== null && blanks[index - 1] !== undefined)
    return comparisonOf(element, blanks[index - 1]!, scope);
  return call(
    'or',
    blanks.map((id) => comparisonOf(element, id, { ...scope, negated: true })),
  );
}

/** Seconds of an ISO 8601 duration, or of a plain number. */
function isoSeconds(text: string): number | null {
  const plain = parseNumber(text);
  if (plain !== null) return plain;
  const m = /^P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?)?$/u.exec(text.trim());
  if (!m || text.trim() === 'P') return null;
  const [d, h, min, s] = m.slice(1).map((x) => Number(x ?? 0));
  return ((d! * 24 + h!) * 60 + min!) * 60 + s!;
}

function compare(element: XmlElement, response: ResponseDeclaration): Expr | null {
  const given = textOf(element);
  const answer = variable(response.id);
  const numeric = response.baseType === 'float' || response.baseType === 'integer';
  const amount = parseNumber(given);
  const order = own(ORDER, element.name);
  if (order) return amount === null || !numeric ? null : call(order, [answer, number(amount)]);
  switch (element.name) {
    case 'varequal': {
      if (numeric)
        return amount === null ? FALSE : call('equal', [answer, number(amount)], { toleranceMode: 'exact' });
      if (response.baseType === 'directedPair') {
        const pair = value('directedPair', given.trim().replace(/[\s,.|:]+/gu, ' '));
        return response.cardinality === 'single'
          ? call('match', [answer, pair])
          : call('member', [pair, answer]);
      }
      if (response.baseType === 'point')
        return call('match', [answer, value('point', given.trim().replace(/[\s,]+/gu, ' '))]);
      if (response.baseType === 'identifier') {
        const id = value('identifier', given.trim());
        const index = parseNumber(attrOf(element, 'index'));
        if (response.cardinality === 'ordered' && index !== null)
          return call('match', [call('index', [answer], { n: String(index) }), id]);
        return response.cardinality === 'single' ? call('match', [answer, id]) : call('member', [id, answer]);
      }
      const caseSensitive = booleanAttr(element, 'case', false);
      return call('stringMatch', [answer, value('string', given)], { caseSensitive: String(caseSensitive) });
    }
    case 'varsubstring': {
      if (response.baseType !== 'string') return null;
      const caseSensitive = booleanAttr(element, 'case', false);
      return call('substring', [value('string', given), answer], { caseSensitive: String(caseSensitive) });
    }
    case 'varsubset': {
      if (response.baseType !== 'identifier' && response.baseType !== 'directedPair') return null;
      return subset(
        given,
        answer,
        response.baseType,
        attrOf(element, 'setmatch').toLowerCase() === 'partial',
      );
    }
    case 'varinside': {
      if (response.baseType !== 'point') return null;
      return call('inside', [answer], areaOf(attrOf(element, 'areatype'), given));
    }
    default:
      return null;
  }
}

/** Exact: every listed value is among those given; Partial: at least one is. */
function subset(given: string, answer: Expr, baseType: BaseType, partial: boolean): Expr {
  const parts = given
    .split(',')
    .map((v) => v.trim())
    .filter((v) => v !== '');
  const tests = parts.map((v) => call('member', [value(baseType, v), answer]));
  return call(partial ? 'or' : 'and', tests);
}
