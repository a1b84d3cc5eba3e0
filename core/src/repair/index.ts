import { explore } from '../scoring/budget.ts';
import { applyEdits } from '../edit/apply.ts';
import type { Edit } from '../edit/schema.ts';
import type { FindingCode } from '../model/codes.ts';
import type { Finding } from '../model/finding.ts';
import type { Holding } from '../model/holding.ts';
import { allOfTheAboveShuffled } from './all-of-the-above-shuffled.ts';
import { datesImpossible } from './dates-impossible.ts';
import { drawPointsUnequal } from './draw-points-unequal.ts';
import { drawTooLarge } from './draw-too-large.ts';
import { duplicateChoices } from './duplicate-choices.ts';
import { duplicateItems, nearDuplicateItems } from './duplicate-items.ts';
import { familyDrawPartial } from './family-draw-partial.ts';
import { familyPointsUnequal } from './family-points-unequal.ts';
import { fileMissing } from './file-missing.ts';
import { keySeveralOnSingle } from './key-several-on-single.ts';
import { keyUnknownChoice } from './key-unknown-choice.ts';
import { linkDead } from './link-dead.ts';
import { pointsDisagree } from './points-disagree.ts';
import { pointsNotPositive } from './points-not-positive.ts';
import { pointsUnreached } from './points-unreached.ts';
import { quizUnnamed } from './quiz-unnamed.ts';
import { Situation, type Repairer } from './repairer.ts';
import { solutionWithAttempts } from './solution-with-attempts.ts';
import { titleMissing } from './title-missing.ts';
import { toleranceMissing } from './tolerance-missing.ts';

/** What puts one finding right. */
export interface Repair {
  /** The finding's place among those that were asked about, from 0. */
  readonly at: number;
  readonly code: FindingCode;
  readonly node: string | null;
  readonly edits: readonly Edit[];
}

interface AnyRepairer {
  readonly code: FindingCode;
  readonly repair: (situation: Situation, finding: Finding) => readonly Edit[] | null;
}
const any = <C extends FindingCode>({ code, repair }: Repairer<C>): AnyRepairer => ({
  code,
  // Asked only for findings of its own code.
  repair: (situation, finding) => repair(situation, finding as Finding<C>),
});

/** Every repair there is. A further one is a file named after its finding, and a line here. */
const REPAIRERS: readonly AnyRepairer[] = [
  any(pointsDisagree),
  any(pointsNotPositive),
  any(pointsUnreached),
  any(keyUnknownChoice),
  any(keySeveralOnSingle),
  any(duplicateChoices),
  any(allOfTheAboveShuffled),
  any(toleranceMissing),
  any(fileMissing),
  any(linkDead),
  any(titleMissing),
  any(quizUnnamed),
  any(datesImpossible),
  any(solutionWithAttempts),
  any(drawTooLarge),
  any(drawPointsUnequal),
  any(familyPointsUnequal),
  any(familyDrawPartial),
  any(duplicateItems),
  any(nearDuplicateItems),
];
const BY_CODE = new Map(REPAIRERS.map((r) => [r.code, r]));

/** Codes of findings that can have a repair. */
export const REPAIRABLE: readonly FindingCode[] = REPAIRERS.map((r) => r.code);

/**
 * Each repair takes its node whole, and a node with very many findings is large: of that only so many are put right one
 * by one.
 */
const MOST_FOR_A_NODE = 300_000;
const LEAST_OF_A_NODE = 10;

/**
 * The repairs that findings of a holding have, one entry a finding. Each has been tried: of those listed, not
 * every edit is refused.
 */
export function repairsOf(holding: Holding, findings: readonly Finding[] = holding.findings): Repair[] {
  const situation = new Situation(holding);
  const all = new Map<string, number>();
  for (const { where } of findings)
    if (where.node !== null) all.set(where.node, (all.get(where.node) ?? 0) + 1);
  const looked = new Map<string, number>();
  const found = findings.flatMap((finding, at): Repair[] => {
    if (!BY_CODE.has(finding.code)) return [];
    const { node } = finding.where;
    if (node !== null) {
      const before = looked.get(node) ?? 0;
      if (before >= Math.max(LEAST_OF_A_NODE, MOST_FOR_A_NODE / all.get(node)!)) return [];
      looked.set(node, before + 1);
    }
    const edits = explore(
      () => BY_CODE.get(finding.code)?.repair(situation, finding),
      () => null,
    );
    return edits && edits.length > 0 ? [{ at, code: finding.code, node: finding.where.node, edits }] : [];
  });
  const starts: number[] = [];
  let total = 0;
  for (const r of found) {
    starts.push(total);
    total += r.edits.length;
  }
  const { refused } = applyEdits(
    holding,
    found.flatMap((r) => r.edits),
  );
  const bad = new Set(refused.map((r) => r.at));
  return found.filter((r, n) => r.edits.some((_, k) => !bad.has(starts[n]! + k)));
}
