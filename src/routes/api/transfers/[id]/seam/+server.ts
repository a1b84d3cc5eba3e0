import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { ROWS_A_PAGE } from '$lib/shared/seam';
import { transferById } from '$lib/server/store/transfers';
import { seamRowsAt } from '$lib/server/transfer/seam';
import type { RequestHandler } from './$types';

const Places = z
  .string()
  .transform((text) => text.split(',').map(Number))
  .pipe(z.array(z.number().int().nonnegative()).min(1).max(ROWS_A_PAGE));

/** Rows of both sides at some places, each with its place. */
export const GET: RequestHandler = async ({ params, url }) => {
  const places = Places.safeParse(url.searchParams.get('at') ?? '');
  if (!places.success) error(400, `Name the rows by their places, ${ROWS_A_PAGE} at most.`);
  const transfer = await transferById(params.id);
  if (!transfer?.arrival) error(404, 'Nothing of this transfer has been compared.');
  return json(await seamRowsAt(transfer, transfer.arrival, places.data));
};
