import { isLeftOut, type Receipt, type ReceiptList } from '../../shared/receipt.ts';

/** Entries of a list that the page of a receipt brings, and names of what was left out; the receipt as a file has all. */
const MOST_LISTED = 100;
const MOST_LEFT_OUT = 400;

/** A receipt with the first of its long lists; of what was cut it says how much that was. */
export function shortReceipt(receipt: Receipt): Receipt {
  const more: Partial<Record<ReceiptList, number>> = {};
  const first = <T>(name: ReceiptList, list: readonly T[], most = MOST_LISTED): readonly T[] => {
    if (list.length <= most) return list;
    more[name] = list.length - most;
    return list.slice(0, most);
  };
  const { sent, onPurpose } = receipt;
  const changed = first(
    'onPurpose',
    onPurpose.filter((c) => !isLeftOut(c)),
  );
  const leftOut = first('leftOut', onPurpose.filter(isLeftOut), MOST_LEFT_OUT);
  return {
    ...receipt,
    sent: sent && { ...sent, losses: first('losses', sent.losses) },
    altered: first('altered', receipt.altered),
    missing: first('missing', receipt.missing),
    extra: first('extra', receipt.extra),
    containers: first('containers', receipt.containers),
    missingFiles: first('missingFiles', receipt.missingFiles),
    alteredFiles: first('alteredFiles', receipt.alteredFiles),
    onPurpose: [...changed, ...leftOut],
    differences: first('differences', receipt.differences),
    more,
  };
}
