import { applyEdits, type RefusedEdit } from '../edit/apply.ts';
import { eachOnce, wishOf } from '../edit/layer.ts';
import type { Edit } from '../edit/schema.ts';
import type { FindingCode } from '../model/codes.ts';
import type { Target } from '../formats/table.ts';
import type { Holding } from '../model/holding.ts';
import { forecast } from '../writing/write.ts';
import { repairsOf, type Repair } from './index.ts';
import { lossRepairs, type LossRepair } from './losses.ts';
import { recheck } from './recheck.ts';

export interface Mended {
  /** With the findings that are true of it now. */
  readonly holding: Holding;
  /** What was applied, repairs first, each with what stood there before. */
  readonly edits: readonly Edit[];
  readonly refused: readonly RefusedEdit[];
}

/** Repairing can bring out what it hid; after so many rounds whatever is left is left. */
const ROUNDS = 6;

/** Repairs of what was found in a holding, and of what a target loses of it. */
export function allRepairs(holding: Holding, target: Target | null): readonly (Repair | LossRepair)[] {
  const found = repairsOf(holding);
  return target === null ? found : [...found, ...lossRepairs(holding, target, forecast(holding, target))];
}

/** Whether answers score otherwise after a repair. */
export const changesScores = (repair: Repair | LossRepair): boolean =>
  'scores' in repair && repair.scores !== null;

/**
 * A holding put right: the repairs of the findings of some codes, again until none of them has one, then edits.
 * The layer that comes back gives the same on the same source.
 * @param repairs what there is to repair, of a holding as it stands
 */
export function mend(
  source: Holding,
  codes: 'all' | ReadonlySet<FindingCode>,
  edits: readonly unknown[],
  repairs: (holding: Holding) => readonly Repair[] = (h) => repairsOf(h),
): Mended {
  let layer: readonly Edit[] = [];
  let holding = source;
  const wanted = ({ code }: Repair): boolean => codes === 'all' || codes.has(code);
  for (let round = 0; round < ROUNDS; round++) {
    const known = new Set(layer.map(wishOf));
    const more = eachOnce(
      repairs(holding)
        .filter(wanted)
        .flatMap((r) => r.edits),
    ).filter((e) => !known.has(wishOf(e)));
    if (more.length === 0) break;
    const next = applyEdits(source, [...layer, ...more]);
    if (next.edits.length === layer.length) break;
    layer = next.edits;
    holding = recheck(source, next.holding, layer);
  }
  if (edits.length === 0) return { holding, edits: layer, refused: [] };
  const all = applyEdits(source, [...layer, ...edits]);
  const refused = all.refused
    .filter((r) => r.at >= layer.length)
    .map((r) => ({ ...r, at: r.at - layer.length }));
  return { holding: recheck(source, all.holding, all.edits), edits: all.edits, refused };
}
