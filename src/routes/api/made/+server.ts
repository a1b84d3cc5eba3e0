import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { BankAt, ItemAt } from '@alforja/core';
import { itemsOfBanks } from '$lib/server/library/banks';
import { beginBank, beginQuiz, MakingTrouble } from '$lib/server/library/making';
import type { RequestHandler } from './$types';

const title = z.string().trim().min(1).max(500);
const Body = z.discriminatedUnion('do', [
  z.object({ do: z.literal('quiz'), title }),
  /** A bank with some items, or with all those of some banks. */
  z.object({
    do: z.literal('bank'),
    title,
    items: z.array(ItemAt).max(5000).default([]),
    from: z.array(BankAt).max(100).default([]),
  }),
]);

/** Begins a quiz or a bank of one's own. */
export const POST: RequestHandler = async ({ request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'Give it a name.');
  const { data } = body;
  try {
    if (data.do === 'quiz') return json({ id: await beginQuiz(data.title) });
    return json({ id: await beginBank(data.title, [...data.items, ...(await itemsOfBanks(data.from))]) });
  } catch (problem) {
    if (problem instanceof MakingTrouble) error(409, problem.message);
    throw problem;
  }
};
