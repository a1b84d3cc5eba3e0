import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { fixed } from './fixed.ts';
import { keyText } from './lines.ts';
import type { Chapter } from './question.ts';

/** Chapters as tables: a question a row, or a row a choice. */

const COLUMNS = ['No.', 'Question', 'A', 'B', 'C', 'D', 'Correct answer', 'Points', 'Topic'] as const;

/** A question a row, its choices side by side. */
const wide = ({ questions }: Chapter): (string | number)[][] => [
  [...COLUMNS],
  ...questions.map((q, at) => {
    const choices = q.kind === 'choice' ? q.choices : [];
    const key = q.kind === 'choice' ? keyText(q).toUpperCase() : keyText(q);
    return [at + 1, q.stem, ...Array.from({ length: 4 }, (_, n) => choices[n] ?? ''), key, q.points, q.topic];
  }),
];

/** A row a choice; what is right is ticked. */
const long = ({ questions }: Chapter): (string | number)[][] => [
  ['Question', 'Choice', 'Correct', 'Points', 'Topic'],
  ...questions.flatMap((q) =>
    (q.kind === 'choice' ? q.choices : []).map((text, at) => {
      const right = q.kind === 'choice' && q.right.includes(at);
      return [
        at === 0 ? q.stem : '',
        text,
        right ? 'x' : '',
        at === 0 ? q.points : '',
        at === 0 ? q.topic : '',
      ];
    }),
  ),
];

export const asCsv = (chapter: Chapter): string => `${Papa.unparse(wide(chapter), { newline: '\n' })}\n`;

export async function asXlsx(chapter: Chapter, rows: 'wide' | 'long'): Promise<Uint8Array> {
  const workbook = new ExcelJS.Workbook();
  workbook.created = workbook.modified = new Date(0);
  const sheet = workbook.addWorksheet(chapter.title);
  sheet.addRows(rows === 'wide' ? wide(chapter) : long(chapter));
  sheet.getRow(1).font = { bold: true };
  return fixed(new Uint8Array(await workbook.xlsx.writeBuffer()));
}
