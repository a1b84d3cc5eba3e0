/** What a browser needs of the sheet, light enough for it: `@alforja/core/sheet`. */
export { COLUMN_NAMES, columnLabel, SHEET_COLUMNS, type SheetCells, type SheetColumn } from './columns.ts';
