import { error } from '@sveltejs/kit';
import { receiptById } from '$lib/server/transfer/receipt';
import { receiptPage } from '$lib/ui/transfer/receiptPage';
import type { RequestHandler } from './$types';

/** A page of its own, set for A4, that any browser prints or saves as PDF. */
export const GET: RequestHandler = async ({ params }) => {
  const receipt = await receiptById(params.id);
  if (!receipt) error(404, 'There is no receipt yet.');
  return new Response(receiptPage(receipt), {
    headers: {
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Disposition': 'attachment; filename="receipt.html"',
      'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'",
    },
  });
};
