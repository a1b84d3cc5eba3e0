import { error, json } from '@sveltejs/kit';
import { receiptById } from '$lib/server/transfer/receipt';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ params }) => {
  const receipt = await receiptById(params.id);
  if (!receipt) error(404, 'There is no receipt yet.');
  return json(receipt, { headers: { 'Content-Disposition': 'attachment; filename="receipt.json"' } });
};
