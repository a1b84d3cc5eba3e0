import { counted, itemKey, likeWithin } from '@alforja/core';
import type { OwnBankView } from '../../shared/making.ts';
import { gather } from './gathering.ts';
import { newerOf, rowOf, type DraftAsked } from './madeRows.ts';

/** A bank of one's own: which of its items their sources say otherwise by now, and which are alike. */
export async function madeBank({ madeId, draft }: DraftAsked): Promise<OwnBankView> {
  if (draft.kind !== 'bank') return { rows: [], alike: [] };
  const { holding, shelves, whole } = await gather(madeId, draft, true);
  const byId = new Map(holding.items.map((i) => [i.id, i]));
  const kinds = new Map(holding.items.map((i) => [i.id, counted(i).kind]));
  const newer = new Set((await newerOf(madeId, shelves)).map(itemKey));
  return {
    rows: draft.items.map((asked) => {
      const item = byId.get(asked.key);
      const row = item
        ? rowOf(asked, item, kinds.get(asked.key)!, shelves.get(asked.place))
        : {
            ...asked,
            at: asked,
            name: asked.item,
            kind: 'none',
            category: null,
            points: 0,
            from: 'gone',
            packageId: null,
            seq: null,
          };
      return { ...row, newer: newer.has(itemKey(asked)), gone: !item };
    }),
    alike: whole ? likeWithin(holding.items).map((g) => ({ because: g.because, keys: g.items })) : [],
  };
}
