import type { ForecastLoss } from '$lib/shared/transfers';

/** What is lost, by sort. */
const SORTS: Readonly<Record<string, string>> = {
  'loss-kind': 'Kinds of questions',
  'loss-scoring': 'Scoring',
  'loss-draw': 'Draws',
  'loss-bank': 'Banks',
  'loss-feedback': 'Feedback',
  'loss-settings': 'Settings',
  'loss-section': 'Sections',
  'loss-metadata': 'Metadata',
  'rubric-not-taken': 'Rubrics',
};
const OTHERS = 'Others';

export interface LossGroup {
  readonly found: ForecastLoss;
  /** Every loss of these words, in order. */
  readonly all: readonly ForecastLoss[];
}
export interface LossSort {
  readonly name: string;
  /** How many losses there are of it. */
  readonly count: number;
  /** The same words for several items are said once. */
  readonly groups: readonly LossGroup[];
}

const ORDER = { error: 0, warning: 1, note: 2 } as const;

/** Losses by sort, those with the worst first; within a sort, by their words. */
export function lossSorts(losses: readonly ForecastLoss[]): LossSort[] {
  const sorts = new Map<string, Map<string, { found: ForecastLoss; all: ForecastLoss[] }>>();
  const counts = new Map<string, number>();
  for (const found of losses) {
    const name = SORTS[found.code] ?? OTHERS;
    const groups = sorts.get(name) ?? new Map<string, { found: ForecastLoss; all: ForecastLoss[] }>();
    sorts.set(name, groups);
    counts.set(name, (counts.get(name) ?? 0) + 1);
    const group = groups.get(found.message) ?? { found, all: [] };
    groups.set(found.message, group);
    group.all.push(found);
  }
  const worst = ({ groups }: LossSort): number => Math.min(...groups.map((g) => ORDER[g.found.severity]));
  return [...sorts]
    .map(([name, groups]) => ({
      name,
      count: counts.get(name)!,
      groups: [...groups.values()].sort((a, b) => ORDER[a.found.severity] - ORDER[b.found.severity]),
    }))
    .sort((a, b) => worst(a) - worst(b) || b.count - a.count);
}
