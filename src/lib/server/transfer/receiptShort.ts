import type { Receipt, ReceiptList } from '../../shared/receipt.ts';

/** Entries of a list that the page of a receipt brings; the receipt as a file has all. */
const MOST_LISTED = 150;

/** A receipt with the first of its long lists; of what was cut it says how much that was. */
export function shortReceipt(receipt: Receipt): Receipt {
  const more: Partial<Record<ReceiptList, number>> = {};
  const first = <T>(name: ReceiptList, list: readonly T[]): readonly T[] => {
    if (list.length <= MOST_LISTED) return list;
    more[name] = list.length - MOST_LISTED;
    return list.slice(0, MOST_LISTED);
  };
  const { sent } = receipt;
  return {
    ...receipt,
    sent: sent && { ...sent, losses: first('losses', sent.losses) },
    altered: first('altered', receipt.altered),
    missing: first('missing', receipt.missing),
    extra: first('extra', receipt.extra),
    containers: first('containers', receipt.containers),
    missingFiles: first('missingFiles', receipt.missingFiles),
    alteredFiles: first('alteredFiles', receipt.alteredFiles),
    onPurpose: first('onPurpose', receipt.onPurpose),
    differences: first('differences', receipt.differences),
    more,
  };
}
