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

/** Texts that answer a candidate, in document order: in the body, then beside it. One not wanted hides what is in it. */
function feedbackIn(
  { body, feedback }: Pick<Item, 'body' | 'feedback'>,
  wanted: (outcome: string, identifier: string, show: boolean) => boolean,
): ShownFeedback[] {
  const out: ShownFeedback[] = [];
  const visit = (nodes: readonly ContentNode[]): void => {
    for (const node of nodes) {
      if (node.kind === 'feedback') {
        if (!wanted(node.outcome, node.identifier, node.show)) continue;
        out.push({ kind: node.block ? 'block' : 'inline', content: node.children });
      }
      for (const list of childrenOf(node)) visit(list);
    }
  };
  visit(body);
  for (const f of feedback)
    if (wanted(f.outcome, f.id, f.show)) out.push({ kind: kindOfFeedback(f), content: f.content });
  return out;
}

/**
 * What a candidate who gave these answers is shown (QTI 2.1 Information Model, "feedbackInline",
 * "modalFeedback" and "showHide").
 */
export const feedbackShown = (
  item: Pick<Item, 'body' | 'feedback'>,
  outcomes: Result['outcomes'],
): ShownFeedback[] =>
  feedbackIn(item, (outcome, id, show) => holds(own(outcomes, outcome) ?? null, id) === show);

/** What these answers are shown. */
export const feedbackFor = (item: Item, answers: Answers): ShownFeedback[] =>
  feedbackShown(item, evaluate(item, answers).outcomes);

/** Every text the item can answer with, whether or not any answer is shown it. */
export const allFeedback = (item: Pick<Item, 'body' | 'feedback'>): ShownFeedback[] =>
  feedbackIn(item, () => true);

const kindOfFeedback = (feedback: Feedback): FeedbackKind =>
  feedback.kind === 'general' ? 'modal' : feedback.kind;

/** A single outcome is the identifier; one of several holds it. */
const holds = (value: Value, identifier: string): boolean =>
  value?.values.some((v) => String(v) === identifier) ?? false;
