import { detailOf } from '../formats/draft.ts';
import { poolPoints, shufflesChoices } from '../model/quizzes.ts';
import { finding, type Finding } from '../model/finding.ts';
import type { Draw, Item, Quiz } from '../model/holding.ts';
import { declaredMaximum } from '../model/points.ts';
import { itemWeights } from '../model/places.ts';
import { concrete } from '../scoring/concrete.ts';
import { bestOf } from '../scoring/best.ts';
import { near, tidyNumber } from '../model/number.ts';
import { placeOf } from '../model/origin.ts';

/**
 * Gives items their points, one by one: what their source states, in order of precedence, else the highest score
 * found by running them, times the weight that a quiz gives them.
 * @param check sees every item while what was found about it is still at hand
 */
export function settling(
  quizzes: readonly Quiz[],
  add: (found: Finding) => void,
  check: (item: Item) => void = () => undefined,
): (item: Item) => Item {
  const weights = itemWeights(quizzes);
  return (item) => {
    const weight = weights.get(item.id) ?? 1;
    try {
      const settled = settle(item, weight, add);
      check(settled);
      return settled;
    } catch (error) {
      // What nobody has thought of is no reason to lose the others.
      add(finding('item-unreadable', 'error', whereOf(item), { detail: detailOf(error) }));
      return { ...item, points: declaredMaximum(item) ?? 0, pointsExact: false, scale: weight };
    }
  };
}

/** Gives every item its points. */
export const settlePoints = (
  items: readonly Item[],
  quizzes: readonly Quiz[],
  add: (found: Finding) => void,
): Item[] => items.map(settling(quizzes, add));

function settle(item: Item, weight: number, add: (found: Finding) => void): Item {
  const { raw, exact, cut } = bestOf(concrete(item));
  if (cut) add(finding('scoring-too-long', 'error', whereOf(item)));
  const stated = item.pointsSources.filter((s) => s.source !== 'declared');
  // A confirmed reading has the last word, so there is nothing to disagree about.
  const ruled = stated[0]?.source === 'rule';
  if (!ruled && stated.some((s) => s.value !== stated[0]!.value)) {
    const said = stated.map((s) => `${s.source} ${s.value}`).join(', ');
    add(finding('points-disagree', 'warning', whereOf(item), { said, used: stated[0]!.value }));
  }
  const most = declaredMaximum(item) ?? 0;
  // A maximum that running has not reached, and not disproved either, is believed: no answer may get more than
  // all of the points.
  const full = raw <= 0 ? 0 : exact ? raw : Math.max(raw, most);
  const base = stated[0]?.value ?? (full > 0 ? full : most);
  const scale = full > 0 ? (base / full) * weight : weight;
  return {
    ...item,
    points: tidyNumber(base * weight),
    pointsExact: !cut && (raw <= 0 || exact),
    scale: near(scale, Math.round(scale)) ? Math.round(scale) : scale,
  };
}

const whereOf = (item: Item) => ({ ...placeOf(item.origin), node: item.id });

/**
 * Points of each drawn item: what the source says, else what its pool's items give (the mean of those worth
 * anything, where they differ).
 */
export function settleDraws(quizzes: readonly Quiz[], items: readonly Item[]): Quiz[] {
  const byId = new Map(items.map((i) => [i.id, i]));
  const weights = itemWeights(quizzes);
  const each = (draw: Draw): number =>
    Number.isNaN(draw.pointsEach) ? poolPoints(draw, byId, weights) : draw.pointsEach;
  return quizzes.map((quiz) => ({
    ...quiz,
    settings: { ...quiz.settings, shuffleChoices: shufflesChoices(quiz, byId) },
    sections: quiz.sections.map((s) =>
      s.draw ? { ...s, draw: { ...s.draw, pointsEach: each(s.draw) } } : s,
    ),
  }));
}
