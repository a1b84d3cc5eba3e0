import { isRefused } from '../refusal.ts';
import type { WholeOperation } from './operation.ts';

/**
 * A quiz as its sections and nothing else: without parts, conditions, feedback on the whole and scoring of its own
 * (QTI 2.1, "testPart", "preCondition", "branchRule", "testFeedback", "outcomeProcessing").
 */
export const TEST_PLAIN: WholeOperation<'test-plain'> = {
  on: 'whole',
  now: (editing, { node }) => {
    const quiz = editing.quiz(node);
    return isRefused(quiz) ? quiz : quiz.test !== null;
  },
  wanted: () => false,
  apply: (editing, { node }) => {
    editing.quizzes.set(node, { ...editing.quizzes.get(node)!, test: null });
    return undefined;
  },
};
