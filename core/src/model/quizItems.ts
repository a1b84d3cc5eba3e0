import type { Quiz } from './holding.ts';

/** Ids of the items that every candidate is set, in order. */
export const fixedItems = (quiz: Pick<Quiz, 'sections'>): string[] =>
  quiz.sections.flatMap((s) => s.items.map((r) => r.item));

/**
 * Ids of all items a quiz needs: those of its sections and those its draws choose from; one may stand in it
 * twice.
 */
export const quizItems = (quiz: Pick<Quiz, 'sections'>): string[] =>
  quiz.sections.flatMap((s) => [...s.items.map((r) => r.item), ...(s.draw?.pool ?? [])]);
