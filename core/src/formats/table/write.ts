import { asTextCell } from '../../model/formulaCells.ts';
import { finding, type Finding } from '../../model/finding.ts';
import { pointsText } from '../../model/levelText.ts';
import { plainNumber } from '../../model/number.ts';
import type { Rubric, RubricLevel } from '../../model/rubric.ts';

/** What a spreadsheet would take for a formula gets a sign before it, which the reader takes off again. */
const points = (l: RubricLevel | undefined): string => pointsText(l?.points ?? null);

/** The rows of a table of rubrics; what a table has no column for is named. */
export function rubricRows(
  rubrics: readonly Rubric[],
  layout: 'wide' | 'long' = 'wide',
): { rows: string[][]; findings: Finding[] } {
  const findings: Finding[] = [];
  for (const r of rubrics) {
    const lost = [
      r.description === '' ? '' : 'its description',
      r.metadata.length > 0 ? 'metadata' : '',
      r.freeComments ? 'free comments' : '',
      r.criteria.some((c) => c.title === '') ? 'criteria without a name' : '',
      r.criteria.some((c) => c.levels.length === 0) && layout === 'long' ? 'criteria without levels' : '',
    ].filter((l) => l !== '');
    if (lost.length > 0)
      findings.push(
        finding('loss-rubric', 'warning', { node: r.id }, { rubric: r.title || r.id, what: lost.join(', ') }),
      );
  }
  const all = rubrics.flatMap((r) => r.criteria);
  const any = (has: (l: RubricLevel) => boolean): boolean => all.some((c) => c.levels.some(has));
  const feedback = any((l) => l.feedback !== '');
  const outcome = all.some((c) => c.outcome !== null);
  const weight = (r: Rubric, w: number | null): string =>
    w === null ? '' : `${plainNumber(w)}${r.mode === 'percentage' ? '%' : ''}`;
  const outcomes = (o: string | null): string[] => (outcome ? [o ?? ''] : []);
  if (layout === 'long') {
    const head = [
      'rubric',
      'criterion',
      'criterion description',
      'weight',
      ...(outcome ? ['outcome'] : []),
      'level',
      'points',
      'description',
      ...(feedback ? ['feedback'] : []),
    ];
    const rows = rubrics.flatMap((r) =>
      r.criteria.flatMap((c) =>
        c.levels.map((l) => [
          r.title,
          c.title,
          c.description,
          weight(r, c.weight),
          ...outcomes(c.outcome),
          l.title,
          points(l),
          l.description,
          ...(feedback ? [l.feedback] : []),
        ]),
      ),
    );
    return { rows: [head, ...rows.map((row) => row.map(asTextCell))], findings };
  }
  const count = Math.max(1, ...all.map((c) => c.levels.length));
  const numbers = Array.from({ length: count }, (_, n) => n + 1);
  const head = [
    'rubric',
    'criterion',
    'description',
    'weight',
    ...(outcome ? ['outcome'] : []),
    ...numbers.flatMap((n) => [
      `level ${n}`,
      `points ${n}`,
      `description ${n}`,
      ...(feedback ? [`feedback ${n}`] : []),
    ]),
  ];
  const rows = rubrics.flatMap((r) =>
    r.criteria.map((c) => [
      r.title,
      c.title,
      c.description,
      weight(r, c.weight),
      ...outcomes(c.outcome),
      ...numbers.flatMap((n) => {
        const l = c.levels[n - 1];
        return [l?.title ?? '', points(l), l?.description ?? '', ...(feedback ? [l?.feedback ?? ''] : [])];
      }),
    ]),
  );
  return { rows: [head, ...rows.map((row) => row.map(asTextCell))], findings };
}
