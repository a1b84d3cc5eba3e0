import { error, json } from '@sveltejs/kit';
import { receiptOf } from '$lib/server/services/receipt';
import { transferById } from '$lib/server/services/transfers';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ params }) => {
  const transfer = await transferById(params.id);
  const receipt = transfer && (await receiptOf(transfer));
  if (!receipt) error(404, 'There is no receipt yet.');
  return json(receipt, { headers: { 'Content-Disposition': 'attachment; filename="receipt.json"' } });
};
