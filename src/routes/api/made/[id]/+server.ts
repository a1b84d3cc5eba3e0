import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { BankAt, ItemAt, QuizDraft, withItems, type BankDraft } from '@alforja/core';
import { itemsOfBanks } from '$lib/server/library/banks';
import {
  changeBank,
  keepDraft,
  MakingTrouble,
  planCarried,
  quizMade,
  setDown,
  splitBank,
  takeNewer,
  weighed,
} from '$lib/server/library/making';
import { packageListing } from '$lib/server/store/packages';
import type { RequestHandler } from './$types';

const version = z.number().int().nonnegative();
const keys = z.array(z.string().max(2000)).max(20_000);
const Body = z.discriminatedUnion('do', [
  z.object({ do: z.literal('keep'), version, draft: QuizDraft }),
  z.object({ do: z.literal('carry'), draft: QuizDraft, as: z.enum(['draws', 'items']) }),
  z.object({ do: z.literal('set-down') }),
  z.object({ do: z.literal('name'), version, title: z.string().trim().min(1).max(500) }),
  z.object({
    do: z.literal('put'),
    version,
    items: z.array(ItemAt).max(5000).default([]),
    from: z.array(BankAt).max(100).default([]),
  }),
  z.object({ do: z.literal('drop'), version, keys }),
  z.object({ do: z.literal('order'), version, keys }),
  z.object({ do: z.literal('split'), version, keys, title: z.string().trim().min(1).max(500) }),
  z.object({ do: z.literal('newer'), items: z.array(ItemAt).max(20_000) }),
]);

/** In this order; what is not named keeps its place after them. */
const inOrder = (draft: BankDraft, order: readonly string[]): BankDraft => {
  const at = new Map(order.map((key, n) => [key, n]));
  const rank = (key: string): number => at.get(key) ?? order.length;
  return { ...draft, items: [...draft.items].sort((a, b) => rank(a.key) - rank(b.key)) };
};

/** What can be done with a quiz or a bank that is made here. */
export const POST: RequestHandler = async ({ params: { id }, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'That is not in the form expected.');
  const asked = body.data;
  try {
    switch (asked.do) {
      case 'keep': {
        const kept = await keepDraft(id, asked.version, asked.draft);
        return json({ version: kept, view: await weighed(id, asked.draft) });
      }
      case 'carry':
        return json({ draft: await planCarried(id, asked.draft, asked.as) });
      case 'set-down': {
        const packageId = await setDown(id);
        return json({ package: packageId, state: (await packageListing(packageId))?.state ?? 'failed' });
      }
      case 'name':
        await changeBank(id, asked.version, (d) => ({ ...d, title: asked.title }));
        return json({});
      case 'put': {
        const items = [...asked.items, ...(await itemsOfBanks(asked.from))];
        await changeBank(id, asked.version, (d) => withItems(d, items));
        return json({});
      }
      case 'drop': {
        const gone = new Set(asked.keys);
        await changeBank(id, asked.version, (d) => ({
          ...d,
          items: d.items.filter((i) => !gone.has(i.key)),
        }));
        return json({});
      }
      case 'order':
        await changeBank(id, asked.version, (d) => inOrder(d, asked.keys));
        return json({});
      case 'split':
        return json({ id: await splitBank(id, asked.version, asked.keys, asked.title) });
      case 'newer': {
        const kept = await takeNewer(id, asked.items);
        const quiz = await quizMade(id);
        if (quiz) return json({ version: kept, view: await weighed(id, quiz.draft) });
        await setDown(id);
        return json({});
      }
    }
  } catch (problem) {
    if (problem instanceof MakingTrouble) error(409, problem.message);
    throw problem;
  }
};
