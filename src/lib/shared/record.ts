import type { Tally } from '@alforja/core';

/** What acts on a transfer came to, in the words that lists, receipts and screens share. */

const VERDICTS = { intact: 'intact', altered: 'altered', incomplete: 'incomplete' } as const;

/** "altered: 40 intact, 2 altered, 0 missing, 0 extra; 2 accepted, 0 open". */
export function saysTally({ verdict, counts, open, accepted }: Tally): string {
  const { intact, altered, missing, extra } = counts;
  return `${VERDICTS[verdict]}: ${intact} intact, ${altered} altered, ${missing} missing, ${extra} extra; ${accepted} accepted, ${open} open`;
}

/** "removed: Tidal exam, Lights; left there: …". */
export function saysTakenBack({
  removed,
  refused,
}: {
  readonly removed: readonly string[];
  readonly refused: readonly string[];
}): string {
  const gone = removed.length === 0 ? 'nothing was removed' : `removed: ${removed.join(', ')}`;
  return refused.length === 0 ? gone : `${gone}; left there: ${refused.join(' ')}`;
}
