import equal from 'fast-deep-equal';
import { canonicalMath, canonicalText } from '../match/canonical.ts';
import { allFeedback, feedbackFor, type ShownFeedback } from '../scoring/feedback.ts';
import { exampleOf, smallest, type AnswerPair, type AnswersOfBoth } from './answers.ts';
import { difference } from './differences.ts';
import { mediaIn } from './side.ts';
import type { Difference } from './types.ts';

/**
 * What candidates are told, and when: the texts of both sides, and, answer by answer, which of them are
 * shown. An answer that is shown something else goes along as the example.
 */
export function compareFeedback(answers: AnswersOfBoth): Difference[] {
  const { source, arrived, pairs } = answers;
  const [from, to] = [textsOf(allFeedback(source.given)), textsOf(allFeedback(arrived.given))];
  if (from.length === 0 && to.length === 0) return [];
  const shown = ({ left, right }: AnswerPair): readonly [string[], string[]] => [
    textsOf(feedbackFor(source.item, left)),
    textsOf(feedbackFor(arrived.item, right)),
  ];
  const differing = pairs.filter((pair) => !equal(...shown(pair)));
  const other = !equal(from, to);
  if (differing.length === 0) return other ? [difference('feedback', from, to)] : [];
  const told = smallest(differing);
  const [before, after] = other ? [from, to] : shown(told);
  return [difference('feedback', before, after, exampleOf(told, source, arrived))];
}

/** What is said, sorted; hints and solutions are shown on request, so they are not the same as the rest. */
const textsOf = (list: readonly ShownFeedback[]): string[] =>
  list
    .map(textOf)
    .filter((t) => t !== '')
    .sort();

function textOf({ kind, content }: ShownFeedback): string {
  const pictures = mediaIn(content).map((m) => `[${m.attrs['alt'] ?? ''}]`);
  const text = [canonicalText(content), ...canonicalMath(content), ...pictures].join(' ').trim();
  return text !== '' && (kind === 'hint' || kind === 'solution') ? `‹${kind}› ${text}` : text;
}
