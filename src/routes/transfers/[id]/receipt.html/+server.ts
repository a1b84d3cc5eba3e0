import { error } from '@sveltejs/kit';
import { receiptHtml } from '$lib/server/services/receiptFiles';
import { receiptOf } from '$lib/server/services/receipt';
import { transferById } from '$lib/server/services/transfers';
import type { RequestHandler } from './$types';

/** A page of its own, set for A4, that any browser prints or saves as PDF. */
export const GET: RequestHandler = async ({ params }) => {
  const transfer = await transferById(params.id);
  const receipt = transfer && (await receiptOf(transfer));
  if (!receipt) error(404, 'There is no receipt yet.');
  return new Response(receiptHtml(receipt), {
    headers: {
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Disposition': 'attachment; filename="receipt.html"',
      'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'",
    },
  });
};
