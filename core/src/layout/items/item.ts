import type { ContentNode, Feedback, Interaction } from '../../model/content.ts';
import type { Item, MetaField, Stimulus } from '../../model/holding.ts';
import { item as makeItem, outcome, text } from '../../model/make.ts';
import type { ResponseDeclaration, Scalar } from '../../model/scoring.ts';
import { programFor } from '../../scoring/programFor.ts';
import type { Key, ScoringShape } from '../../scoring/shapes.ts';
import type { RawField } from '../raw.ts';
import { inlineOf, picturesIn, piecesOf } from './content.ts';

/** What an item is made of before it is one: its kind, with all that scoring needs. */
export interface Asked {
  /** The body, interactions in their places. */
  readonly body: readonly ContentNode[];
  readonly responses: readonly ResponseDeclaration[];
  readonly shape: ScoringShape;
  readonly key: Key;
}

/** What else the document says of an item. */
export interface Said {
  readonly id: string;
  readonly title: string;
  readonly points: number;
  readonly category: string | null;
  readonly metadata: readonly MetaField[];
  /** Texts that everybody is shown after answering. */
  readonly feedback: readonly (readonly ContentNode[])[];
  readonly hints: readonly (readonly ContentNode[])[];
  /** A model answer. */
  readonly solution: readonly ContentNode[];
  readonly stimuli: readonly Stimulus[];
}

/** An item of the tree, with a program that scores it as the document says. */
export function itemOf(asked: Asked, said: Said): Item {
  const feedback = feedbackOf(said);
  const manual = asked.shape.kind === 'manual';
  // Without a key nothing can be scored; what it is worth is said all the same.
  const open = manual || asked.shape.kind === 'none';
  const base = makeItem({
    id: said.id,
    title: said.title,
    body: asked.body,
    responses: asked.responses,
    outcomes: [
      outcome('SCORE', open ? { normalMaximum: said.points, externalScored: manual } : {}),
      ...(feedback.length > 0
        ? [
            outcome('FEEDBACK', {
              cardinality: 'multiple',
              baseType: 'identifier',
              defaultValue: feedback.filter((f) => f.kind === 'general').map((f) => f.id),
            }),
          ]
        : []),
    ],
    points: said.points,
    pointsSources: open ? [{ source: 'declared', value: said.points }] : [],
    feedback,
    stimuli: said.stimuli,
    category: said.category,
    metadata: said.metadata,
  });
  const scored = programFor(base, asked.shape, asked.key);
  const made = scored && !open ? { ...base, ...scored } : base;
  return { ...made, files: filesOf(made) };
}

function feedbackOf({ feedback, hints, solution }: Said): Feedback[] {
  const made = (id: string, kind: Feedback['kind'], content: readonly ContentNode[]): Feedback => ({
    id,
    kind,
    title: '',
    outcome: 'FEEDBACK',
    show: true,
    content,
  });
  return [
    ...feedback.map((content, at) =>
      made(`general_feedback${at === 0 ? '' : `_${at + 1}`}`, 'general', content),
    ),
    ...hints.map((content, at) => made(`hint_${at + 1}`, 'hint', content)),
    ...(solution.length > 0 ? [made('solution', 'solution', solution)] : []),
  ];
}

function filesOf(item: Item): Item['files'] {
  const inside = (nodes: readonly ContentNode[]): string[] =>
    nodes.flatMap((n) => {
      if (n.kind === 'element') return picturesIn([n]);
      return isInteraction(n) ? optionContent(n).flatMap((c) => inside(c)) : [];
    });
  const all = [
    ...item.stimuli.flatMap((s) => inside(s.content)),
    ...inside(item.body),
    ...item.feedback.flatMap((f) => inside(f.content)),
  ];
  return [...new Set(all)].map((path) => ({ path, present: true }));
}

const isInteraction = (node: ContentNode): node is Interaction => 'responseId' in node;
function optionContent(node: Interaction): (readonly ContentNode[])[] {
  if (node.kind === 'choice' || node.kind === 'order') return node.choices.map((c) => c.content);
  return node.kind === 'match' ? [...node.left, ...node.right].map((c) => c.content) : [];
}

/** A field's value as content. */
export const fieldContent = (field: RawField): ContentNode[] => inlineOf(piecesOf(field.parts));

export const singleKey = (id: string, values: readonly Scalar[]): Key =>
  values.length > 0 ? { [id]: values } : {};
export const plainText = (value: string): ContentNode[] => (value.trim() === '' ? [] : [text(value.trim())]);
