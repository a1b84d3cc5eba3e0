import {
  scaled,
  type Accepted,
  type AcceptedNumber,
  type Answer,
  type HeldChoice,
  type HeldFeedback,
  type Marking,
} from '../held.ts';
import { materialHtml } from './material.ts';
import { attr, deep, kid, kids, numberIn, text, Unknown, type Element } from './xml.ts';

/** What of QTI 1.2's response processing this system knows: one response, marked in one of five ways. */

interface Given {
  readonly response: Element;
  readonly item: Element;
  readonly feedback: readonly { readonly id: string; readonly text: string }[];
  readonly declared: number | null;
}

type Known12 = Exclude<Answer, { kind: 'kept' }>;

interface Marked {
  readonly points: number;
  readonly answer: Known12;
  readonly feedback: HeldFeedback[];
}

/** One respcondition: what has to be so, what it gives, what it shows. */
interface Row {
  readonly test: Element | null;
  readonly action: string;
  readonly worth: number | null;
  readonly shows: readonly string[];
  readonly goesOn: boolean;
}

/** @throws Unknown where it is marked in another way */
export function marked12({ response, item, feedback, declared }: Given): Marked {
  const processing = kids(item, 'resprocessing');
  const variables = processing.flatMap((p) => deep(p, 'decvar'));
  if (processing.length > 1 || variables.length > 1) throw new Unknown('several variables');
  const [variable = null] = variables;
  const bound = (name: string): number | null => {
    const said = variable && attr(variable, name);
    return said === null ? null : numberIn(said);
  };
  if ((bound('defaultval') ?? 0) !== 0) throw new Unknown('a start other than 0');
  const rows = processing.flatMap((p) => kids(p, 'respcondition').map(rowOf));
  const shown = new Map<string, string | null>();
  const marking: Row[] = [];
  for (const [at, row] of rows.entries()) {
    if (row.worth !== null && row.shows.length > 0) throw new Unknown('marks and shows at once');
    if (row.worth !== null) marking.push(row);
    else if (row.goesOn || at === rows.length - 1)
      for (const id of row.shows) {
        if (shown.has(id)) throw new Unknown('shown twice');
        shown.set(id, row.test ? oneEqual(row.test) : null);
      }
    else throw new Unknown('ends the marking without a mark');
  }
  if (feedback.some((f) => !shown.has(f.id))) throw new Unknown('feedback never shown');
  const known = answerOf(response, marking, { least: bound('minvalue'), most: bound('maxvalue') });
  // What is declared is what the highest mark is worth; marks may be a percentage of it.
  const most = bound('maxvalue') ?? known.highest;
  const points = declared ?? (known.answer.kind === 'essay' ? most : known.highest);
  const factor = declared === null || most === 0 ? 1 : declared / most;
  return {
    points,
    answer: factor === 1 ? known.answer : scaled(known.answer, (worth) => round(worth * factor)),
    feedback: feedback.map((f) => ({ ...f, on: shown.get(f.id) ?? null })),
  };
}

/** Without what the arithmetic of fractions leaves behind. */
const round = (n: number): number => Number(n.toPrecision(12));

function rowOf(el: Element): Row {
  const variable = kid(el, 'conditionvar');
  const tests = variable ? kids(variable) : [];
  const sets = kids(el, 'setvar');
  if (tests.length > 1 || sets.length > 1) throw new Unknown('several at once');
  const [test] = tests;
  return {
    test: test === undefined || test.localName === 'other' ? null : test,
    action: sets[0] ? (attr(sets[0], 'action') ?? 'Set') : 'Set',
    worth: sets[0] ? numberIn(text(sets[0])) : null,
    shows: kids(el, 'displayfeedback').map((d) => attr(d, 'linkrefid') ?? ''),
    goesOn: attr(el, 'continue') === 'Yes',
  };
}

/** The value that a test alone compares with. @throws Unknown for any other test */
function oneEqual(test: Element): string {
  if (test.localName !== 'varequal') throw new Unknown(test.localName ?? '');
  return text(test).trim();
}

interface Bounds {
  readonly least: number | null;
  readonly most: number | null;
}
interface Known {
  readonly answer: Marked['answer'];
  readonly highest: number;
}

function answerOf(response: Element, rows: readonly Row[], bounds: Bounds): Known {
  const render = kids(response).find((k) => k.localName?.startsWith('render_'));
  if (!render || kids(response).length !== 1) throw new Unknown('nothing to answer with');
  if (render.localName === 'render_choice' && response.localName === 'response_lid')
    return choiceOf(response, render, rows, bounds);
  if (render.localName !== 'render_fib') throw new Unknown(render.localName ?? '');
  const wide = Number(attr(render, 'rows') ?? 1) > 1;
  if (rows.length === 0 && wide) return { answer: { kind: 'essay' }, highest: 0 };
  if (wide || rows.length === 0 || rows.some((r) => r.action !== 'Set' || r.test === null || r.goesOn))
    throw new Unknown('another marking of what is written');
  const numeric =
    response.localName === 'response_num' || ['Integer', 'Decimal'].includes(attr(render, 'fibtype') ?? '');
  const highest = Math.max(...rows.map((r) => r.worth!));
  return numeric
    ? { answer: { kind: 'number', accepted: rows.map((r) => numbersOf(r.test!, r.worth!)) }, highest }
    : { answer: { kind: 'text', accepted: rows.flatMap((r) => textsOf(r.test!, r.worth!)) }, highest };
}

const textsOf = (test: Element, worth: number): Accepted[] =>
  (test.localName === 'or' ? kids(test) : [test]).map((t) => {
    if (t.localName !== 'varequal') throw new Unknown(t.localName ?? '');
    // Case matters only where it is said (ASI Information Model 1.2, "varequal": its default is No).
    return { text: text(t), caseSensitive: attr(t, 'case') === 'Yes', worth };
  });

/** One number, a range, or a number and the range around it. */
function numbersOf(test: Element, worth: number): AcceptedNumber {
  const point = (t: Element): AcceptedNumber => {
    const exact = numberIn(oneEqual(t));
    return { exact, low: exact, high: exact, includesLow: true, includesHigh: true, worth };
  };
  if (test.localName === 'varequal') return point(test);
  if (test.localName === 'and') return rangeOf(test, worth);
  const [first, second, ...more] = kids(test);
  if (test.localName !== 'or' || !first || second?.localName !== 'and' || more.length > 0)
    throw new Unknown('another range');
  const { exact } = point(first);
  const range = rangeOf(second, worth);
  if (exact! < range.low || exact! > range.high) throw new Unknown('a number beside its range');
  return { ...range, exact };
}

function rangeOf(test: Element, worth: number): AcceptedNumber {
  const end = (...names: readonly string[]): Element => {
    const found = kids(test).filter((k) => names.includes(k.localName ?? ''));
    if (found.length !== 1 || kids(test).length !== 2) throw new Unknown('no range');
    return found[0]!;
  };
  const low = end('vargte', 'vargt');
  const high = end('varlte', 'varlt');
  return {
    exact: null,
    low: numberIn(text(low)),
    high: numberIn(text(high)),
    includesLow: low.localName === 'vargte',
    includesHigh: high.localName === 'varlte',
    worth,
  };
}

function choiceOf(response: Element, render: Element, rows: readonly Row[], bounds: Bounds): Known {
  const choices = kids(render, 'response_label').map((l): HeldChoice => ({
    id: attr(l, 'ident') ?? '',
    text: deep(l, 'material').map(materialHtml).join(''),
    fixed: attr(l, 'rshuffle') === 'No',
  }));
  if (kids(render).length !== choices.length || attr(render, 'minnumber') !== null)
    throw new Unknown('another choice');
  const multiple = attr(response, 'rcardinality') === 'Multiple';
  if (!multiple && ![null, 'Single'].includes(attr(response, 'rcardinality'))) throw new Unknown('an order');
  const marking = markingOf(
    rows,
    multiple,
    choices.map((c) => c.id),
    bounds,
  );
  return {
    answer: {
      kind: 'choice',
      prompt: null,
      maxChoices: multiple ? Number(attr(render, 'maxnumber') ?? 0) : 1,
      shuffle: attr(render, 'shuffle') === 'Yes',
      choices,
      marking,
    },
    highest: highestOf(marking, multiple, rows),
  };
}

function highestOf(marking: Marking, multiple: boolean, rows: readonly Row[]): number {
  if (marking.by === 'all') return rows[0]?.worth ?? 0;
  if (!multiple) return Math.max(0, ...Object.values(marking.worth));
  const sum = Object.values(marking.worth).reduce((all, worth) => all + Math.max(0, worth), 0);
  return Math.min(marking.most ?? Infinity, Number(sum.toPrecision(12)));
}

function markingOf(rows: readonly Row[], multiple: boolean, ids: readonly string[], bounds: Bounds): Marking {
  const [only] = rows;
  if (!only) return { by: 'all', right: [] };
  if (rows.length === 1 && only.action === 'Set' && only.test)
    return { by: 'all', right: multiple ? exactly(only.test, ids) : [oneEqual(only.test)] };
  const worth: Record<string, number> = {};
  for (const [at, row] of rows.entries()) {
    const last = at === rows.length - 1;
    // With one answer the first that fits is the only one that fits.
    if (!row.test || (multiple && (row.action === 'Set' || (!row.goesOn && !last))))
      throw new Unknown('rules');
    const id = oneEqual(row.test);
    if (worth[id] !== undefined) throw new Unknown('one choice twice');
    worth[id] = row.action === 'Subtract' ? -row.worth! : row.worth!;
    if (!['Set', 'Add', 'Subtract'].includes(row.action)) throw new Unknown(row.action);
  }
  return { by: 'each', worth, ...bounds };
}

/** The choices that have to be taken where every other must not be. */
function exactly(test: Element, ids: readonly string[]): string[] {
  const parts = test.localName === 'and' ? kids(test) : [test];
  const right: string[] = [];
  const wrong: string[] = [];
  for (const part of parts)
    if (part.localName === 'not')
      wrong.push(
        ...kids(part)
          .flatMap((k) => (k.localName === 'or' ? kids(k) : [k]))
          .map(oneEqual),
      );
    else right.push(oneEqual(part));
  if (new Set([...right, ...wrong]).size !== ids.length) throw new Unknown('not every choice is spoken of');
  return right;
}
