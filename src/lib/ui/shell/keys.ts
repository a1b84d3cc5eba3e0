/** The keys of a page: those that work everywhere, and its own. */
export interface KeyLine {
  readonly key: string;
  readonly does: string;
}

const EVERYWHERE: readonly KeyLine[] = [
  { key: '/ or Ctrl K', does: 'search' },
  { key: 'Esc', does: 'close' },
  { key: '?', does: 'show this list' },
];

const LIST: readonly KeyLine[] = [
  { key: '↑ ↓', does: 'move in the list' },
  { key: 'Home End', does: 'first and last row' },
];

const PAGES: readonly { readonly at: RegExp; readonly name: string; readonly keys: readonly KeyLine[] }[] = [
  {
    at: /^\/transfers\/[^/]+\/arrival/u,
    name: 'Arrival',
    keys: [
      ...LIST,
      { key: 'N', does: 'next difference' },
      { key: 'Enter', does: 'unfold or fold a row' },
      { key: 'Esc', does: 'fold all rows' },
    ],
  },
  {
    at: /^\/transfers\/[^/]+\/contents/u,
    name: 'Contents',
    keys: [
      { key: 'Space', does: 'tick or untick' },
      { key: 'Enter', does: 'unfold a quiz or bank' },
      { key: 'Ctrl Z', does: 'undo the last tick' },
    ],
  },
  {
    at: /^\/packages\/[^/]+\/sheet/u,
    name: 'Sheet of items',
    keys: [
      { key: '↑ ↓ ← →', does: 'move; with Shift, mark' },
      { key: 'A letter', does: 'replace what is in the cell' },
      { key: 'Enter or F2', does: 'edit the cell' },
      { key: 'Ctrl Enter', does: 'keep it in all marked cells' },
      { key: 'Ctrl D', does: 'fill down' },
      { key: 'Ctrl A', does: 'mark everything' },
      { key: 'Delete', does: 'empty the cells' },
      { key: 'Ctrl Delete', does: 'leave the rows out' },
      { key: 'Ctrl F', does: 'find and replace' },
      { key: 'Ctrl Z, Ctrl Y', does: 'undo, redo' },
    ],
  },
  {
    at: /^\/packages\/[^/]+$/u,
    name: 'Reading room',
    keys: [...LIST, { key: 'Page ↑ ↓', does: 'ten rows' }],
  },
  {
    at: /^\/rubrics\/own\//u,
    name: 'Rubric',
    keys: [
      { key: '↑ ↓ ← →', does: 'move; with Shift, mark' },
      { key: 'A letter', does: 'replace what is in the cell' },
      { key: 'Enter or F2', does: 'edit the cell' },
      { key: 'Esc', does: 'leave the cell as it was' },
      { key: 'Alt ↑ ↓ ← →', does: 'move the criterion or level' },
      { key: 'Insert', does: 'add a criterion' },
      { key: 'Ctrl D', does: 'duplicate the criterion' },
      { key: 'Ctrl Z, Ctrl Y', does: 'undo, redo' },
    ],
  },
  {
    at: /^\/rubrics$/u,
    name: 'Rubrics',
    keys: [{ key: 'Ctrl V', does: 'make a rubric of the table you copied' }],
  },
];

/** The keys of the page at an address, its own first. */
export function keysOf(path: string): { readonly name: string; readonly keys: readonly KeyLine[] }[] {
  const own = PAGES.filter((p) => p.at.test(path)).map(({ name, keys }) => ({ name, keys }));
  return [...own, { name: 'Everywhere', keys: EVERYWHERE }];
}
