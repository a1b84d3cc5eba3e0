import { interactionsOf, optionSets, type Item } from '@alforja/core';

export {
  applyEdits,
  compareHoldings,
  plannedChanges,
  takenBack,
  type Edit,
  type Holding,
  type Item,
} from '@alforja/core';

/** Identifiers of all that can be picked. */
export const choicesIn = (item: Item): string[] =>
  interactionsOf(item).flatMap((i) => optionSets(i).flatMap((set) => set.map((o) => o.id)));
