import { textOfRuns } from '../../document/runs.ts';
import type { Choice, ContentNode } from '../../model/content.ts';
import { choiceInteraction, element, response, text } from '../../model/make.ts';
import { letterOf } from '../../model/letterOf.ts';
import type { ScoringShape } from '../../scoring/shapes.ts';
import { withoutMark } from '../marks.ts';
import type { RawItem } from '../raw.ts';
import type { Answer } from './answer.ts';
import { inlineOf, piecesOf } from './content.ts';
import { singleKey, type Asked } from './item.ts';

/** Items of each kind, from what their document says of them. */

const RESPONSE = 'RESPONSE';
const allOrNothing = (points: number, ordered = false): ScoringShape => ({
  kind: 'all-or-nothing',
  points,
  ordered,
});

/** One or several of its choices. @param mark the mark of right choices, which is taken off them */
export function choiceItem(
  stem: readonly ContentNode[],
  raw: RawItem,
  right: readonly number[],
  mark: string | null,
  points: number,
): Asked {
  const choices = choicesIn(raw, mark);
  const key = right.map((at) => letterOf(at));
  const several = right.length > 1;
  return {
    body: [...stem, choiceInteraction({ responseId: RESPONSE, choices, maxChoices: several ? 0 : 1 })],
    responses: [response(RESPONSE, several ? 'multiple' : 'single', 'identifier', key)],
    shape: right.length === 0 ? { kind: 'none' } : allOrNothing(points),
    key: singleKey(RESPONSE, key),
  };
}

/** Choices that are to be put in order. @param order places of choices in their right order */
export function orderItem(
  stem: readonly ContentNode[],
  raw: RawItem,
  order: readonly number[],
  points: number,
): Asked {
  const key = order.map((at) => letterOf(at));
  return {
    body: [
      ...stem,
      {
        kind: 'order',
        responseId: RESPONSE,
        prompt: [],
        shuffle: true,
        maxChoices: 0,
        minChoices: 0,
        choices: choicesIn(raw, null),
      },
    ],
    responses: [response(RESPONSE, 'ordered', 'identifier', key)],
    shape: allOrNothing(points, true),
    key: singleKey(RESPONSE, key),
  };
}

const choicesIn = (raw: RawItem, mark: string | null): Choice[] =>
  raw.choices.map((choice, at) => ({
    id: letterOf(at),
    content: inlineOf(piecesOf(choice.parts.map((p) => ({ ...p, runs: withoutMark(p.runs, mark) })))),
    fixed: false,
  }));

/** True or false, in the document's own words. */
export function truthItem(
  stem: readonly ContentNode[],
  right: boolean | null,
  [yes, no]: readonly [string, string],
  points: number,
): Asked {
  const choices = [
    { id: 'true', content: [text(yes)], fixed: true },
    { id: 'false', content: [text(no)], fixed: true },
  ];
  const key = right === null ? [] : [String(right)];
  return {
    body: [...stem, choiceInteraction({ responseId: RESPONSE, choices })],
    responses: [response(RESPONSE, 'single', 'identifier', key)],
    shape: right === null ? { kind: 'none' } : allOrNothing(points),
    key: singleKey(RESPONSE, key),
  };
}

/** A longer text that a person marks. */
export function essayItem(stem: readonly ContentNode[]): Asked {
  return {
    body: [
      ...stem,
      { kind: 'extendedText', responseId: RESPONSE, prompt: [], expectedLines: 8, expectedLength: null },
    ],
    responses: [response(RESPONSE, 'single', 'string')],
    shape: { kind: 'manual' },
    key: {},
  };
}

/** What is written into blanks: one answer a blank, in their order. */
export function entryItem(stem: readonly ContentNode[], answers: readonly Answer[], points: number): Asked {
  const ids = answers.map((_, at) => (answers.length === 1 ? RESPONSE : `RESPONSE_${at + 1}`));
  const each = points / Math.max(1, answers.length);
  const parts = answers.map((answer, at) => entry(ids[at]!, answer, each));
  const placed = intoBlanks(
    stem,
    answers.map((answer, at) => entryNodes(ids[at]!, answer)),
  );
  return {
    body: placed,
    responses: parts.map((p) => p.response),
    shape:
      parts.length === 1
        ? parts[0]!.shape
        : { kind: 'sum-of-parts', parts: parts.map((p, at) => ({ responseId: ids[at]!, shape: p.shape })) },
    key: Object.fromEntries(parts.flatMap((p, at) => (p.key.length > 0 ? [[ids[at]!, p.key]] : []))),
  };
}

function entry(id: string, answer: Answer, points: number) {
  if (answer.kind === 'number') {
    const { value, stated, tolerance } = answer;
    const correct = stated ? [value] : [];
    const shape: ScoringShape = { kind: 'numeric', points, value, stated, tolerance };
    return { response: response(id, 'single', 'float', correct), shape, key: [value] };
  }
  const texts = answer.kind === 'texts' ? answer.texts : [];
  const shape: ScoringShape =
    texts.length === 0
      ? { kind: 'none' }
      : { kind: 'accepted-answers', answers: texts.map((t) => ({ text: t, points, caseSensitive: false })) };
  return { response: response(id, 'single', 'string', texts.slice(0, 1)), shape, key: texts };
}

function entryNodes(id: string, answer: Answer): ContentNode[] {
  const length = answer.kind === 'texts' ? Math.max(8, ...answer.texts.map((t) => t.length)) : 8;
  return [
    { kind: 'textEntry', responseId: id, expectedLength: Math.min(60, length), placeholder: null },
    ...(answer.kind === 'number' && answer.unit !== '' ? [text(` ${answer.unit}`)] : []),
  ];
}

const BLANK = /_{2,}|\.{5,}|…{2,}|\[\s{2,}\]|\(\s{3,}\)/gu;

/** How many blanks a text has. */
export const blanksIn = (raw: RawItem): number =>
  raw.stem.reduce((sum, p) => sum + [...textOfRuns(p.runs).matchAll(BLANK)].length, 0);

/** Entries in the places of blanks; those that find none stand below the text. */
function intoBlanks(
  stem: readonly ContentNode[],
  entries: readonly (readonly ContentNode[])[],
): ContentNode[] {
  const left = [...entries];
  const fill = (nodes: readonly ContentNode[]): ContentNode[] =>
    nodes.flatMap((node): ContentNode[] => {
      if (node.kind === 'element') return [{ ...node, children: fill(node.children) }];
      if (node.kind !== 'text') return [node];
      const out: ContentNode[] = [];
      let from = 0;
      for (const blank of node.text.matchAll(BLANK)) {
        const next = left.shift();
        if (!next) break;
        if (blank.index > from) out.push(text(node.text.slice(from, blank.index)));
        out.push(...next);
        from = blank.index + blank[0].length;
      }
      if (from < node.text.length) out.push(text(node.text.slice(from)));
      return out;
    });
  const filled = fill(stem);
  return [...filled, ...left.map((nodes) => element('p', nodes))];
}

/** Two columns to be matched. @param pairs places of left and right ones that belong together, from 0 */
export function matchItem(
  stem: readonly ContentNode[],
  left: readonly (readonly ContentNode[])[],
  right: readonly (readonly ContentNode[])[],
  pairs: readonly (readonly [number, number])[],
  points: number,
): Asked {
  const leftId = (at: number): string => `L${at + 1}`;
  const rightId = (at: number): string => `R${at + 1}`;
  const key = pairs.map(([a, b]) => `${leftId(a)} ${rightId(b)}`);
  const each = points / Math.max(1, key.length);
  return {
    body: [
      ...stem,
      {
        kind: 'match',
        responseId: RESPONSE,
        prompt: [],
        shuffle: false,
        maxAssociations: left.length,
        minAssociations: 0,
        left: left.map((content, at) => ({ id: leftId(at), content, fixed: false, matchMax: 1 })),
        right: right.map((content, at) => ({
          id: rightId(at),
          content,
          fixed: false,
          matchMax: left.length,
        })),
        rows: null,
      },
    ],
    responses: [response(RESPONSE, 'multiple', 'directedPair', key)],
    shape:
      key.length === 0
        ? { kind: 'none' }
        : {
            kind: 'per-choice',
            unit: 'pair',
            values: Object.fromEntries(key.map((k) => [k, each])),
            otherwise: 0,
            lower: 0,
            upper: points,
          },
    key: singleKey(RESPONSE, key),
  };
}
