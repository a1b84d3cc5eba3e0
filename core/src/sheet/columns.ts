/** The columns of a sheet of items, in their order: what each is called, and whether it can be typed over. */
export const SHEET_COLUMNS = [
  { name: 'title', label: 'Title', open: true },
  { name: 'text', label: 'Text', open: true },
  { name: 'kind', label: 'Kind', open: false },
  { name: 'category', label: 'Category', open: true },
  { name: 'points', label: 'Points', open: true },
  { name: 'choices', label: 'Choices', open: false },
  { name: 'key', label: 'Key', open: true },
  { name: 'tolerance', label: 'Tolerance', open: true },
  { name: 'shuffle', label: 'Shuffle', open: true },
  { name: 'fixed', label: 'Fixed choices', open: true },
  { name: 'feedback', label: 'Feedback', open: true },
] as const;

export type SheetColumn = (typeof SHEET_COLUMNS)[number]['name'];
export const COLUMN_NAMES = SHEET_COLUMNS.map((c) => c.name);
export const columnLabel = (column: SheetColumn): string =>
  SHEET_COLUMNS.find((c) => c.name === column)!.label;

const squeezed = (text: string): string => text.normalize('NFC').replace(/\s+/gu, ' ').trim();
/** Whether two cells say the same, however their blanks and letters were typed. */
export const sameCell = (a: string, b: string): boolean => squeezed(a) === squeezed(b);

/** What a sheet says of an item: a text for each column. */
export type SheetCells = Readonly<Record<SheetColumn, string>>;
