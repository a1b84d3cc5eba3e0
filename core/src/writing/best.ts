import type { Finding } from '../model/finding.ts';
import type { Holding } from '../model/holding.ts';
import type { Target } from '../formats/table.ts';
import { forecast } from './write.ts';

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
  let best: { target: Target; findings: readonly Finding[]; weight: number } | null = null;
  const seen = new Set<string>();
  for (const target of takes) {
    // Cartridges of all versions lose the same.
    const kind = target.startsWith('cc') ? 'cc' : target;
    if (seen.has(kind)) continue;
    seen.add(kind);
    const findings = forecast(holding, target);
    const weight = findings.reduce((sum, f) => sum + WEIGHT[f.severity], 0);
    if (!best || weight < best.weight) best = { target, findings, weight };
    if (weight === 0) break;
  }
  if (!best) throw new Error('a system that takes no format');
  return { target: best.target, findings: best.findings };
}
