import type { ContentNode, Feedback } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { childrenOf } from '../model/visit.ts';
import { evaluate, type Answers, type Result } from './evaluate.ts';
import type { Value } from './value.ts';
import { own } from '../model/own.ts';

/** How a text that answers a candidate is shown: beside the item, in its body, or on request. */
export type FeedbackKind = 'modal' | 'inline' | 'block' | 'hint' | 'solution';

export interface ShownFeedback {
  readonly kind: FeedbackKind;
  readonly content: readonly ContentNode[];
}

/**
 * What a candidate who gave these answers is shown, in document order: first what stands in the body, then
 * what stands beside it (QTI 2.1 Information Model, "feedbackInline", "modalFeedback" and "showHide").
 */
export function feedbackShown(
  item: Pick<Item, 'body' | 'feedback'>,
  outcomes: Result['outcomes'],
): ShownFeedback[] {
  const out: ShownFeedback[] = [];
  const visit = (nodes: readonly ContentNode[]): void => {
    for (const node of nodes) {
      if (node.kind === 'feedback') {
        if (holds(own(outcomes, node.outcome) ?? null, node.identifier) !== node.show) continue;
        out.push({ kind: node.block ? 'block' : 'inline', content: node.children });
      }
      for (const list of childrenOf(node)) visit(list);
    }
  };
  visit(item.body);
  for (const feedback of item.feedback)
    if (holds(own(outcomes, feedback.outcome) ?? null, feedback.id) === feedback.show)
      out.push({ kind: kindOfFeedback(feedback), content: feedback.content });
  return out;
}

/** What these answers are shown. */
export const feedbackFor = (item: Item, answers: Answers): ShownFeedback[] =>
  feedbackShown(item, evaluate(item, answers).outcomes);

/** Every text the item can answer with, whether or not any answer is shown it. */
export function allFeedback(item: Pick<Item, 'body' | 'feedback'>): ShownFeedback[] {
  const out: ShownFeedback[] = [];
  const visit = (nodes: readonly ContentNode[]): void => {
    for (const node of nodes) {
      if (node.kind === 'feedback')
        out.push({ kind: node.block ? 'block' : 'inline', content: node.children });
      for (const list of childrenOf(node)) visit(list);
    }
  };
  visit(item.body);
  return [...out, ...item.feedback.map((f) => ({ kind: kindOfFeedback(f), content: f.content }))];
}

const kindOfFeedback = (feedback: Feedback): FeedbackKind =>
  feedback.kind === 'general' ? 'modal' : feedback.kind;

/** A single outcome is the identifier; one of several holds it. */
const holds = (value: Value, identifier: string): boolean =>
  value?.values.some((v) => String(v) === identifier) ?? false;
