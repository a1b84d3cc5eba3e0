import type { Bank, Draw, Item, Quiz, Section } from './holding.ts';
import { ItemPlaces } from './itemPlaces.ts';
import { ItemSet } from './itemSet.ts';
import { itemWeights } from './places.ts';
import { tidyNumber } from './number.ts';
import { interactionsOf } from './visit.ts';

/** Ids of the items that every candidate is set, in order. */
export const fixedItems = (quiz: Pick<Quiz, 'sections'>): string[] =>
  quiz.sections.flatMap((s) => s.items.map((r) => r.item));

/**
 * Ids of all items a quiz needs: those of its sections and those its draws choose from; one may stand in it
 * twice.
 */
export const quizItems = (quiz: Pick<Quiz, 'sections'>): string[] =>
  quiz.sections.flatMap((s) => [...s.items.map((r) => r.item), ...(s.draw?.pool ?? [])]);

/**
 * Ids of the items that stand in no quiz and no bank.
 * @param ids of all items
 * @param places where they stand in that list
 */
export function looseIds(
  holding: { readonly quizzes: readonly Quiz[]; readonly banks: readonly Bank[] },
  ids: readonly string[],
  places = new ItemPlaces(ids),
): string[] {
  const held = new ItemSet(places);
  for (const quiz of holding.quizzes) held.addAll(quizItems(quiz));
  for (const bank of holding.banks) held.addAll(bank.items);
  return ids.filter((_, at) => !held.hasAt(at));
}

/** Whether an item of a section is one that its draw chooses from. */
export const inOwnDraw = (section: Section, item: string): boolean =>
  section.draw?.pool.includes(item) ?? false;

/**
 * Points one student can reach: the fixed items' plus pick x points each. `weights` gives the weight that each
 * item's points carry already; in another place an item is worth what its reference there says.
 */
export function quizPoints(
  quiz: Quiz,
  items: { readonly get: (id: string) => Pick<Item, 'points'> | undefined },
  weights: ReadonlyMap<string, number> = itemWeights([quiz]),
): number {
  let total = 0;
  for (const section of quiz.sections) {
    for (const ref of section.items)
      if (!inOwnDraw(section, ref.item))
        total += ((items.get(ref.item)?.points ?? 0) * ref.weight) / (weights.get(ref.item) || 1);
    if (section.draw) total += section.draw.pick * section.draw.pointsEach;
  }
  return tidyNumber(total);
}

/** The quiz's instructions: its own and those of its sections. */
export function instructionsOf(quiz: Quiz): string | null {
  const texts = [quiz.settings.instructions, ...quiz.sections.map((s) => s.instructions)].filter(
    (t) => t !== null,
  );
  return texts.length > 0 ? texts.join('\n') : null;
}

/** Items one student is set: fixed ones and those drawn. */
export const setItems = (quiz: Quiz): number =>
  quiz.sections.reduce(
    (sum, s) => sum + s.items.filter((r) => !inOwnDraw(s, r.item)).length + (s.draw?.pick ?? 0),
    0,
  );

/** True or false where all choice interactions of a quiz agree. */
export function shufflesChoices(
  quiz: Pick<Quiz, 'sections'>,
  shufflesOf: (item: string) => readonly boolean[],
): boolean | null {
  const said = new Set<boolean>();
  for (const id of quizItems(quiz)) for (const shuffle of shufflesOf(id)) said.add(shuffle);
  return said.size === 1 ? [...said][0]! : null;
}

/** Whether each list of choices of an item is shuffled. */
export const choiceShuffles = (item: Pick<Item, 'body'>): readonly boolean[] =>
  interactionsOf(item).flatMap((i) => (i.kind === 'choice' ? [i.shuffle] : []));

/** The same, of items by their ids. */
export const shufflesIn =
  (items: ReadonlyMap<string, Pick<Item, 'body'>>) =>
  (id: string): readonly boolean[] => {
    const item = items.get(id);
    return item ? choiceShuffles(item) : [];
  };

/** True or false where all sections of a quiz agree. */
export function shufflesItems(sections: readonly Pick<Section, 'shuffle'>[]): boolean | null {
  const said = new Set(sections.map((s) => s.shuffle));
  return said.size === 1 ? [...said][0]! : null;
}

/**
 * What each item of a draw is worth by the points of its pool: the mean of those worth anything, where they
 * differ.
 */
export function poolPoints(
  draw: Pick<Draw, 'pool' | 'weights'>,
  items: { readonly get: (id: string) => Pick<Item, 'points'> | undefined },
  weights: ReadonlyMap<string, number>,
): number {
  const worth = draw.pool
    .map((id, at) => ((items.get(id)?.points ?? 0) / (weights.get(id) ?? 1)) * (draw.weights?.[at] ?? 1))
    .filter((p) => p > 0);
  return worth.length === 0 ? 0 : tidyNumber(worth.reduce((a, b) => a + b, 0) / worth.length);
}
