import {
  Document,
  Footer,
  Packer,
  PageNumber,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
  convertMillimetersToTwip,
  type FileChild,
} from 'docx';
import { unzipSync, zipSync, strFromU8, strToU8, type Zippable } from 'fflate';
import { plainNumber } from '../model/number.ts';
import { DocxSetter, ended, styleOf } from './docxBlocks.ts';
import type { ReadFile } from './pictures.ts';
import type { KeyEntry, Paper, PaperKey, PaperStyle } from './types.ts';
import { paperTitle, pointsWord, WORDS } from './words.ts';

/** Sheets by their names, in millimetres (ISO 216; ANSI/ASME Y14.1). */
const SIZES = { A4: { width: 210, height: 297 }, Letter: { width: 215.9, height: 279.4 } } as const;
const MARGIN = 20;
/** Widths of question, answer, rule and points, in twips. */
const KEY_COLUMNS = [2500, 2900, 2900, 1200];

/** A paper as a document for a word processor. The same paper gives the same bytes. */
export function paperDocx(paper: Paper, style: PaperStyle, read: ReadFile): Promise<Uint8Array> {
  const set = new DocxSetter(style, read, room(style));
  const minutes = paper.minutes === null ? [] : [`${plainNumber(paper.minutes)} ${WORDS.minutes}`];
  const children: FileChild[] = [
    ...head(set, paper, paper.title, [pointsWord(paper.points), ...minutes].join(', ')),
    ...set.blocks(paper.instructions),
    ...paper.sections.flatMap((section): FileChild[] => [
      ...(paper.sections.length > 1 && section.title ? [set.heading(section.title, 2)] : []),
      ...set.blocks(section.instructions, { keepNext: true }),
      ...section.questions.flatMap((q) => set.question(q)),
    ]),
    ...(style.sheet ? sheetOf(set, paper) : []),
  ];
  return docxOf(paperTitle(paper.title, paper.version), paper.language, style, children);
}

/** The key of a paper as a document. */
export function keyDocx(key: PaperKey, style: PaperStyle, read: ReadFile): Promise<Uint8Array> {
  const set = new DocxSetter(style, read, room(style));
  const title = `${WORDS.key}: ${key.title}`;
  const header = [WORDS.question, WORDS.answer, WORDS.rule, WORDS.points];
  const rows = [
    new TableRow({
      tableHeader: true,
      cantSplit: true,
      children: header.map((h) =>
        cell([new Paragraph({ children: [new TextRun({ text: h, bold: true })] })]),
      ),
    }),
    ...key.entries.flatMap((e) => entryRows(set, e)),
  ];
  const children: FileChild[] = [
    ...named(set, key, title, pointsWord(key.points)),
    new Table({ width: { size: 100, type: WidthType.PERCENTAGE }, columnWidths: KEY_COLUMNS, rows }),
  ];
  return docxOf(paperTitle(title, key.version), key.language, style, children);
}

/** Room for pictures on a page. */
export const room = ({ size }: PaperStyle) => {
  const dots = (mm: number): number => ((mm - 2 * MARGIN) / 25.4) * 96;
  // A picture leaves room for what is asked about it.
  return { width: dots(SIZES[size].width), height: dots(SIZES[size].height) * 0.7 };
};

function head(
  set: DocxSetter,
  { head: { course, date }, version }: Pick<Paper, 'head' | 'version'>,
  title: string,
  says: string,
): FileChild[] {
  return [
    ...named(set, { head: { course, date }, version }, title, says),
    set.line(`${WORDS.name} ${'_'.repeat(36)}   ${WORDS.date} ${date || '_'.repeat(14)}`),
    set.gap(),
  ];
}

function named(
  set: DocxSetter,
  { head: { course }, version }: Pick<Paper, 'head' | 'version'>,
  title: string,
  says: string,
): FileChild[] {
  return [
    ...(course ? [set.line(course)] : []),
    set.heading(title, 1),
    set.line([version ? `${WORDS.version} ${version}` : '', says].filter((t) => t !== '').join(', ')),
  ];
}

function sheetOf(set: DocxSetter, paper: Paper): FileChild[] {
  const rows = paper.sections
    .flatMap((s) => s.questions)
    .flatMap(({ number, sheet }): TableRow[] => {
      if (!sheet) return [];
      const mark = sheet.several ? '□' : '○';
      const answer =
        sheet.letters.length > 0 ? sheet.letters.map((l) => `${mark} ${l}`).join('     ') : '_'.repeat(30);
      return [
        new TableRow({
          cantSplit: true,
          children: [cell([set.line(String(number))]), cell([set.line(answer)])],
        }),
      ];
    });
  if (rows.length === 0) return [];
  const title = `${WORDS.answerSheet}: ${paper.title}`;
  return [
    new Paragraph({ pageBreakBefore: true, children: [] }),
    ...head(set, paper, title, ''),
    set.line(WORDS.one),
    new Table({ width: { size: 100, type: WidthType.PERCENTAGE }, columnWidths: [900, 8600], rows }),
  ];
}

function entryRows(set: DocxSetter, entry: KeyEntry): TableRow[] {
  const answers = entry.answers.length === 0 ? [WORDS.byHand] : entry.answers;
  const row = new TableRow({
    cantSplit: true,
    children: [
      cell([set.line(`${entry.number}  ${entry.title}`)]),
      cell(answers.map((a) => set.line(a))),
      cell([set.line(entry.rule)]),
      cell([set.line(plainNumber(entry.points))]),
    ],
  });
  if (entry.guide.length === 0) return [row];
  const guide = new TableCell({ columnSpan: 4, children: ended(set.blocks(entry.guide)) });
  return [row, new TableRow({ children: [guide] })];
}

const cell = (children: readonly FileChild[]): TableCell => new TableCell({ children: ended(children) });

/** Puts a document together. */
export async function docxOf(
  title: string,
  language: string | null,
  style: PaperStyle,
  children: readonly FileChild[],
): Promise<Uint8Array> {
  const size = SIZES[style.size];
  const margin = convertMillimetersToTwip(MARGIN);
  const document = new Document({
    title,
    creator: 'Alforja',
    lastModifiedBy: 'Alforja',
    styles: styleOf(style, language),
    sections: [
      {
        properties: {
          page: {
            size: {
              width: convertMillimetersToTwip(size.width),
              height: convertMillimetersToTwip(size.height),
            },
            margin: { top: margin, bottom: margin, left: margin, right: margin },
          },
        },
        footers: {
          default: new Footer({
            children: [
              new Paragraph({
                children: [
                  new TextRun({
                    children: [`${title}   `, PageNumber.CURRENT, ' / ', PageNumber.TOTAL_PAGES],
                  }),
                ],
              }),
            ],
          }),
        },
        children: [...children],
      },
    ],
  });
  return settled(new Uint8Array(await Packer.pack(document, 'uint8array')));
}

/** A fixed date, outside and inside, so that the same paper gives the same bytes. */
const DATE = new Date(2000, 0, 1);
const STAMP = /\d{4}-\d\d-\d\dT[\d:.]+Z/gu;

function settled(bytes: Uint8Array): Uint8Array {
  const entries = unzipSync(bytes);
  const files: Zippable = {};
  for (const path of Object.keys(entries).sort()) {
    const content = entries[path]!;
    const dated = path === 'docProps/core.xml';
    files[path] = [
      dated ? strToU8(strFromU8(content).replace(STAMP, '2000-01-01T00:00:00Z')) : content,
      { mtime: DATE },
    ];
  }
  return zipSync(files);
}
