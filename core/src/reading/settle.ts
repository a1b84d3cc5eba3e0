import { detailOf } from '../formats/draft.ts';
import { choiceShuffles, poolPoints, shufflesChoices } from '../model/quizzes.ts';
import { finding, type Finding } from '../model/finding.ts';
import type { Draw, Item, Quiz } from '../model/holding.ts';
import { declaredMaximum } from '../model/points.ts';
import { itemWeights } from '../model/places.ts';
import { concrete } from '../scoring/concrete.ts';
import { bestOf } from '../scoring/best.ts';
import { near, tidyNumber } from '../model/number.ts';
import { placeOf } from '../model/origin.ts';

/** What one item is worth by itself, before a quiz gives it a weight. */
export interface Worth {
  readonly base: number;
  /** The highest raw score, as far as it counts; 0 where there is none. */
  readonly full: number;
  readonly exact: boolean;
}

type Priced = Pick<Item, 'points' | 'pointsExact' | 'scale'>;

/**
 * What its source states, in order of precedence, else the highest score found by running it.
 * @param add told what is wrong with that
 */
export function worthOf(item: Item, add: (found: Finding) => void): Worth {
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
  return { base, full, exact: !cut && (raw <= 0 || exact) };
}

/** Points under the weight that a quiz gives. */
export function priced({ base, full, exact }: Worth, weight: number): Priced {
  const scale = full > 0 ? (base / full) * weight : weight;
  return {
    points: tidyNumber(base * weight),
    pointsExact: exact,
    scale: near(scale, Math.round(scale)) ? Math.round(scale) : scale,
  };
}

/** Points where running failed: those that are declared. */
export const pricedUnrun = (item: Item, weight: number): Priced => ({
  points: declaredMaximum(item) ?? 0,
  pointsExact: false,
  scale: weight,
});

/** That something went wrong in reading which nobody has thought of. */
export const unreadable = (item: Item, error: unknown): Finding =>
  finding('item-unreadable', 'error', whereOf(item), { detail: detailOf(error) });

const whereOf = (item: Item) => ({ ...placeOf(item.origin), node: item.id });

/**
 * Points of each drawn item: what the source says, else what its pool's items give (the mean of those worth
 * anything, where they differ).
 */
export function settleDraws(
  quizzes: readonly Quiz[],
  items: readonly Item[],
  shufflesOf: (item: Item) => readonly boolean[] = choiceShuffles,
): Quiz[] {
  const byId = new Map(items.map((i) => [i.id, i]));
  const shuffles = (id: string): readonly boolean[] => {
    const item = byId.get(id);
    return item ? shufflesOf(item) : [];
  };
  const weights = itemWeights(quizzes);
  const each = (draw: Draw): number =>
    Number.isNaN(draw.pointsEach) ? poolPoints(draw, byId, weights) : draw.pointsEach;
  return quizzes.map((quiz) => ({
    ...quiz,
    settings: { ...quiz.settings, shuffleChoices: shufflesChoices(quiz, shuffles) },
    sections: quiz.sections.map((s) =>
      s.draw ? { ...s, draw: { ...s.draw, pointsEach: each(s.draw) } } : s,
    ),
  }));
}
