import fc from 'fast-check';
import type { Criterion, Rubric, RubricLevel } from '@alforja/core';

/** Made-up rubrics as a table can hold them: names in many scripts, ranges of points, weights. */

const word = fc
  .oneof(
    fc.stringMatching(/^[A-Za-z][A-Za-z ,;"'-]{0,18}[a-z]$/u),
    fc.constantFrom(
      'Übung',
      '潮汐',
      'علامة',
      '=1+1',
      "'=x",
      '-5 to go',
      '+ sign',
      '@home',
      'a\nb',
      '"quoted", and more',
    ),
  )
  .map((w) => w.trim());
const points = fc.option(
  fc
    .tuple(fc.integer({ min: -4, max: 40 }), fc.integer({ min: 0, max: 8 }))
    .map(([low, more]) => ({ low: low / 2, high: (low + more) / 2 })),
  { nil: null, freq: 6 },
);
const level: fc.Arbitrary<RubricLevel> = fc.record({
  id: fc.uuid(),
  title: word,
  points,
  description: fc.oneof(word, fc.constant('')),
  feedback: fc.oneof(fc.constant(''), word),
});
const criterion: fc.Arbitrary<Criterion> = fc.record({
  id: fc.uuid(),
  title: word,
  description: fc.oneof(word, fc.constant('')),
  weight: fc.option(
    fc.integer({ min: 1, max: 60 }).map((n) => n / 4),
    { nil: null },
  ),
  outcome: fc.option(fc.webUrl(), { nil: null }),
  levels: fc.array(level, { minLength: 1, maxLength: 6 }),
});
export const rubric: fc.Arbitrary<Rubric> = fc
  .record({
    id: fc.uuid(),
    title: word,
    criteria: fc.uniqueArray(criterion, { selector: (c) => c.title, minLength: 1, maxLength: 6 }),
  })
  .map(({ id, title, criteria }) => ({
    id,
    title,
    description: '',
    mode: criteria.some((c) => c.levels.some((l) => l.points)) ? 'points' : 'unscored',
    criteria,
    attachedTo: [],
    metadata: [],
    origin: null,
  }));
export const rubrics = fc.uniqueArray(rubric, { selector: (r) => r.title, minLength: 1, maxLength: 3 });
