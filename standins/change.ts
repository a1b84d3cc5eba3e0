import { escape } from '../demo/qti12.ts';
import { z } from 'zod';
import { setPoints, type HeldQuiz } from './held.ts';
import type { Course } from './types.ts';

/** What may be set of a thing from outside. */
export const Change = z
  .object({
    title: z.string(),
    section: z.string().nullable(),
    hidden: z.boolean(),
    opens: z.string().nullable(),
    closes: z.string().nullable(),
    review: z.string().nullable(),
    instructions: z.string().nullable(),
    attempts: z.union([z.number(), z.literal('unlimited')]).nullable(),
    timeLimitMinutes: z.number().nullable(),
    passMark: z.number().nullable(),
    points: z.array(z.object({ item: z.string(), points: z.number().positive() })),
  })
  .partial();
export type Change = z.infer<typeof Change>;

const present = (fields: object): object =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined));

/** @returns whether there is such a thing */
export function change(course: Course, id: string, asked: Change): boolean {
  const thing = course.things.find((t) => t.id === id);
  if (!thing) return false;
  const { section, hidden, opens, closes, review, title, points, instructions, ...settings } = asked;
  Object.assign(thing, present({ section, hidden, opens, closes, review }));
  const worth = new Map(points?.map((p) => [p.item, p.points]));
  const renamed = <T extends { readonly id: string; readonly title: string }>(list: readonly T[]): T[] =>
    list.map((x) => (x.id === id ? { ...x, title: title ?? x.title } : x));
  const { quizzes, banks, links, items } = course.held;
  course.held = {
    quizzes: renamed(quizzes).map((q) =>
      q.id === id ? withDraws(instructed({ ...q, ...present(settings) }, instructions), worth) : q,
    ),
    banks: renamed(banks),
    links: renamed(links),
    items: items.map((i) => (worth.has(i.id) ? setPoints(i, worth.get(i.id)!) : i)),
  };
  course.rubrics = renamed(course.rubrics);
  return true;
}

/** Instructions are one text of the quiz once they have been set from outside. */
const instructed = (quiz: HeldQuiz, text: string | null | undefined): HeldQuiz =>
  text === undefined
    ? quiz
    : {
        ...quiz,
        instructions: text === null ? null : `<p>${escape(text)}</p>`,
        sections: quiz.sections.map((s) => ({ ...s, instructions: null })),
      };

const withDraws = (quiz: HeldQuiz, worth: ReadonlyMap<string, number>): HeldQuiz => ({
  ...quiz,
  sections: quiz.sections.map((s) => {
    const each = worth.get(s.draw?.pool[0] ?? '');
    return s.draw && each !== undefined ? { ...s, draw: { ...s.draw, pointsEach: each } } : s;
  }),
});
