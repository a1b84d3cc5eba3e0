import { instructionsOf, quizPoints, setItems, UNNAMED } from '@alforja/core';
import type { QuizHead } from '../../shared/quizzes.ts';
import { itemPoints } from '../store/items.ts';
import { madeAs } from '../store/made.ts';
import { packageById } from '../store/packages.ts';
import type { OrderKind, Orders } from '../work/orders.ts';
import { worked } from './worked.ts';

/** A quiz of a package, tried, printed and looked at; what takes time is worked out in a thread. */

/** What all pages of a quiz show of it; null where there is none. */
export async function quizHead(packageId: string, quizId: string): Promise<QuizHead | null> {
  const held = await packageById(packageId);
  const quiz = held?.tree?.quizzes.find((q) => q.id === quizId);
  if (!held || held.readingId === null || !quiz) return null;
  const { ids, points } = await itemPoints(held.readingId);
  const worth = new Map(ids.map((id, at) => [id, { points: points[at]! }]));
  return {
    packageId,
    packageName: held.name,
    made: (await madeAs(packageId))?.id ?? null,
    id: quiz.id,
    title: quiz.title || UNNAMED.quiz,
    items: setItems(quiz),
    points: quizPoints(quiz, worth),
    draws: quiz.sections.filter((s) => s.draw !== null).length,
    instructions: instructionsOf(quiz),
    minutes: quiz.settings.timeLimitMinutes,
    passMark: quiz.settings.passMark,
    attempts: quiz.settings.attempts,
  };
}

/** Something about a quiz cannot be worked out, in words for people. */
export class QuizTrouble extends Error {}

/** Works something of a quiz out in a thread. @throws QuizTrouble with words where it cannot be */
export async function ofQuiz<K extends Extract<OrderKind, `quiz${string}`>>(
  kind: K,
  asked: Orders[K]['asked'],
): Promise<Orders[K]['result']> {
  const head = await quizHead(asked.packageId, asked.quizId);
  if (!head) throw new QuizTrouble('There is no such quiz, or its package is being read.');
  return worked(kind, asked, QuizTrouble);
}
