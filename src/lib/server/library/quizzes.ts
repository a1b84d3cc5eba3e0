import type { QuizHead } from '../../shared/quizzes.ts';
import { madeAs } from '../store/made.ts';
import type { OrderKind, Orders } from '../work/orders.ts';
import { worked } from './worked.ts';

/** A quiz of a package, tried, printed and looked at; what takes time is worked out in a thread. */

/** What all pages of a quiz show of it; null where there is none. */
export async function quizHead(packageId: string, quizId: string): Promise<QuizHead | null> {
  const head = await worked('quizHead', { packageId, quizId });
  return head && { ...head, made: (await madeAs(packageId))?.id ?? null };
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
