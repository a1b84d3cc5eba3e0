import type { Interaction } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import { mapRule } from '../../model/mapRule.ts';
import { near, tidyNumber } from '../../model/number.ts';
import { own } from '../../model/own.ts';
import { composed } from '../../model/composed.ts';
import { isInteraction, mapLists } from '../../model/visit.ts';
import { responseIdsOf } from '../../model/options.ts';
import type { Expr, ResponseDeclaration, Scalar } from '../../model/scoring.ts';
import type { ContentNode } from '../../model/content.ts';
import { bestOf } from '../../scoring/best.ts';
import { concrete } from '../../scoring/concrete.ts';
import { literalsOf } from '../../scoring/literals.ts';
import { choiceIds } from '../../scoring/probe.ts';
import { recognise, shapeIn, type Recognised } from '../../scoring/recognise.ts';
import type { NumericShape, ScoringShape, Tolerance } from '../../scoring/shapes.ts';
import {
  keyed,
  keyValues,
  partForKey,
  responseOf,
  withKey,
  withPart,
  worthOf,
  type Accepted,
} from '../keys.ts';
import { isRefused, refused, type Refused } from '../refusal.ts';
import { rescore } from '../rescore.ts';
import type { EditOf } from '../schema.ts';
import type { ItemOperation } from './operation.ts';

/** The most an item gives; every part of it changes in proportion. */
export const POINTS: ItemOperation<'points'> = {
  on: 'item',
  now: (item) => item.points,
  wanted: (edit) => edit.to,
  apply: (item, { to }) => {
    if (to < 0) return refused('points-negative');
    const points = tidyNumber(to);
    // A maximum that its author declares in the units of the program stands; the unit is what changes.
    const sources = item.pointsSources.filter((s) => s.source === 'declared');
    const raw = item.points > 0 && item.scale > 0 ? item.points / item.scale : bestOf(concrete(item)).raw;
    if (raw > 0) return { ...item, points, scale: to / raw, pointsSources: sources };
    const weightless = item.outcomes.map((o) =>
      o.id === item.scoreOutcome && o.normalMaximum !== null ? { ...o, normalMaximum: points } : o,
    );
    return { ...item, points, outcomes: weightless, pointsSources: [] };
  },
};

/** An item whose scoring can be written anew, or why it cannot. */
function rewritable(item: Item, replace: boolean | undefined): Recognised | Refused {
  if (item.templates.length > 0) return refused('parameters-drawn');
  const recognised = recognise(item);
  if (replace) return recognised;
  if (recognised.shape.kind === 'program' || item.adaptive) return refused('scoring-program');
  return recognised;
}

/** As many picks as the key has can be made. */
function roomForKey(item: Item, response: ResponseDeclaration, count: number): Item {
  const list = (nodes: readonly ContentNode[]): ContentNode[] => nodes.map(visit);
  const visit = (given: ContentNode): ContentNode => {
    const node = mapLists(given, list);
    if (!isInteraction(node) || !responseIdsOf(node).includes(response.id)) return node;
    return limited(node, count);
  };
  return response.cardinality === 'single' ? item : { ...item, body: list(item.body) };
}

function limited(node: Interaction, count: number): Interaction {
  const least = (n: number): number => Math.min(n, count);
  const most = (n: number): number => (n === 0 ? 0 : Math.max(n, count));
  if ('maxChoices' in node)
    return { ...node, maxChoices: most(node.maxChoices), minChoices: least(node.minChoices) };
  if ('maxAssociations' in node)
    return {
      ...node,
      maxAssociations: most(node.maxAssociations),
      minAssociations: least(node.minAssociations),
    };
  return node;
}

export const KEY: ItemOperation<'key'> = {
  on: 'item',
  now: (item, edit) => {
    const response = responseOf(item, edit.response);
    if (isRefused(response)) return response;
    const { key, shape } = recognise(item);
    const part = shapeIn(shape, response.id);
    return part?.kind === 'numeric' ? [part.value] : (own(key, response.id) ?? []);
  },
  wanted: (edit, item) => {
    const response = responseOf(item, edit.response);
    if (isRefused(response) || namesUnknown(item, response)) return undefined;
    const values = keyValues(item, response, edit.to);
    // A key that is only declared, and scores nothing, is not there yet.
    return isRefused(values) || !keyed(recognise(item).shape) ? undefined : values;
  },
  apply: (item, edit) => {
    const response = responseOf(item, edit.response);
    if (isRefused(response)) return response;
    const recognised = rewritable(item, edit.replace ?? nobodyIsRight(item, response));
    if (isRefused(recognised)) return recognised;
    const wanted = keyValues(item, response, edit.to);
    if (isRefused(wanted)) return wanted;
    if (sameKey(recognised, response, wanted) && !namesUnknown(item, response)) return item;
    if (fewerInOrder(item, recognised, response, wanted))
      return refused('key-value', { value: wanted.join(', '), wants: 'all choices, in their order' });
    const part = partForKey(item, recognised, response, wanted);
    if (isRefused(part)) return part;
    const roomy = roomForKey(item, response, wanted.length);
    const shape = together(item, recognised.shape, response, part);
    return rescore(roomy, shape, withKey(recognised.key, response.id, wanted), item);
  },
};

/** Whether the scoring speaks of choices that are not there: it has to be written anew even for the same key. */
function namesUnknown(item: Item, response: ResponseDeclaration): boolean {
  const ids = choiceIds(item, response.id);
  return (
    ids.length > 0 &&
    literalsOf(item)
      .get(response.id)!
      .values.some((v) => !ids.includes(String(v)))
  );
}

/** Whether an order of all choices would become one of some of them. */
const fewerInOrder = (
  item: Item,
  { key }: Recognised,
  { id, cardinality }: ResponseDeclaration,
  wanted: readonly Scalar[],
): boolean => {
  const all = choiceIds(item, id).length;
  const before = (own(key, id) ?? []).length;
  return cardinality === 'ordered' && wanted.length < all && (before === 0 || before === all);
};

/** Whether what would be right is not there to be picked: such a program is no loss. */
const nobodyIsRight = (item: Item, response: ResponseDeclaration): boolean =>
  namesUnknown(item, response) && (own(recognise(item).key, response.id) ?? []).length === 0;

/** Where only all answers together score, another key for one of them leaves that as it is. */
function together(
  item: Item,
  shape: ScoringShape,
  response: ResponseDeclaration,
  part: ScoringShape,
): ScoringShape {
  const joint = shape.kind === 'all-or-nothing' && item.responses.length > 1;
  return joint
    ? shape
    : withPart(item, shape.kind === 'program' ? { kind: 'none' } : shape, response.id, part);
}

function sameKey(
  { key, shape, numbers }: Recognised,
  response: ResponseDeclaration,
  wanted: readonly Scalar[],
): boolean {
  const part = own(numbers, response.id) ?? shapeIn(shape, response.id);
  if (!keyed(shape) || shape.kind === 'program') return false;
  if (part?.kind === 'numeric') return part.stated && part.value === wanted[0];
  const sorted = (list: readonly Scalar[]): string =>
    (response.cardinality === 'ordered' ? list.map(String) : list.map(String).sort()).join('\u0001');
  return sorted(own(key, response.id) ?? []) === sorted(wanted);
}

/** The one response whose part of the scoring is of a kind. */
function partOfKind<K extends ScoringShape['kind']>(
  item: Item,
  shape: ScoringShape,
  kinds: readonly K[],
  edit: { readonly response?: string | undefined; readonly op: string },
): { response: ResponseDeclaration; part: Extract<ScoringShape, { kind: K }> } | Refused {
  const found = item.responses.flatMap((response) => {
    if (edit.response !== undefined && response.id !== edit.response) return [];
    const part = shapeIn(shape, response.id);
    const sole = shape.kind === 'sum-of-parts' || item.responses.length === 1 || edit.response !== undefined;
    const fits =
      part !== null && (kinds as readonly string[]).includes(part.kind) && (sole || scores(item, response));
    return fits ? [{ response, part: part as Extract<ScoringShape, { kind: K }> }] : [];
  });
  if (found.length === 1) return found[0]!;
  if (found.length > 1)
    return refused('response-needed', { known: found.map((f) => f.response.id).join(', ') });
  return refused('scoring-other', { op: edit.op, kind: shape.kind });
}

const scores = (item: Item, response: ResponseDeclaration): boolean =>
  (own(recognise(item).key, response.id) ?? []).length > 0;

export const ACCEPT: ItemOperation<'accept'> = {
  on: 'item',
  now: (item, edit) => {
    const response = responseOf(item, edit.response);
    if (isRefused(response)) return response;
    const part = shapeIn(recognise(item).shape, response.id);
    return part?.kind === 'accepted-answers' ? byText(part.answers) : [];
  },
  wanted: (edit, item) => {
    const response = responseOf(item, edit.response);
    if (isRefused(response)) return undefined;
    const part = acceptedPart(edit, worthOf(item, recognise(item), response));
    return isRefused(part) ? undefined : byText(part.answers);
  },
  apply: (item, edit) => {
    const recognised = rewritable(item, edit.replace);
    if (isRefused(recognised)) return recognised;
    const response = responseOf(item, edit.response);
    if (isRefused(response)) return response;
    const typed = response.cardinality === 'single' && response.baseType === 'string';
    const before = shapeIn(recognised.shape, response.id);
    if (!typed || (before?.kind === 'pattern' && !edit.replace))
      return refused('scoring-other', { op: 'accept', kind: before?.kind ?? 'none' });
    const part = acceptedPart(edit, worthOf(item, recognised, response));
    if (isRefused(part)) return part;
    const shape = together(item, recognised.shape, response, part);
    const full = part.answers.filter((a) => near(a.points, Math.max(...part.answers.map((x) => x.points))));
    return rescore(
      item,
      shape,
      withKey(
        recognised.key,
        response.id,
        full.map((a) => a.text),
      ),
    );
  },
};

const byText = (answers: Accepted['answers']): Accepted['answers'] =>
  [...answers].sort((a, b) => (a.text < b.text ? -1 : a.text > b.text ? 1 : 0));

function acceptedPart(edit: EditOf<'accept'>, points: number): Accepted | Refused {
  if (edit.to.length === 0) return refused('key-empty');
  const answers = edit.to.map((a) => ({
    text: a.text.trim(),
    points: a.points ?? points,
    caseSensitive: a.caseSensitive ?? false,
  }));
  if (answers.some((a) => a.text === '')) return refused('key-value', { value: '', wants: 'a text' });
  if (answers.some((a) => a.points < 0)) return refused('points-negative');
  if (!answers.some((a) => a.points > 0)) return refused('key-empty');
  const twice = twiceIn(answers);
  return twice === null ? { kind: 'accepted-answers', answers } : refused('answer-twice', { text: twice });
}

/** A text that stands twice, capitals aside where they do not matter. */
function twiceIn(answers: Accepted['answers']): string | null {
  const seen = new Map<string, Accepted['answers'][number]>();
  for (const a of answers) {
    const exactly = `=${composed(a.text)}`;
    const folded = `~${composed(a.text.toLowerCase())}`;
    if (seen.has(exactly) || (!a.caseSensitive && seen.has(folded))) return a.text;
    seen.set(exactly, a);
    if (!a.caseSensitive) seen.set(folded, a);
  }
  return null;
}

const spanOf = (t: Tolerance | null) =>
  t && { mode: t.mode, low: t.low, high: t.high, includesLow: t.includesLow, includesHigh: t.includesHigh };

export const TOLERANCE: ItemOperation<'tolerance'> = {
  on: 'item',
  now: (item, edit) => {
    const found = partOfKind(item, recognise(item).shape, ['numeric'], edit);
    return isRefused(found) ? found : spanOf(found.part.tolerance);
  },
  wanted: (edit, item) => {
    const found = partOfKind(item, recognise(item).shape, ['numeric'], edit);
    const wanted = isRefused(found) ? found : numericWith(found.part, edit.to);
    if (isRefused(found) || isRefused(wanted)) return undefined;
    // The same bounds are the same tolerance, whichever way they are written.
    return spanOf(sameSpan(found.part.tolerance, wanted.tolerance) ? found.part.tolerance : wanted.tolerance);
  },
  apply: (item, edit) => {
    const recognised = rewritable(item, false);
    if (isRefused(recognised)) return recognised;
    const found = partOfKind(item, recognised.shape, ['numeric'], edit);
    if (isRefused(found)) return found;
    const { response, part } = found;
    const wanted = numericWith(part, edit.to);
    if (isRefused(wanted)) return wanted;
    const shape = together(item, recognised.shape, response, wanted);
    const next = rescore(item, shape, withKey(recognised.key, response.id, [wanted.value]));
    if (isRefused(next)) return next;
    const made = shapeIn(recognise(next).shape, response.id);
    const held = made?.kind === 'numeric' && sameSpan(made.tolerance, wanted.tolerance);
    return held ? next : refused('scoring-not-as-asked');
  },
};

const sameSpan = (a: Tolerance | null, b: Tolerance | null): boolean =>
  a === null || b === null
    ? a === b
    : a.low === b.low &&
      a.high === b.high &&
      a.includesLow === b.includesLow &&
      a.includesHigh === b.includesHigh;

function numericWith(part: NumericShape, to: EditOf<'tolerance'>['to']): NumericShape | Refused {
  if (to === null) return { ...part, stated: true, tolerance: null };
  const tolerance: Tolerance = {
    mode: to.mode,
    low: to.low,
    high: to.high,
    includesLow: to.includesLow ?? true,
    includesHigh: to.includesHigh ?? true,
  };
  const { low, high } = tolerance;
  if (low > high || (low === high && !(tolerance.includesLow && tolerance.includesHigh)))
    return refused('bounds-order');
  const inside = part.value >= low && part.value <= high;
  if (part.stated && !inside)
    return refused('bounds-around', { value: String(part.value), low: String(low), high: String(high) });
  const value = inside ? part.value : tidyNumber((low + high) / 2);
  return { ...part, value, tolerance: low === high ? null : tolerance };
}

export const CASE: ItemOperation<'case'> = {
  on: 'item',
  now: (item, edit) => {
    const flags = caseFlags(item, edit);
    if (isRefused(flags)) return flags;
    return flags.every((f) => f) ? true : flags.some((f) => f) ? null : false;
  },
  wanted: (edit) => edit.to,
  apply: (item, edit) => {
    const recognised = rewritable(item, false);
    if (isRefused(recognised)) return recognised;
    let shape = recognised.shape;
    let substrings = false;
    for (const { id } of textResponses(item, shape, edit.response)) {
      const part = shapeIn(shape, id)!;
      if (part.kind === 'pattern') substrings = true;
      if (part.kind !== 'accepted-answers') continue;
      const changed: Accepted = {
        ...part,
        answers: part.answers.map((a) => ({ ...a, caseSensitive: edit.to })),
      };
      const twice = twiceIn(changed.answers);
      if (twice !== null) return refused('answer-twice', { text: twice });
      shape = withPart(item, shape, id, changed);
    }
    if (substrings && shape === recognised.shape) return recased(item, edit.to);
    return rescore(item, shape, recognised.key);
  },
};

/** Responses whose scoring is by text, and in which capitals can matter. */
function textResponses(item: Item, shape: ScoringShape, given: string | undefined): ResponseDeclaration[] {
  return item.responses.filter((r) => {
    if (given !== undefined && r.id !== given) return false;
    const part = shapeIn(shape, r.id);
    if (shape.kind !== 'sum-of-parts' && item.responses.length > 1 && !scores(item, r)) return false;
    return part?.kind === 'accepted-answers' || (part?.kind === 'pattern' && part.patterns.length === 0);
  });
}

function caseFlags(item: Item, edit: EditOf<'case'>): boolean[] | Refused {
  const { shape } = recognise(item);
  const flags = textResponses(item, shape, edit.response).flatMap((r) => {
    const part = shapeIn(shape, r.id);
    return part?.kind === 'accepted-answers'
      ? part.answers.map((a) => a.caseSensitive)
      : substringCase(item, r.id);
  });
  return flags.length > 0 ? flags : refused('scoring-other', { op: 'case', kind: shape.kind });
}

const matchesPart = (e: Extract<Expr, { op: 'call' }>): boolean =>
  e.name === 'substring' || e.name === 'stringMatch';

function substringCase(item: Item, response: string): boolean[] {
  const out: boolean[] = [];
  const visit = (e: Expr): Expr => {
    if (e.op !== 'call') return e;
    if (matchesPart(e) && e.args.some((a) => a.op === 'variable' && a.id === response))
      out.push(e.attrs?.['caseSensitive'] !== 'false');
    e.args.forEach(visit);
    return e;
  };
  item.scoring.rules.forEach((r) => mapRule(r, visit));
  return out;
}

function recased(item: Item, to: boolean): Item {
  const expr = (e: Expr): Expr => {
    if (e.op !== 'call') return e;
    const args = e.args.map(expr);
    const attrs = matchesPart(e) ? { ...(e.attrs ?? {}), caseSensitive: String(to) } : e.attrs;
    return { ...e, args, ...(attrs ? { attrs } : {}) };
  };
  return { ...item, scoring: { ...item.scoring, rules: item.scoring.rules.map((r) => mapRule(r, expr)) } };
}
