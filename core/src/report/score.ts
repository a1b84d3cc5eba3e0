import { parseNumber, tidyNumber } from '../model/number.ts';
import { finding, Refusal } from '../model/finding.ts';
import type { Item } from '../model/holding.ts';
import type { Scalar } from '../model/scoring.ts';
import { plain } from '../model/plainText.ts';
import { feedbackShown } from '../scoring/feedback.ts';
import { evaluate, type Answers } from '../scoring/evaluate.ts';
import type { Value } from '../scoring/value.ts';
import { choiceIds } from '../scoring/probe.ts';

/** What `alforja score` prints: outcomes as they are, score and maximum in points, and what is shown. */
export function scoreReport(item: Item, answers: Answers) {
  const result = evaluate(item, answers);
  return {
    outcomes: Object.fromEntries(Object.entries(result.outcomes).map(([id, v]) => [id, plainValue(v)])),
    score: tidyNumber(result.score),
    maximum: item.points,
    feedback: feedbackShown(item, result.outcomes).map(({ kind, content }) => ({
      kind,
      text: plain(content, { alternatives: true }),
    })),
  };
}

function plainValue(value: Value): Scalar | readonly Scalar[] | null {
  if (value === null) return null;
  return value.cardinality === 'single' ? value.values[0]! : value.values;
}

/**
 * Answers from `ID=VALUE` words; an id given several times gets several values in their order.
 * @throws Refusal naming the response or the value that does not fit
 */
export function parseAnswers(item: Item, given: readonly string[]): Answers {
  const answers = new Map<string, Scalar[]>();
  for (const word of given) {
    const equals = word.indexOf('=');
    const id = equals < 0 ? word : word.slice(0, equals);
    const response = item.responses.find((r) => r.id === id);
    if (equals < 0 || !response) {
      const known = item.responses.map((r) => r.id).join(', ');
      throw new Refusal(finding('response-unknown', 'error', { node: item.id }, { response: id, known }));
    }
    const text = word.slice(equals + 1);
    const numeric = response.baseType === 'float' || response.baseType === 'integer';
    // Text for a number is an answer a student can give; it scores as none.
    const value: Scalar = numeric ? (parseNumber(text) ?? text) : text;
    const ids = choiceIds(item, id);
    if (ids.length > 0 && !ids.includes(text)) {
      throw new Refusal(
        finding('choice-unknown', 'error', { node: item.id }, { choice: text, known: ids.join(', ') }),
      );
    }
    answers.set(id, [...(answers.get(id) ?? []), value]);
  }
  return Object.fromEntries(answers);
}
