import {
  blocksSeen,
  DEFAULT_LIMITS,
  explainDocuments,
  layoutChoices,
  openArchive,
  readHolding,
  saidBy,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { Document, ImageRun, Packer, Paragraph, TextRun } from 'docx';
import ExcelJS from 'exceljs';
import { PNG } from 'pngjs';
import { SaxesParser } from 'saxes';

/** A document of 500 questions with 40 pictures, and a workbook of 2,000 rows; prints ratios against their raw cost. */

async function best(work: () => Promise<unknown>): Promise<number> {
  let least = Infinity;
  for (let round = 0; round < 5; round++) {
    globalThis.gc?.();
    const before = performance.now();
    await work();
    least = Math.min(least, performance.now() - before);
  }
  return least;
}

/** A picture that no other is like, of about the size of a screenshot. */
function picture(seed: number): Buffer {
  const png = new PNG({ width: 160, height: 90 });
  for (let at = 0; at < png.data.length; at++) png.data[at] = at % 4 === 3 ? 255 : (at * (seed + 3)) % 251;
  return PNG.sync.write(png);
}

const WORDS = [
  'anchor bearing buoy cable chart compass course current datum depth drift ebb fathom',
  'flood harbour heading hull knot landfall lead light log mark mile mooring neap pilot',
  'port quay range reef rope rudder sail shoal sound spring starboard stream swell tack',
  'tide vane vessel wake wharf wind',
]
  .join(' ')
  .split(' ');
/** Words that make no two questions alike. */
const phrase = (n: number, length: number): string =>
  Array.from(
    { length },
    (_, at) => WORDS[(n * 31 + at * at * 7 + ((n * at * 13) % 29)) % WORDS.length]!,
  ).join(' ');

async function document500(): Promise<Uint8Array> {
  const children = Array.from({ length: 500 }, (_, n) => [
    new Paragraph({
      children: [
        new TextRun(`${n + 1}. What is said of the ${phrase(n, 14)} number ${n * 17}? (2 points)`),
        ...(n % 13 === 0
          ? [new ImageRun({ type: 'png', data: picture(n), transformation: { width: 160, height: 90 } })]
          : []),
      ],
    }),
    ...['a', 'b', 'c', 'd'].map((l, at) => new Paragraph(`${l}. the ${phrase(n * 5 + at, 7)}`)),
    new Paragraph(`Answer: ${'abcd'[n % 4]}`),
    new Paragraph(`Difficulty: ${n % 3 === 0 ? 'hard' : 'easy'}`),
  ]).flat();
  return new Uint8Array(await Packer.toBuffer(new Document({ sections: [{ children }] })));
}

async function workbook2000(): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Questions');
  sheet.addRow(['Question', 'A', 'B', 'C', 'D', 'Answer', 'Points', 'Category']);
  for (let n = 0; n < 2000; n++)
    sheet.addRow([
      `How far does a vessel run in ${n} minutes at ${n % 20} knots?`,
      `${n} miles`,
      `${n + 1} miles`,
      `${n + 2} miles`,
      `${n + 3} miles`,
      'ABCD'[n % 4],
      1 + (n % 3),
      'Speed',
    ]);
  return new Uint8Array(await book.xlsx.writeBuffer());
}

const docx = await document500();
const rawDocx = await best(async () => {
  const archive = await openArchive('a.docx', docx, nodePlatform, DEFAULT_LIMITS);
  for (const path of archive.files.keys()) {
    const content = archive.read(path)!;
    if (!/\.(?:xml|rels)$/u.test(path)) continue;
    const parser = new SaxesParser({ xmlns: false, position: true });
    parser.on('error', (e) => {
      throw e;
    });
    parser.write(new TextDecoder().decode(content)).close();
  }
});
let items = 0;
const readDocx = await best(async () => {
  items = (await readHolding('a.docx', docx, nodePlatform)).items.length;
});
const [first] = await explainDocuments('a.docx', docx, nodePlatform);
const said = saidBy([{ op: 'read-as', path: 'a.docx', to: { ...first!.recognised.layout, key: 'none' } }]);
/** What a page shows after a part of the layout was changed. */
const shownAgain = await best(async () => {
  const [one] = await explainDocuments('a.docx', docx, nodePlatform, { said });
  blocksSeen(one!.recognised, one!.built);
  layoutChoices(one!.recognised);
});
const xlsx = await workbook2000();
const rawXlsx = await best(() => new ExcelJS.Workbook().xlsx.load(xlsx.slice().buffer));
let rows = 0;
const readXlsx = await best(async () => {
  rows = (await readHolding('a.xlsx', xlsx, nodePlatform)).items.length;
});
const line = (what: string, raw: number, read: number, aim: number): string =>
  `${what}: ${read.toFixed(0)} ms, raw ${raw.toFixed(0)} ms, ratio ${(read / raw).toFixed(2)} (aim ${aim})\n`;
process.stdout.write(
  line(`docx, ${items} questions, 39 pictures, ${docx.length} bytes`, rawDocx, readDocx, 5),
);
process.stdout.write(line('the same with another layout, for its page', rawDocx, shownAgain, 20));
process.stdout.write(line(`xlsx, ${rows} rows`, rawXlsx, readXlsx, 2));
