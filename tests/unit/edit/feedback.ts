import { evaluate, plain, type Answers, type Item } from '@alforja/core';
import { feedbackShown } from '../../../core/src/scoring/feedback.ts';

export { applyEdits } from '@alforja/core';

/** What an answer is shown, as text. */
export const feedbackOf = (item: Item, answers: Answers): string[] =>
  feedbackShown(item, evaluate(item, answers).outcomes).map((f) => plain(f.content));
