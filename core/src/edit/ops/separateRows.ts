import type { ContentNode, Interaction } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import { text } from '../../model/make.ts';
import { optionSets } from '../../model/options.ts';
import { own } from '../../model/own.ts';
import { mapLists } from '../../model/visit.ts';
import type { ResponseDeclaration } from '../../model/scoring.ts';
import type { Recognised } from '../../scoring/recognise.ts';
import type { Key, ScoringShape } from '../../scoring/shapes.ts';
import { worthOf } from '../keys.ts';
import { refused, type Refused } from '../refusal.ts';

/** One of the items that come of one: what it asks, and how that scores. */
export interface PartOf {
  readonly body: readonly ContentNode[];
  readonly response: ResponseDeclaration;
  readonly shape: ScoringShape;
  readonly key: Key;
}

type Pairing = Extract<Interaction, { kind: 'match' | 'gapMatch' }>;

/** A row of a matching or a gap of a text, with what can be chosen for it and what is right. */
export function rowsOf(
  item: Item,
  pairing: Pairing,
  recognised: Recognised,
  replace: boolean,
): PartOf[] | Refused {
  const response = item.responses.find((r) => r.id === pairing.responseId);
  const [first = [], second = []] = optionSets(pairing);
  if (!response) return refused('choice-place');
  const { shape } = recognised;
  const [rows, offered] = pairing.kind === 'match' ? [first, second] : [second, first];
  const pair = (row: string, choice: string): string =>
    pairing.kind === 'match' ? `${row} ${choice}` : `${choice} ${row}`;
  const key = (own(recognised.key, response.id) ?? []).map(String);
  const right = rows.map((row) => offered.map((c) => c.id).filter((id) => key.includes(pair(row.id, id))));
  const counted = rows.map((row, at) => ({ row, right: right[at]! })).filter((r) => r.right.length > 0);
  // A row that has no partner is a trap in a matching; asked by itself there would be nothing right.
  if (counted.length === 0) return refused('key-empty');
  const byRow =
    shape.kind === 'per-choice' && shape.otherwise === 0 && shape.upper === null && (shape.lower ?? 0) === 0;
  // All or nothing of one row is what the row gives.
  const asIs =
    byRow || (counted.length === 1 && counted[0]!.right.length === 1 && shape.kind === 'all-or-nothing');
  if (!asIs && !(replace && (shape.kind === 'all-or-nothing' || shape.kind === 'per-choice')))
    return refused('scoring-other', { op: 'separate', kind: shape.kind });
  const whole = item.points > 0 ? item.points : worthOf(item, recognised, response);
  const valueOf = (row: string, choice: string): number =>
    shape.kind === 'per-choice' ? (own(shape.values, pair(row, choice)) ?? 0) : 1;
  const pairs = counted.flatMap((r) => r.right.map((choice) => valueOf(r.row.id, choice)));
  const times = byRow ? 1 : whole / pairs.reduce((a, b) => a + b, 0);
  return counted.map(({ row, right: partners }): PartOf => {
    const asks: ContentNode = {
      kind: 'choice',
      responseId: response.id,
      prompt: row.content,
      shuffle: pairing.shuffle,
      maxChoices: partners.length > 1 ? 0 : 1,
      minChoices: 0,
      choices: offered.map(({ id, content, fixed }) => ({ id, content, fixed })),
    };
    const list = (nodes: readonly ContentNode[]): ContentNode[] =>
      nodes.flatMap((n) => (n === pairing ? [...inFront(pairing, row.id), asks] : [mapLists(n, list)]));
    const declared = {
      cardinality: partners.length > 1 ? 'multiple' : 'single',
      baseType: 'identifier',
      correct: partners,
      mapping: null,
    } as const;
    const worth = partners.map((id) => [id, valueOf(row.id, id) * times] as const);
    const points = worth.reduce((sum, [, v]) => sum + v, 0);
    return {
      body: list(item.body),
      response: { ...response, ...declared },
      shape:
        partners.length > 1 && byRow
          ? {
              kind: 'per-choice',
              unit: 'choice',
              values: Object.fromEntries(worth),
              otherwise: 0,
              lower: null,
              upper: null,
            }
          : { kind: 'all-or-nothing', points, ordered: false },
      key: { [response.id]: partners },
    };
  });
}

/** What is read before the choices of one row; of a text with gaps, which one is meant. */
const inFront = (pairing: Pairing, row: string): ContentNode[] => {
  if (pairing.kind === 'match') return [...pairing.prompt];
  const marked = (nodes: readonly ContentNode[]): ContentNode[] =>
    nodes.map((n) => (n.kind === 'gap' ? text(n.id === row ? '____' : '…') : mapLists(n, marked)));
  return [...pairing.prompt, ...marked(pairing.content)];
};
