import type { ContentNode } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import { text } from '../../model/make.ts';
import { tidyNumber } from '../../model/number.ts';
import { responseIdsOf } from '../../model/options.ts';
import { own } from '../../model/own.ts';
import { nameOf } from '../../model/plainText.ts';
import { interactionsOf, isInteraction, mapLists } from '../../model/visit.ts';
import type { ResponseDeclaration, Scalar } from '../../model/scoring.ts';
import { rawScore } from '../../scoring/evaluate.ts';
import { capitalsMatter } from '../../scoring/guess.ts';
import { choiceIds } from '../../scoring/probe.ts';
import { programFor } from '../../scoring/programFor.ts';
import { recognise, type Recognised } from '../../scoring/recognise.ts';
import { joinRows } from '../../scoring/rows.ts';
import type { ScoringShape } from '../../scoring/shapes.ts';
import { isRefused, refused, type Refused } from '../refusal.ts';
import type { WholeOperation } from './operation.ts';
import { freeId, inTheirPlace, isDrawn, severalInstead } from './several.ts';
import { rowsOf, type PartOf } from './separateRows.ts';

/** One item for each row of a matching, or for each blank: together they are worth what the one was. */
export const SEPARATE: WholeOperation<'separate'> = {
  on: 'whole',
  now: (editing, { node }) => {
    const item = editing.item(node);
    return isRefused(item) ? item : item.title;
  },
  apply: (editing, { node, replace }) => {
    const item = editing.items.get(node)!;
    const parts = partsOf(item, replace ?? false);
    if (isRefused(parts)) return parts;
    // One draw of one item cannot become one of several.
    if (isDrawn(editing, node)) return refused('item-drawn', { item: node });
    const made = parts.map((p, at) =>
      partItem(item, p, freeId(editing, `${node}-${at + 1}`), at, parts.length),
    );
    if (made.some((m) => m === null)) return refused('scoring-program');
    severalInstead(editing, item.id, made as Item[], (section, ids) => [
      { ...section, items: inTheirPlace(section.items, item.id, ids) },
    ]);
    return undefined;
  },
};

/** The parts of a matching or of several blanks, each with the whole text before it. */
function partsOf(given: Item, replace: boolean): PartOf[] | Refused {
  if (given.templates.length > 0) return refused('parameters-drawn');
  const item = joinRows(given);
  const interactions = interactionsOf(item);
  const recognised = recognise(item);
  const [only] = interactions;
  if (interactions.length === 1 && (only?.kind === 'match' || only?.kind === 'gapMatch'))
    return rowsOf(item, only, recognised, replace);
  const shape = inParts(item, recognised, replace);
  if (shape.kind !== 'sum-of-parts' || shape.parts.length < 2)
    return refused('scoring-other', { op: 'separate', kind: shape.kind });
  const asks = shape.parts.map((p) => interactions.find((i) => responseIdsOf(i).includes(p.responseId)));
  if (interactions.length !== shape.parts.length || asks.some((i) => i === undefined))
    return refused('scoring-other', { op: 'separate', kind: shape.kind });
  return shape.parts.map((p): PartOf => {
    const response = item.responses.find((r) => r.id === p.responseId)!;
    return {
      body: onlyAsking(item.body, p.responseId),
      response,
      shape: p.shape,
      key: { [response.id]: own(recognised.key, response.id) ?? [] },
    };
  });
}

/** The shape of several answers; where they score only together and that may change, each for its share. */
function inParts(item: Item, { shape, key }: Recognised, replace: boolean): ScoringShape {
  const scored = item.responses.filter((r) => (own(key, r.id) ?? []).length > 0);
  if (!replace || shape.kind !== 'all-or-nothing' || scored.length < 2) return shape;
  const points = shape.points / scored.length;
  return {
    kind: 'sum-of-parts',
    parts: scored.map((r) => ({
      responseId: r.id,
      shape: shareOf(item, r, own(key, r.id) ?? [], points),
    })),
  };
}

/** One answer of several that scored together, by itself. */
function shareOf(
  item: Item,
  response: ResponseDeclaration,
  key: readonly Scalar[],
  points: number,
): ScoringShape {
  const { best, numbers } = recognise(item);
  const score = (value: readonly Scalar[]): number =>
    rawScore(item, { ...best.answers, [response.id]: value });
  if (response.baseType === 'float' || response.baseType === 'integer') {
    const number = own(numbers, response.id);
    if (number) return { ...number, points };
  }
  if (response.baseType === 'string' && choiceIds(item, response.id).length === 0)
    return {
      kind: 'accepted-answers',
      answers: key.map((given) => {
        const text = String(given);
        return { text, points, caseSensitive: capitalsMatter(text, best.raw, score) };
      }),
    };
  return { kind: 'all-or-nothing', points, ordered: response.cardinality === 'ordered' };
}

/** The text with one place to fill in; the others are shown as such, and ask nothing. */
const onlyAsking = (nodes: readonly ContentNode[], response: string): ContentNode[] =>
  nodes.flatMap((node) => {
    if (!isInteraction(node) || responseIdsOf(node).includes(response))
      return [mapLists(node, (list) => onlyAsking(list, response))];
    const inside = node.kind === 'textEntry' || node.kind === 'inlineChoice';
    return inside ? [text('…')] : [];
  });

function partItem(whole: Item, part: PartOf, id: string, at: number, of: number): Item | null {
  const bare: Item = {
    ...whole,
    id,
    title: `${nameOf(whole)} (${at + 1}/${of})`,
    body: part.body,
    responses: [part.response],
    origin: null,
  };
  const made = programFor(bare, part.shape, part.key);
  if (!made) return null;
  const points = tidyNumber(
    'points' in part.shape ? part.shape.points : recognise({ ...bare, ...made }).best.raw * made.scale,
  );
  const general = whole.feedback.filter(
    (f) =>
      f.kind !== 'general' || whole.outcomes.some((o) => o.id === f.outcome && o.defaultValue.includes(f.id)),
  );
  return { ...bare, ...made, points, pointsExact: true, feedback: at === 0 ? general : [] };
}
