import type { HandRole, LabelRole, QuestionColumn, UseOfBlock } from '@alforja/core';

/** What a labelled line, or a column, says. */
export const ROLE_NAMES: Readonly<Record<LabelRole, string>> = {
  key: 'key',
  points: 'points',
  rationale: 'explanation',
  feedback: 'feedback',
  hint: 'hint',
  accept: 'also accepted',
  tolerance: 'tolerance',
  difficulty: 'difficulty',
  objective: 'objective',
  topic: 'topic',
  category: 'category',
  page: 'page',
  kind: 'kind of question',
  title: 'title',
  number: 'number',
  bank: 'question bank',
  noted: 'a note',
  skip: 'not read',
};

export const COLUMN_NAMES: Readonly<Record<QuestionColumn, string>> = {
  question: 'question',
  choice: 'choice',
  correct: 'whether it is right',
  ...ROLE_NAMES,
};

/** Of a table only. */
const OF_TABLES: readonly string[] = ['number', 'bank'];
export const LINE_ROLES = Object.entries(ROLE_NAMES).filter(([role]) => !OF_TABLES.includes(role));

/** What a block can be said to be. */
export const HAND_NAMES: Readonly<Record<HandRole, string>> = {
  question: 'a new question begins here',
  text: 'text of the question above',
  on: 'goes on in the line above',
  choice: 'a choice of the question above',
  key: 'the key of the question above',
  feedback: 'feedback of the question above',
  before: 'text of the question below',
  heading: 'a heading',
  aside: 'no part of any question',
};

/** What became of blocks that are in no question. */
export const USE_NAMES: Readonly<Record<Exclude<UseOfBlock, 'item'>, string>> = {
  heading: 'heading',
  passage: 'passage for several questions',
  answers: 'list of answers',
  aside: 'set aside',
  unread: 'in no question',
};
