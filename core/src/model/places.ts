import type { Bank, Quiz } from './holding.ts';

/** The weight each item's points carry: that of its first place in a quiz. */
export function itemWeights(quizzes: readonly Quiz[]): Map<string, number> {
  const weights = new Map<string, number>();
  for (const quiz of quizzes) {
    for (const section of quiz.sections)
      for (const ref of section.items) if (!weights.has(ref.item)) weights.set(ref.item, ref.weight);
  }
  return weights;
}

/** Banks in which an item stands, and quizzes that hold or draw it. */
export function placesOf(
  quizzes: readonly Quiz[],
  banks: readonly Bank[],
): Map<string, { in: string[]; drawnBy: string[] }> {
  const places = new Map<string, { in: string[]; drawnBy: string[] }>();
  const at = (id: string): { in: string[]; drawnBy: string[] } => {
    let place = places.get(id);
    if (!place) places.set(id, (place = { in: [], drawnBy: [] }));
    return place;
  };
  const put = (list: string[], id: string): void => {
    if (!list.includes(id)) list.push(id);
  };
  for (const quiz of quizzes) {
    for (const section of quiz.sections) {
      for (const ref of section.items) put(at(ref.item).in, quiz.id);
      for (const id of section.draw?.pool ?? []) put(at(id).drawnBy, quiz.id);
    }
  }
  for (const bank of banks) for (const id of bank.items) put(at(id).in, bank.id);
  return places;
}
