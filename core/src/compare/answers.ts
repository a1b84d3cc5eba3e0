import type { Item } from '../model/holding.ts';
import { tidyNumber } from '../model/number.ts';
import { concrete } from '../scoring/concrete.ts';
import { rawScore, type Answers } from '../scoring/evaluate.ts';
import { answerTexts } from '../scoring/keyTexts.ts';
import { possibleAnswers } from '../scoring/possible.ts';
import { probesOf } from '../scoring/probe.ts';
import { recognise, type Recognised } from '../scoring/recognise.ts';
import type { Side } from './side.ts';
import { translate, type Translation } from './translate.ts';
import type { Example } from './types.ts';

/** One item's scoring, recognised once. */
export interface Scored {
  readonly given: Item;
  /** As one candidate gets it. */
  readonly item: Item;
  readonly recognised: Recognised;
}

/** The same answer in the identifiers of both items. */
export interface AnswerPair {
  readonly left: Answers;
  readonly right: Answers;
}

/** Two items and the answers that can be given to both of them. */
export interface AnswersOfBoth {
  readonly source: Scored;
  readonly arrived: Scored;
  readonly translation: Translation;
  readonly pairs: readonly AnswerPair[];
}

const scoredOf = (given: Item): Scored => {
  const item = concrete(given);
  return { given, item, recognised: recognise(item) };
};

/** Answers chosen to tell either item's rules from others, as far as both can be answered so. */
export function answersOf(left: Side, right: Side): AnswersOfBoth {
  const [source, arrived] = [scoredOf(left.item), scoredOf(right.item)];
  const translation = translate(left, right);
  const pairs: AnswerPair[] = [];
  const add = (a: Answers | null, b: Answers | null): void => {
    if (a && b && possibleAnswers(source.item, a) && possibleAnswers(arrived.item, b))
      pairs.push({ left: a, right: b });
  };
  for (const a of probesOf(source.item, source.recognised.best.answers).answers)
    add(a, translation.forward(a));
  for (const b of probesOf(arrived.item, arrived.recognised.best.answers).answers)
    add(translation.back(b), b);
  return { source, arrived, translation, pairs };
}

/** Few values first, then short ones: which of two answers is the plainer example. */
const answerSize = (answers: Answers): number =>
  Object.values(answers).reduce((n, v) => n + v.length + String(v).length / 1000, 0);

export const smallest = (pairs: readonly AnswerPair[]): AnswerPair =>
  pairs.reduce((x, y) => (answerSize(y.left) < answerSize(x.left) ? y : x));

/** An answer with what it scores on both sides, in points. */
export const exampleOf = ({ left, right }: AnswerPair, source: Scored, arrived: Scored): Example => ({
  response: left,
  answer: answerTexts(source.item, left),
  from: pointsFor(source.item, left),
  to: pointsFor(arrived.item, right),
});

const pointsFor = (item: Item, answers: Answers): number => tidyNumber(rawScore(item, answers) * item.scale);
