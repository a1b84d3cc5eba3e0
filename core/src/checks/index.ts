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
import { stemEmpty } from './stem-empty.ts';

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
];

/** What the checks of single items find on one. */
export function checkItem(item: Item): Finding[] {
  return CHECKS.flatMap((check) =>
    (check.item?.(item) ?? []).map((params) => itemFinding(check, item, params)),
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
