import type { LineState, TransferLine } from '$lib/shared/transfers';

/** How the list of transfers calls the states, in the order in which they matter. */
export const STATE_NAMES: Readonly<Record<LineState, string>> = {
  stopped: 'Stopped',
  open: 'To decide',
  sent: 'Not checked',
  draft: 'Draft',
  sending: 'Under way',
  done: 'Done',
  'taken-back': 'Removed again',
};

export const STATE_TONES: Readonly<Record<LineState, string>> = {
  stopped: 'text-brick font-semibold',
  open: 'text-ochre font-semibold',
  sent: '',
  draft: 'text-quiet',
  sending: '',
  done: '',
  'taken-back': 'text-brick font-semibold',
};

type Key = 'begun' | 'title' | 'state' | 'from';
export type Sort = Key | `-${Key}`;

const ORDER = Object.keys(STATE_NAMES) as LineState[];
const names = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });
const COMPARE: Readonly<Record<Key, (a: TransferLine, b: TransferLine) => number>> = {
  begun: (a, b) => a.createdAt - b.createdAt,
  title: (a, b) => names.compare(a.title, b.title),
  from: (a, b) => names.compare(a.from, b.from),
  state: (a, b) => ORDER.indexOf(a.state) - ORDER.indexOf(b.state),
};

/** Lines by a column, downwards with a minus before it; what is equal by when it began, the latest first. */
export function sorted(lines: readonly TransferLine[], sort: Sort): TransferLine[] {
  const down = sort.startsWith('-');
  const compare = COMPARE[sort.replace('-', '') as Key];
  return lines.toSorted(
    (a, b) =>
      (down ? compare(b, a) : compare(a, b)) || b.createdAt - a.createdAt || names.compare(a.id, b.id),
  );
}
