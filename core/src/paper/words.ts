import { plainNumber } from '../model/number.ts';

/** The few words that a paper says by itself. */
export const WORDS = {
  version: 'Version',
  name: 'Name',
  date: 'Date',
  minutes: 'minutes',
  answerSheet: 'Answer sheet',
  key: 'Key',
  question: 'Question',
  answer: 'Answer',
  points: 'Points',
  rule: 'Scored',
  byHand: 'marked by a person',
  one: 'Mark one letter for each question, or several where there are boxes.',
} as const;

export const pointsWord = (points: number): string =>
  `${plainNumber(points)} ${Math.abs(points) === 1 ? 'point' : 'points'}`;

/** "Exam, version A"; a quiz of one version only by its name. */
export const paperTitle = (title: string, version: string): string =>
  version === '' ? title : `${title}, version ${version}`;
