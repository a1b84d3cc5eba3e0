import { error } from '@sveltejs/kit';
import { receiptCsv } from '$lib/server/services/receiptFiles';
import { receiptOf } from '$lib/server/services/receipt';
import { transferById } from '$lib/server/services/transfers';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ params }) => {
  const transfer = await transferById(params.id);
  const receipt = transfer && (await receiptOf(transfer));
  if (!receipt) error(404, 'There is no receipt yet.');
  return new Response(receiptCsv(receipt), {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Disposition': 'attachment; filename="receipt.csv"',
    },
  });
};
