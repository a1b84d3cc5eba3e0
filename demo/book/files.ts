import { asDocx, asHtml, asPdf, asRtf, asText } from './documents.ts';
import { GROUNDWORK } from './groundwork.ts';
import { chapterLines } from './lines.ts';
import { ON_PASSAGE } from './passage.ts';
import type { Chapter } from './question.ts';
import { asCsv, asXlsx } from './tables.ts';
import { WATERS } from './waters.ts';

/** The test bank of the invented textbook "Coastal pilotage", third edition, as its publisher hands it out: a file a chapter. */
export const BOOK: readonly Chapter[] = [...GROUNDWORK, ...WATERS, ...ON_PASSAGE];

interface BookFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);

/** What each chapter came as, in the order of the chapters. */
const FORMS: readonly (readonly [ending: string, make: (chapter: Chapter) => Promise<Uint8Array>])[] = [
  ['docx', (c) => asDocx(chapterLines(c, { automatic: true, key: 'bold' }))],
  ['xlsx', (c) => asXlsx(c, 'wide')],
  ['rtf', async (c) => utf8(asRtf(chapterLines(c, { key: 'lines' })))],
  ['docx', (c) => asDocx(chapterLines(c, { key: 'highlight' }))],
  ['txt', async (c) => utf8(asText(chapterLines(c, { key: 'list' })))],
  ['html', async (c) => utf8(asHtml(c.title, chapterLines(c, { key: 'bold' })))],
  ['csv', async (c) => utf8(asCsv(c))],
  ['pdf', (c) => asPdf(c.title, chapterLines(c, { key: 'bold' }))],
  ['txt', async (c) => utf8(asText(chapterLines(c, { key: 'star' })))],
  ['rtf', async (c) => utf8(asRtf(chapterLines(c, { key: 'lines' })))],
  ['xlsx', (c) => asXlsx(c, 'long')],
  ['docx', (c) => asDocx(chapterLines(c, { automatic: true, key: 'list' }))],
];

export const chapterFiles = (): Promise<BookFile[]> =>
  Promise.all(
    BOOK.map(async (chapter, at) => {
      const [ending, make] = FORMS[at]!;
      const name = `pilotage-ch${String(chapter.number).padStart(2, '0')}.${ending}`;
      return { name, bytes: await make(chapter) };
    }),
  );

/**
 * An old exam that nobody tidied up: its keys are bold, two questions run into each other, an instruction stands between
 * them, and a remark of the teacher's is left in it.
 */
export const untidyExam = (): Promise<Uint8Array> =>
  asDocx([
    { text: 'Chartwork, resit', heading: true },
    { text: 'Name and number on each sheet. No telephones.' },
    { text: '1. Which of these is a position line?', apart: true },
    { text: 'a. a bearing', bold: true },
    { text: 'b. a heading' },
    { text: 'c. a speed' },
    { text: '(Ask for the old chart at the desk; it is the one with the coffee stain.)', apart: true },
    { text: '2. The rose of the chart gives …', apart: true },
    { text: 'a. the variation', bold: true },
    { text: 'b. the deviation' },
    { text: 'c. the depth' },
    { text: 'Which scale is used for distances? Write “latitude” or “longitude”.', apart: true },
    { text: '3. A transit is …', apart: true },
    { text: 'a. two objects in line', bold: true },
    { text: 'b. a moving light', bold: true },
    { text: 'c. a chart table' },
    { text: '4. A fix is marked by …', apart: true },
    { text: 'a. a triangle' },
    { text: 'b. a circle with a dot', bold: true },
    { text: 'c. an arrow' },
    { text: 'Turn over', apart: true },
    { text: 'To be marked by R. and me before Friday. Room 12 is locked, key at the office.' },
    { text: '5. Slack water is …', apart: true },
    { text: 'a. a calm sea' },
    { text: 'b. when there is hardly any stream', bold: true },
    { text: 'c. high water' },
  ]);
