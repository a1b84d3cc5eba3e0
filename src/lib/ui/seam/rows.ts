import type { Difference, Example } from '@alforja/core';

/** The answer of an example in words; in its identifiers where a record was made before words were kept. */
export const exampleAnswer = ({ answer, response }: Example): string =>
  (answer ?? Object.values(response).flat()).join(', ');

/** An answer that is shown other feedback may well score the same. */
export const showsScore = ({ facet, example }: Pick<Difference, 'facet' | 'example'>): boolean =>
  facet !== 'feedback' || example?.from !== example?.to;

export const FACET_NAMES: Readonly<Record<Difference['facet'], string>> = {
  wording: 'wording changed',
  choices: 'choices changed',
  'choice-order': 'choices in another order',
  key: 'key changed',
  points: 'points changed',
  scoring: 'scoring changed',
  tolerance: 'tolerance changed',
  'case-sensitivity': 'capitals count differently',
  feedback: 'feedback changed',
  files: 'image or file changed',
  mathematics: 'formula changed',
  category: 'category changed',
  title: 'title changed',
  shuffle: 'shuffling changed',
  kind: 'kind of question changed',
  instructions: 'instructions changed',
  attempts: 'attempts changed',
  'time-limit': 'time limit changed',
  dates: 'dates changed',
  draw: 'draw changed',
  sections: 'sections changed',
  membership: 'other items in it',
  'pass-mark': 'pass mark changed',
  criteria: 'criteria changed',
  levels: 'levels changed',
};
