import { error } from '@sveltejs/kit';
import { receiptCsv } from '$lib/server/transfer/receiptCsv';
import { receiptById } from '$lib/server/transfer/receipt';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ params }) => {
  const receipt = await receiptById(params.id);
  if (!receipt) error(404, 'There is no receipt yet.');
  return new Response(receiptCsv(receipt), {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Disposition': 'attachment; filename="receipt.csv"',
    },
  });
};
