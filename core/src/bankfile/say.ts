import type { ContentNode, Interaction } from '../model/content.ts';
import type { Item, MetaField } from '../model/holding.ts';
import { letterOf } from '../model/letterOf.ts';
import { plainNumber } from '../model/number.ts';
import { own } from '../model/own.ts';
import { interactionsOf } from '../model/visit.ts';
import { blocksOf, type FormOf } from '../paper/blocks.ts';
import type { Block } from '../paper/types.ts';
import { recognise, shapeIn } from '../scoring/recognise.ts';
import type { ScoringShape } from '../scoring/shapes.ts';

/** What a document can say of an item, apart from how it is laid out: the same for a text, a table, a word processor. */
export interface SaidItem {
  readonly id: string;
  readonly passage: { readonly path: string; readonly blocks: readonly Block[] } | null;
  readonly stem: readonly Block[];
  /** What is matched with the choices, where it is. */
  readonly left: readonly (readonly Block[])[];
  readonly choices: readonly (readonly Block[])[];
  /** As it stands behind "Answer:"; '' where nothing is right. */
  readonly answer: string;
  readonly points: number;
  readonly category: string;
  /** Further fields of the source, by their names. */
  readonly fields: readonly MetaField[];
  readonly feedback: readonly (readonly Block[])[];
  readonly hints: readonly (readonly Block[])[];
  /** A model answer. */
  readonly model: readonly Block[];
}

const letter = (at: number): string => letterOf(at).toLowerCase();

/** Blanks stand where answers go; other interactions are said below the text. */
const BLANKS: FormOf = (node) =>
  node.kind === 'textEntry' || node.kind === 'inlineChoice' || node.kind === 'extendedText'
    ? { inline: node.kind === 'extendedText' ? [] : [{ kind: 'blank', letters: 4 }], blocks: [] }
    : { inline: [], blocks: [] };

export function sayItem(item: Item): SaidItem {
  const { shape, key } = recognise(item);
  const interactions = interactionsOf(item);
  const [asked] = interactions;
  const choice =
    interactions.length === 1 &&
    (asked?.kind === 'choice' || asked?.kind === 'order' || asked?.kind === 'match')
      ? asked
      : null;
  const body = trailingBlankOff(item.body);
  const prompt = choice ? choice.prompt : asked?.kind === 'extendedText' ? asked.prompt : [];
  const [stimulus] = item.stimuli;
  const general = item.feedback.filter((f) => f.kind === 'general');
  return {
    id: item.id,
    passage: stimulus ? { path: stimulus.path, blocks: blocksOf(stimulus.content, BLANKS) } : null,
    stem: [...blocksOf(body, BLANKS), ...blocksOf(prompt, BLANKS)],
    left: choice?.kind === 'match' ? choice.left.map((c) => blocksOf(c.content, BLANKS)) : [],
    choices:
      choice?.kind === 'match'
        ? choice.right.map((c) => blocksOf(c.content, BLANKS))
        : choice
          ? choice.choices.map((c) => blocksOf(c.content, BLANKS))
          : [],
    answer: choice ? choiceAnswer(choice, own(key, choice.responseId) ?? []) : entryAnswers(item, shape, key),
    points: item.points,
    category: item.category ?? '',
    fields: item.metadata.filter((f) => f.value.trim() !== '' && f.value !== item.category),
    feedback: general
      .filter((f) => item.outcomes.some((o) => o.id === f.outcome && o.defaultValue.includes(f.id)))
      .map((f) => blocksOf(f.content, BLANKS)),
    hints: item.feedback.filter((f) => f.kind === 'hint').map((f) => blocksOf(f.content, BLANKS)),
    model: item.feedback.filter((f) => f.kind === 'solution').flatMap((f) => blocksOf(f.content, BLANKS)),
  };
}

/** An answer that stands in a paragraph of its own at the end needs no blank: it is asked for by there being none. */
function trailingBlankOff(body: readonly ContentNode[]): ContentNode[] {
  const last = body.at(-1);
  const alone =
    last?.kind === 'element' &&
    last.name === 'p' &&
    last.children.length > 0 &&
    last.children.every((c) => c.kind === 'textEntry' || (c.kind === 'text' && c.text.trim() === ''));
  return alone && body.length > 1 ? body.slice(0, -1) : [...body];
}

function choiceAnswer(
  asked: Extract<Interaction, { kind: 'choice' | 'order' | 'match' }>,
  key: readonly unknown[],
): string {
  const right = key.map(String);
  if (asked.kind === 'match') {
    const place = (list: readonly { id: string }[], id: string): number => list.findIndex((c) => c.id === id);
    return right
      .map((pair) => pair.split(' '))
      .map(([a = '', b = '']): [number, number] => [place(asked.left, a), place(asked.right, b)])
      .sort((x, y) => x[0] - y[0])
      .map(([a, b]) => `${a + 1}-${letter(b)}`)
      .join(', ');
  }
  if (asked.kind === 'order')
    return right.map((id) => letter(asked.choices.findIndex((c) => c.id === id))).join(', ');
  return asked.choices.flatMap((c, at) => (right.includes(c.id) ? [letter(at)] : [])).join(', ');
}

/** What is written into blanks: alternatives with "or" between, blanks with a semicolon. */
function entryAnswers(
  item: Item,
  shape: ScoringShape,
  key: Readonly<Record<string, readonly unknown[]>>,
): string {
  if (shape.kind === 'manual' || shape.kind === 'none') return '';
  const inOrder = interactionsOf(item).flatMap((i) =>
    'responseId' in i && i.responseId !== null ? [i.responseId] : [],
  );
  return inOrder
    .map((id) => {
      const part = shapeIn(shape, id);
      if (part?.kind === 'numeric') return numberAnswer(part);
      if (part?.kind === 'accepted-answers') return part.answers.map((a) => a.text).join(' or ');
      return (own(key, id) ?? []).map(String).join(' or ');
    })
    .join('; ');
}

function numberAnswer({ value, stated, tolerance }: Extract<ScoringShape, { kind: 'numeric' }>): string {
  const n = plainNumber(value);
  if (!tolerance) return n;
  const range = `${plainNumber(tolerance.low)} to ${plainNumber(tolerance.high)}`;
  if (!stated) return range;
  if (tolerance.mode === 'absolute') return `${n} ± ${plainNumber(tolerance.high - value)}`;
  if (tolerance.mode === 'relative' && value !== 0)
    return `${n} ± ${plainNumber(((tolerance.high - value) / Math.abs(value)) * 100)} %`;
  return `${n} (${range})`;
}

/** Kinds of question that a document can ask. */
export function canSay(item: Item): boolean {
  const kinds = interactionsOf(item).map((i) => i.kind);
  if (item.templates.length > 0 || kinds.length === 0) return false;
  if (kinds.length === 1)
    return ['choice', 'order', 'match', 'textEntry', 'extendedText'].includes(kinds[0]!);
  return kinds.every((k) => k === 'textEntry');
}

/** A row has no place for a second column of choices. */
export const canSayInTable = (item: Item): boolean =>
  canSay(item) && interactionsOf(item).every((i) => i.kind !== 'match');
