import Papa from 'papaparse';

/**
 * The rows of a table in what was copied elsewhere: from its mark-up where it has a table, else from tabs or
 * commas.
 */
export function rowsOf(data: DataTransfer): { rows: string[][]; text: string } {
  const text = data.getData('text/plain');
  const html = data.getData('text/html');
  const marked = html === '' ? [] : rowsOfHtml(html);
  return { rows: marked.length > 0 ? marked : rowsOfText(text), text };
}

/**
 * Tabs separate cells where there are any; a text without them may still be a table with commas or
 * semicolons.
 */
export function rowsOfText(text: string): string[][] {
  const delimiter = text.includes('\t') ? '\t' : '';
  const { data } = Papa.parse<string[]>(text.replace(/\r?\n$/u, ''), { delimiter, skipEmptyLines: false });
  return data.some((row) => row.length > 1) ? data : text.trim() === '' ? [] : [[text.trim()]];
}

/** A text of several lines and no columns, as one column of them. */
export function columnOf(rows: string[][]): string[][] {
  const [[only = ''] = []] = rows;
  return rows.length === 1 && rows[0]!.length === 1 && only.includes('\n')
    ? only.split(/\r?\n/u).map((line) => [line])
    : rows;
}

/** The rows of the first table; a cell that reaches over several stands in the first of them. */
function rowsOfHtml(html: string): string[][] {
  const table = new DOMParser().parseFromString(html, 'text/html').querySelector('table');
  if (!table) return [];
  const rows: string[][] = [];
  for (const [at, row] of [...table.rows].entries()) {
    rows[at] ??= [];
    let col = 0;
    for (const cell of row.cells) {
      while (rows[at][col] !== undefined) col++;
      for (let down = 0; down < Math.max(1, cell.rowSpan); down++)
        for (let right = 0; right < Math.max(1, cell.colSpan); right++)
          (rows[at + down] ??= [])[col + right] = down + right === 0 ? textOf(cell) : '';
      col += Math.max(1, cell.colSpan);
    }
  }
  return rows.map((row) => Array.from(row, (cell) => cell ?? ''));
}

/** Paragraphs and line breaks are lines; runs of blanks are one. */
function textOf(cell: HTMLElement): string {
  for (const br of cell.querySelectorAll('br')) br.replaceWith('\n');
  const blocks = [...cell.querySelectorAll('p, li, div')].filter((b) => !b.querySelector('p, li, div'));
  const lines = (blocks.length > 0 ? blocks : [cell]).flatMap((b) => (b.textContent ?? '').split('\n'));
  return lines
    .map((l) => l.replace(/\s+/gu, ' ').trim())
    .filter((l) => l !== '')
    .join('\n');
}
