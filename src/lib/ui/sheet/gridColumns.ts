import { SHEET_COLUMNS, type SheetColumn } from '@alforja/core/sheet';

/** How wide each column of the sheet is. */
const WIDTHS: Readonly<Record<SheetColumn, string>> = {
  title: '150px',
  text: 'minmax(280px, 1fr)',
  kind: '104px',
  category: '120px',
  points: '64px',
  choices: '210px',
  key: '84px',
  tolerance: '104px',
  shuffle: '66px',
  fixed: '66px',
  feedback: '150px',
};

/** As a grid lays them out: the number of a row before them, what was found after them. */
export const GRID_COLUMNS = `52px ${SHEET_COLUMNS.map((c) => WIDTHS[c.name]).join(' ')} 72px`;
