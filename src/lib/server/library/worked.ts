import { speak } from '@alforja/core';
import { JobFailure } from '../runner/handler.ts';
import { inThread } from '../runner/threads.ts';
import type { OrderKind, Orders } from '../work/orders.ts';

/** Something cannot be worked out for a page, in words for people. */
export class WorkTrouble extends Error {}

/**
 * Has something worked out in a thread for a page that waits for it.
 * @param Trouble what is thrown where it cannot be done, with why in words for people
 */
export async function worked<K extends OrderKind>(
  kind: K,
  asked: Orders[K]['asked'],
  Trouble: new (why: string) => Error = WorkTrouble,
): Promise<Orders[K]['result']> {
  try {
    return await inThread({ kind, asked }, () => undefined, new AbortController().signal, { lane: 'page' });
  } catch (problem) {
    if (problem instanceof JobFailure) throw new Trouble(speak(problem.finding).message);
    throw problem;
  }
}
