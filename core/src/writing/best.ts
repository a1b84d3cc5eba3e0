import type { Finding } from '../model/finding.ts';
import type { Holding } from '../model/holding.ts';
import type { Forecast } from '../formats/format.ts';
import { packageFormat, type Target } from '../formats/table.ts';
import { forecast } from './write.ts';

/** Losses count more the worse they are; changes of form alone decide only between equals. */
const WEIGHT = { error: 1000, warning: 30, note: 1 } as const;

/** What a holding loses in one format. */
export interface TargetForecast {
  readonly target: Target;
  readonly findings: readonly Finding[];
}

/** Cartridges of all versions lose the same. */
const kindOf = (target: Target): string => (target.startsWith('cc') ? 'cc' : target);

/** What a holding loses in each of the formats, in their order. */
export function forecastAll(holding: Holding, targets: readonly Target[]): TargetForecast[] {
  const forecasts = new Map<string, Forecast>();
  for (const target of targets)
    if (!forecasts.has(kindOf(target)))
      forecasts.set(kindOf(target), packageFormat(target).forecast(holding, target));
  // Item by item, so that what is found out of one serves all formats while it is at hand.
  for (const item of holding.items) for (const { look } of forecasts.values()) look(item);
  const known = new Map([...forecasts].map(([kind, { findings }]) => [kind, findings()]));
  return targets.map((target) => ({ target, findings: known.get(kindOf(target))! }));
}

const weightOf = ({ findings }: TargetForecast): number =>
  findings.reduce((sum, f) => sum + WEIGHT[f.severity], 0);

/** Of forecasts the one that loses the least; the first of equals. @param forecasts at least one */
export const bestForecast = (forecasts: readonly TargetForecast[]): TargetForecast =>
  forecasts.reduce((best, next) => (weightOf(next) < weightOf(best) ? next : best));

/**
 * Of the formats that a system takes, the one that loses the least of a holding; the first of equals.
 * @param takes at least one
 */
export function bestTarget(holding: Holding, takes: readonly Target[]): TargetForecast {
  let best: TargetForecast | null = null;
  const seen = new Set<string>();
  for (const target of takes) {
    if (seen.has(kindOf(target))) continue;
    seen.add(kindOf(target));
    const next = { target, findings: forecast(holding, target) };
    best = best ? bestForecast([best, next]) : next;
    // Nothing can lose less.
    if (weightOf(best) === 0) break;
  }
  if (!best) throw new Error('a system that takes no format');
  return best;
}
