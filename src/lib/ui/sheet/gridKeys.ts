/** What the keys of the sheet of items can do; a sheet does it. */
export interface KeyedGrid {
  readonly cursor: { readonly row: number; readonly col: number };
  readonly shown: readonly unknown[];
  readonly columns: number;
  go(row: number, col: number, extend?: boolean): void;
  markAll(): void;
  fillDown(): void;
  clear(): void;
  leaveOut(): void;
  undo(what: 'undo' | 'redo'): Promise<void>;
}

type KeyPress = Pick<KeyboardEvent, 'key' | 'shiftKey' | 'altKey' | 'ctrlKey' | 'metaKey'>;

const STEPS: Readonly<Record<string, readonly [row: number, col: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-15, 0],
  PageDown: [15, 0],
};

/**
 * Does what a key says.
 * @param edit opens the cell with the cursor: with what was typed, or with what stands in it
 * @returns whether the key says anything
 */
export function pressGridKey(
  grid: KeyedGrid,
  event: KeyPress,
  edit: (typed: string | null) => void,
): boolean {
  const { key, shiftKey, altKey } = event;
  const ctrl = event.ctrlKey || event.metaKey;
  if (altKey) return false;
  const act = moving(grid, key, ctrl, shiftKey) ?? (ctrl ? withCtrl(grid, key, shiftKey) : alone(grid, key));
  if (act) act();
  else if (key === 'Enter' || key === 'F2') edit(null);
  else if (Array.from(key).length === 1 && !ctrl) edit(key);
  else return false;
  return true;
}

type Act = (() => void) | undefined;

function moving(grid: KeyedGrid, key: string, ctrl: boolean, extend: boolean): Act {
  const { row, col } = grid.cursor;
  const last = { row: grid.shown.length - 1, col: grid.columns - 1 };
  if (key === 'Home') return () => grid.go(ctrl ? 0 : row, 0, extend);
  if (key === 'End') return () => grid.go(ctrl ? last.row : row, last.col, extend);
  const step = Object.hasOwn(STEPS, key) ? STEPS[key] : undefined;
  if (!step) return undefined;
  if (!ctrl) return () => grid.go(row + step[0], col + step[1], extend);
  const edge = (by: number, at: number, end: number): number => (by === 0 ? at : by < 0 ? 0 : end);
  return () => grid.go(edge(step[0], row, last.row), edge(step[1], col, last.col), extend);
}

const alone = (grid: KeyedGrid, key: string): Act =>
  key === 'Delete' || key === 'Backspace' ? () => grid.clear() : undefined;

const withCtrl = (grid: KeyedGrid, key: string, shift: boolean): Act =>
  ({
    delete: () => grid.leaveOut(),
    a: () => grid.markAll(),
    d: () => grid.fillDown(),
    z: () => void grid.undo(shift ? 'redo' : 'undo'),
    y: () => void grid.undo('redo'),
  })[key.toLowerCase()];
