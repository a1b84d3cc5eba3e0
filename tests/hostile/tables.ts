import { zip } from '../support/read.ts';
import { many, utf8, type Hostile } from './hostile.ts';

/** Tables that name more cells than they hold, and rubrics. */

const NS = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
const book = (sheet: string, more: { names?: string; strings?: string } = {}): Uint8Array =>
  zip({
    '[Content_Types].xml':
      '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>',
    '_rels/.rels':
      '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>',
    'xl/workbook.xml': `<workbook ${NS} xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="S" sheetId="1" r:id="rId1"/></sheets>${more.names ?? ''}</workbook>`,
    'xl/_rels/workbook.xml.rels':
      '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="rId2" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/sharedStrings" Target="sharedStrings.xml"/></Relationships>',
    'xl/sharedStrings.xml': `<sst ${NS}>${more.strings ?? '<si><t>x</t></si>'}</sst>`,
    'xl/worksheets/sheet1.xml': `<worksheet ${NS}>${sheet}</worksheet>`,
  });
const cell = (ref: string, text: string): string => `<c r="${ref}" t="inlineStr"><is><t>${text}</t></is></c>`;
const data = (rows: string): string => `<sheetData>${rows}</sheetData>`;
const header = `<row r="1">${['Question', 'Option A', 'Option B', 'Answer'].map((h, n) => cell(`${'ABCD'[n]!}1`, h)).join('')}</row><row r="2">${['Which side is port?', 'Left', 'Right', 'A'].map((h, n) => cell(`${'ABCD'[n]!}2`, h)).join('')}</row>`;
const refused = 'refused' as const;
const one = { items: 1 };

export const TABLES: readonly Hostile[] = [
  {
    name: 'the last cell of a million rows',
    file: 'last-cell.xlsx',
    then: refused,
    make: () => book(data(`${header}<row r="1048576">${cell('XFD1048576', 'x')}</row>`)),
  },
  {
    name: 'a last cell in every row',
    file: 'wide-rows.xlsx',
    then: refused,
    make: () => book(data(many(50_000, (n) => `<row r="${n + 1}"><c r="XFD${n + 1}"/></row>`))),
  },
  {
    name: 'one merged cell of seventeen thousand million',
    file: 'merged.xlsx',
    then: refused,
    make: () => book(`${data(header)}<mergeCells><mergeCell ref="A1:XFD1048576"/></mergeCells>`),
  },
  {
    name: 'a rule for every cell there is',
    file: 'validation.xlsx',
    then: one,
    make: () =>
      book(
        `${data(header)}<dataValidations count="1"><dataValidation type="list" sqref="A1:XFD1048576"><formula1>"a,b"</formula1></dataValidation></dataValidations>`,
      ),
  },
  {
    name: 'a name for every cell there is',
    file: 'names.xlsx',
    then: one,
    make: () =>
      book(data(header), {
        names: '<definedNames><definedName name="all">S!$A$1:$XFD$1048576</definedName></definedNames>',
      }),
  },
  {
    name: 'two million texts',
    file: 'strings.xlsx',
    then: refused,
    make: () => book(data(header), { strings: many(2_000_000, () => '<si/>') }),
  },
  {
    name: 'a million columns',
    file: 'columns.csv',
    then: refused,
    make: () =>
      utf8(`Question,Option A,Option B,Answer\nWhich?,a,b,A\nWhich?,a,b,A${','.repeat(1_000_000)}\n`),
  },
  {
    name: 'three million empty rows',
    file: 'rows.csv',
    then: refused,
    make: () => utf8(`Question,Option A,Option B,Answer\n${',\n'.repeat(3_000_000)}`),
  },
  {
    name: 'a quote that does not end',
    file: 'quote.csv',
    make: () => utf8(`Question,Answer\n"${'a,b\n'.repeat(90_000)}`),
  },
  {
    name: 'a cell of a million blanks',
    file: 'blanks.csv',
    make: () =>
      utf8(
        `Question,Option A,Option B,Answer\nWhich ${' '.repeat(1_000_000)}x,a${' '.repeat(500_000)}b,c,A\n`,
      ),
  },
  {
    name: 'numbers and rules without end in a header',
    file: 'header.csv',
    make: () => utf8(`criterion,${'level 1'.padEnd(200_000, '1')}x,${'-1'.repeat(100_000)}x\na,b,c\n`),
  },
  {
    name: 'a rubric of lists in lists',
    file: 'deep.json',
    make: () => utf8(`{"CFRubric":${'['.repeat(200_000)}`),
  },
  {
    name: 'a rubric of a hundred thousand criteria',
    file: 'criteria.json',
    make: () =>
      utf8(
        `{"CFRubrics":[{"identifier":"r","title":"R","CFRubricCriteria":[${Array.from({ length: 100_000 }, (_, n) => `{"identifier":"c${n}","description":"d","CFRubricCriterionLevels":[{"identifier":"l${n}","score":1,"position":1}]}`).join(',')}]}]}`,
      ),
  },
];
