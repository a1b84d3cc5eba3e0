/** What the keys of a rubric's sheet can do; a sheet does it. */
export interface KeyedSheet {
  readonly cursor: { readonly row: number; readonly col: number };
  readonly rows: number;
  readonly columns: number;
  go(row: number, col: number, extend?: boolean): void;
  shiftCriterion(by: number): void;
  shiftLevel(by: number): void;
  addCriterion(): void;
  duplicateCriterion(): void;
  removeCriterion(): void;
  clear(): void;
  undo(): void;
  redo(): void;
}

type KeyPress = Pick<KeyboardEvent, 'key' | 'shiftKey' | 'altKey' | 'ctrlKey' | 'metaKey'>;

const STEPS: Readonly<Record<string, readonly [row: number, col: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/**
 * Does what a key says.
 * @param edit opens the cell with the cursor: with what was typed, or with what stands in it
 * @returns whether the key says anything
 */
export function pressKey(sheet: KeyedSheet, event: KeyPress, edit: (typed: string | null) => void): boolean {
  const { key, shiftKey, altKey } = event;
  const ctrl = event.ctrlKey || event.metaKey;
  const act =
    arrow(sheet, event) ?? ends(sheet, key, ctrl, shiftKey) ?? (ctrl ? withCtrl : alone)(sheet, event);
  if (act) act();
  else if (key === 'Enter' || key === 'F2') edit(null);
  else if (key.length === 1 && !ctrl && !altKey) edit(key);
  else return false;
  return true;
}

type Act = (() => void) | undefined;

/** Arrows move; with Shift they mark, with Alt they take the criterion or level along. */
function arrow(sheet: KeyedSheet, { key, shiftKey, altKey }: KeyPress): Act {
  const step = Object.hasOwn(STEPS, key) ? STEPS[key] : undefined;
  if (!step) return undefined;
  const [row, col] = step;
  if (altKey) return () => (row !== 0 ? sheet.shiftCriterion(row) : sheet.shiftLevel(col));
  return () => sheet.go(sheet.cursor.row + row, sheet.cursor.col + col, shiftKey);
}

function ends(sheet: KeyedSheet, key: string, ctrl: boolean, extend: boolean): Act {
  if (key !== 'Home' && key !== 'End') return undefined;
  const home = key === 'Home';
  const row = ctrl ? (home ? 0 : sheet.rows - 1) : sheet.cursor.row;
  return () => sheet.go(row, home ? 0 : sheet.columns - 1, extend);
}

const alone = (sheet: KeyedSheet, { key }: KeyPress): Act =>
  ({
    Delete: () => sheet.clear(),
    Backspace: () => sheet.clear(),
    Insert: () => sheet.addCriterion(),
  })[key];

const withCtrl = (sheet: KeyedSheet, { key, shiftKey }: KeyPress): Act =>
  ({
    delete: () => sheet.removeCriterion(),
    d: () => sheet.duplicateCriterion(),
    z: () => (shiftKey ? sheet.redo() : sheet.undo()),
    y: () => sheet.redo(),
  })[key.toLowerCase()];
