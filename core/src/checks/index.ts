import { finding, type Finding } from '../model/finding.ts';
import type { Holding, Item } from '../model/holding.ts';
import { allOfTheAboveShuffled } from './all-of-the-above-shuffled.ts';
import { itemFinding, type Check } from './check.ts';
import { drawPointsUnequal } from './draw-points-unequal.ts';
import { drawTooLarge } from './draw-too-large.ts';
import { duplicateChoices } from './duplicate-choices.ts';
import { keyMissing } from './key-missing.ts';
import { keySeveralOnSingle } from './key-several-on-single.ts';
import { keyUnknownChoice } from './key-unknown-choice.ts';
import { pointsNotPositive } from './points-not-positive.ts';
import { scoringType } from './scoring-type.ts';
import { stemEmpty } from './stem-empty.ts';
import { toleranceMissing } from './tolerance-missing.ts';
import { solutionWithAttempts } from './solution-with-attempts.ts';
import { maximumBelowPoints } from './maximum-below-points.ts';
import { imageAltMissing } from './image-alt-missing.ts';
import { linkDead } from './link-dead.ts';
import { keyLongest } from './key-longest.ts';
import { datesImpossible } from './dates-impossible.ts';
import { quizUnnamed } from './quiz-unnamed.ts';
import { bankMixedKinds } from './bank-mixed-kinds.ts';
import { itemUnused } from './item-unused.ts';
import { duplicateItems, nearDuplicateItems } from './duplicate-items.ts';

/** The catalogue. Two more of the same kind are made while reading: `file-missing` and `points-disagree`. */
export const CHECKS: readonly Check[] = [
  keyMissing,
  keyUnknownChoice,
  keySeveralOnSingle,
  pointsNotPositive,
  stemEmpty,
  duplicateChoices,
  allOfTheAboveShuffled,
  drawTooLarge,
  drawPointsUnequal,
  scoringType,
  toleranceMissing,
  solutionWithAttempts,
  maximumBelowPoints,
  imageAltMissing,
  linkDead,
  keyLongest,
  datesImpossible,
  quizUnnamed,
  bankMixedKinds,
  itemUnused,
  duplicateItems,
  nearDuplicateItems,
];

/** What the checks of single items find on one. */
export function checkItem(item: Item, files: ReadonlySet<string>): Finding[] {
  return CHECKS.flatMap((check) =>
    (check.item?.(item, files) ?? []).map((params) => itemFinding(check, item, params)),
  );
}

/** What the checks of whole packages find. */
export function checkWhole(holding: Holding): Finding[] {
  const found: Finding[] = [];
  for (const check of CHECKS) {
    for (const { node, params, path } of check.whole?.(holding) ?? []) {
      found.push(finding(check.code, check.severity, { node, path: path ?? null }, params));
    }
  }
  return found;
}
