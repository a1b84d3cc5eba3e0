import { familiesOf } from '../families/families.ts';
import { askedBy } from '../match/asked.ts';
import type { Finding } from '../model/finding.ts';
import type { Holding, Item } from '../model/holding.ts';
import { explore } from '../scoring/budget.ts';
import { allOfTheAboveShuffled } from './all-of-the-above-shuffled.ts';
import { anyCheck, type AnyCheck, type AskedOf, type Files } from './check.ts';
import type { SeenItems } from './seen.ts';
import { drawPointsUnequal } from './draw-points-unequal.ts';
import { blankUnanswered } from './blank-unanswered.ts';
import { drawTooLarge } from './draw-too-large.ts';
import { duplicateChoices } from './duplicate-choices.ts';
import { keyMissing } from './key-missing.ts';
import { keySeveralOnSingle } from './key-several-on-single.ts';
import { keyUnknownChoice } from './key-unknown-choice.ts';
import { pointsNotPositive } from './points-not-positive.ts';
import { patternNotRun } from './pattern-not-run.ts';
import { scoringType } from './scoring-type.ts';
import { stemEmpty } from './stem-empty.ts';
import { toleranceMissing } from './tolerance-missing.ts';
import { solutionWithAttempts } from './solution-with-attempts.ts';
import { pointsUnreached } from './points-unreached.ts';
import { imageAltMissing } from './image-alt-missing.ts';
import { linkDead } from './link-dead.ts';
import { keyLongest } from './key-longest.ts';
import { datesImpossible } from './dates-impossible.ts';
import { quizUnnamed } from './quiz-unnamed.ts';
import { bankMixedKinds } from './bank-mixed-kinds.ts';
import { itemUnused } from './item-unused.ts';
import { familyDrawnTwice } from './family-drawn-twice.ts';
import { familyDrawPartial } from './family-draw-partial.ts';
import { familyKeyStale } from './family-key-stale.ts';
import { familyPointsUnequal } from './family-points-unequal.ts';
import { duplicateItems, nearDuplicateItems } from './duplicate-items.ts';

/** The catalogue. Two more of the same kind are made while reading: `file-missing` and `points-disagree`. */
export const CHECKS: readonly AnyCheck[] = [
  anyCheck(keyMissing),
  anyCheck(blankUnanswered),
  anyCheck(keyUnknownChoice),
  anyCheck(keySeveralOnSingle),
  anyCheck(pointsNotPositive),
  anyCheck(stemEmpty),
  anyCheck(duplicateChoices),
  anyCheck(allOfTheAboveShuffled),
  anyCheck(drawTooLarge),
  anyCheck(drawPointsUnequal),
  anyCheck(scoringType),
  anyCheck(patternNotRun),
  anyCheck(toleranceMissing),
  anyCheck(solutionWithAttempts),
  anyCheck(pointsUnreached),
  anyCheck(imageAltMissing),
  anyCheck(linkDead),
  anyCheck(keyLongest),
  anyCheck(datesImpossible),
  anyCheck(quizUnnamed),
  anyCheck(bankMixedKinds),
  anyCheck(itemUnused),
  anyCheck(duplicateItems),
  anyCheck(nearDuplicateItems),
  anyCheck(familyPointsUnequal),
  anyCheck(familyKeyStale),
  anyCheck(familyDrawPartial),
  anyCheck(familyDrawnTwice),
];

/** What the checks of single items find on one, as far as the steps it may take allow. */
export function checkItem(item: Item, files: Files): Finding[] {
  const found: Finding[] = [];
  const look = (): void => {
    for (const check of CHECKS) found.push(...check.item(item, files));
  };
  explore(look, () => undefined);
  return found;
}

/** What the checks of whole packages find, where all items were seen while they were at hand. */
export function checkSeen(holding: Holding, seen: SeenItems): Finding[] {
  // Found once for all who ask, from the texts that were seen.
  familiesOf(holding, seen.text);
  return checkWhole(holding, seen.asked);
}

/** What the checks of whole packages find. */
export const checkWhole = (holding: Holding, asked: AskedOf = askedBy): Finding[] =>
  CHECKS.flatMap((check) => check.whole(holding, asked));
