import { seamRows, type SeamRow, type State } from '@alforja/core';
import { letterOf, ROWS_A_PAGE, type SeamView } from '../../shared/seam.ts';
import type { Arrival } from '../../shared/transfers.ts';
import { arrivalRowsAt, arrivalStates } from '../store/arrivalRows.ts';
import type { Transfer } from '../store/transfers.ts';
import { acceptedItems } from './judged.ts';

/** Both sides of an arrival: how every row stands, and the rows that somebody looks at. */

/** The letter of a row that is not simply intact. */
const letterFor = (state: State, accepted: boolean): string => {
  if (state === 'intact') return letterOf('on purpose', state);
  return letterOf(accepted ? 'accepted' : state, state);
};

/** How every row of an arrival stands, and the first of them. */
export async function seamView(transfer: Transfer, arrival: Arrival): Promise<SeamView> {
  const accepted = acceptedItems(transfer, arrival);
  const first = await rowsFrom(transfer, arrival, 0);
  const { rows, differing } = await statesOf(transfer, arrival);
  const letters = new Array<string>(rows).fill(letterOf('intact', 'intact'));
  for (const { at, state, source } of differing)
    letters[at] = letterFor(state, source !== null && accepted.has(source));
  return {
    version: `${transfer.comparedAt ?? 0} ${accepted.size}`,
    states: letters.join(''),
    first,
    totals: arrival.totals,
  };
}

/** An arrival of an older version has its rows in itself. */
const statesOf = (transfer: Transfer, arrival: Arrival): ReturnType<typeof arrivalStates> => {
  if (transfer.seamId !== null) return arrivalStates(transfer.seamId);
  const rows = seamRows(arrival);
  const differing = rows.flatMap(({ state, left, purpose }, at) =>
    state === 'intact' && purpose.length === 0 ? [] : [{ at, state, source: left?.id ?? null }],
  );
  return Promise.resolve({ rows: rows.length, differing });
};

async function rowsFrom(transfer: Transfer, arrival: Arrival, from: number): Promise<SeamRow[]> {
  const places = Array.from({ length: ROWS_A_PAGE }, (_, n) => from + n);
  return (await seamRowsAt(transfer, arrival, places)).map(([, row]) => row);
}

/** The rows at some places, in order, each with its place. */
export async function seamRowsAt(
  { seamId }: Pick<Transfer, 'seamId'>,
  arrival: Arrival,
  places: readonly number[],
): Promise<(readonly [at: number, row: SeamRow])[]> {
  if (seamId !== null) return arrivalRowsAt(seamId, places);
  const rows = seamRows(arrival);
  return places.flatMap((at) => (rows[at] ? [[at, rows[at]] as const] : []));
}
