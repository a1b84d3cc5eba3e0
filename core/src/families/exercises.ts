import type { Quiz } from '../model/holding.ts';
import { withoutNumbers, type Shape } from './shape.ts';

/** For each item that a draw of one chooses from: that draw. Scripts draw one replica of an exercise. */
export function exercisesDrawn(quizzes: readonly Quiz[]): ReadonlyMap<string, string> {
  const exercises = new Map<string, string>();
  for (const quiz of quizzes)
    for (const { id, draw } of quiz.sections)
      if (draw?.pick === 1 && draw.pool.length > 1)
        for (const item of draw.pool) if (!exercises.has(item)) exercises.set(item, `${quiz.id}\u0001${id}`);
  return exercises;
}

/** Replicas of one text as the exercises they belong to: by what draws one of them, else by their numbered titles. */
export function apart(shapes: readonly Shape[], exercises: ReadonlyMap<string, string>): Shape[][] {
  const of = ({ item }: Shape): string | null => exercises.get(item.id) ?? null;
  // One draw alone may lack some of its replicas.
  const draws = new Set(shapes.map(of).filter((d) => d !== null));
  const groups = draws.size > 1 ? grouped(shapes, of) : titled(shapes);
  return groups.filter((g) => g.length > 1);
}

/** What has no group stays together as one. */
function grouped(shapes: readonly Shape[], of: (shape: Shape) => string | null): Shape[][] {
  const groups = new Map<string | null, Shape[]>();
  for (const shape of shapes) {
    const key = of(shape);
    const group = groups.get(key);
    if (group) group.push(shape);
    else groups.set(key, [shape]);
  }
  return [...groups.values()];
}

/** "Exercise 1, version 2": all numbers but the last name the exercise, where each has several. */
function titled(shapes: readonly Shape[]): Shape[][] {
  const masked = new Set(shapes.map(({ item }) => withoutNumbers(item.title)));
  const numbers = (title: string): string[] => title.match(/\p{Nd}+/gu) ?? [];
  if (masked.size !== 1 || numbers(shapes[0]!.item.title).length < 2) return [[...shapes]];
  const groups = grouped(shapes, ({ item }) => numbers(item.title).slice(0, -1).join(' '));
  return groups.every((g) => g.length > 1) ? groups : [[...shapes]];
}
