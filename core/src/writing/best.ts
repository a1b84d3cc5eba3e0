import type { Finding } from '../model/finding.ts';
import type { Holding } from '../model/holding.ts';
import { forecast, type Target } from './write.ts';

/** Losses count more the worse they are; changes of form alone decide only between equals. */
const WEIGHT = { error: 1000, warning: 30, note: 1 } as const;

/**
 * Of the formats that a system takes, the one that loses the least of a holding; the first of equals.
 * @param takes at least one
 */
export function bestTarget(
  holding: Holding,
  takes: readonly Target[],
): { target: Target; findings: readonly Finding[] } {
  const [best] = takes
    .map((target) => ({ target, findings: forecast(holding, target) }))
    .map((f) => ({ ...f, weight: f.findings.reduce((sum, x) => sum + WEIGHT[x.severity], 0) }))
    .sort((a, b) => a.weight - b.weight);
  if (!best) throw new Error('a system that takes no format');
  return { target: best.target, findings: best.findings };
}
