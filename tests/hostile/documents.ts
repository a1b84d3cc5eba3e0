import { zip } from '../support/read.ts';
import { assessmentXml, PLAIN } from '../../demo/qti12.ts';
import { many, utf8, type Hostile } from './hostile.ts';
import { laughingPdf } from './pdf.ts';

/** Documents of questions, and what stands in the text of an item. */

const W =
  'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" xmlns:m="http://schemas.openxmlformats.org/officeDocument/2006/math"';
const docx = (body: string): Uint8Array =>
  zip({
    '[Content_Types].xml': '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>',
    'word/document.xml': `<w:document ${W}><w:body>${body}</w:body></w:document>`,
  });
const p = (text: string): string => `<w:p><w:r><w:t>${text}</w:t></w:r></w:p>`;
const ODF =
  'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0"';
const odt = (body: string): Uint8Array =>
  zip({
    mimetype: 'application/vnd.oasis.opendocument.text',
    'META-INF/manifest.xml': '<m/>',
    'content.xml': `<office:document-content ${ODF}><office:body><office:text>${body}</office:text></office:body></office:document-content>`,
  });
const stem = (html: string): Uint8Array =>
  utf8(
    assessmentXml(
      {
        id: 'q',
        title: 'Q',
        items: [
          {
            kind: 'single',
            id: 'i',
            points: 1,
            stem: html,
            choices: [{ text: 'Left', right: true }, { text: 'Right' }],
          },
        ],
      },
      PLAIN,
    ),
  );
const item21 = (body: string): Uint8Array =>
  utf8(
    `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="i" title="I"><itemBody>${body}</itemBody></assessmentItem>`,
  );
const QUESTION = '1. Which side is port?\n*a) left\nb) right\n\n';
const one = { items: 1 };

export const DOCUMENTS: readonly Hostile[] = [
  {
    name: 'tables in tables, a hundred deep',
    file: 'tables.docx',
    make: () => docx(`${'<w:tbl><w:tr><w:tc>'.repeat(60)}${p('x')}${'</w:tc></w:tr></w:tbl>'.repeat(60)}`),
  },
  {
    name: 'a paragraph of three hundred thousand runs',
    file: 'runs.docx',
    make: () => docx(`<w:p>${many(300_000, () => '<w:r><w:t>a</w:t></w:r>')}</w:p>`),
  },
  {
    name: 'a formula sixty deep',
    file: 'formula.docx',
    make: () =>
      docx(
        `<w:p><m:oMath>${'<m:rad><m:e>'.repeat(90)}<m:r><m:t>x</m:t></m:r>${'</m:e></m:rad>'.repeat(90)}</m:oMath></w:p>`,
      ),
  },
  {
    name: 'a thousand million blanks in a few letters',
    file: 'blanks.odt',
    make: () => odt(`<text:p>1. Which<text:s text:c="1000000000"/>side?</text:p>`),
  },
  {
    name: 'a cell repeated a thousand million times',
    file: 'repeated.odt',
    make: () =>
      odt(
        '<table:table><table:table-column table:number-columns-repeated="1000000000"/><table:table-row table:number-rows-repeated="1000000000"><table:table-cell table:number-columns-repeated="1000000000"><text:p>x</text:p></table:table-cell></table:table-row></table:table>',
      ),
  },
  { name: 'groups a million deep', file: 'groups.rtf', make: () => utf8(`{\\rtf1 ${'{'.repeat(1_000_000)}`) },
  {
    name: 'binary of two thousand million bytes',
    file: 'binary.rtf',
    make: () => utf8(`{\\rtf1 1. Which?\\par {\\pict\\bin2147483647 abc}}`),
  },
  {
    name: 'a million control words',
    file: 'control.rtf',
    make: () => utf8(`{\\rtf1 ${'\\b1\\i0\\cf2'.repeat(400_000)} x}`),
  },
  {
    name: 'elements a hundred thousand deep on a page',
    slow: true,
    file: 'deep.html',
    make: () => utf8(`<html><body>${'<div>'.repeat(100_000)}1. Which?`),
  },
  {
    name: 'three hundred thousand attributes on a page',
    file: 'attributes.html',
    make: () => utf8(`<html><body><p ${many(300_000, (n) => `a${n} `)}>1. Which?</p>`),
  },
  {
    name: 'a style of a million parts',
    file: 'style.html',
    make: () => utf8(`<html><body><p style="${';color : '.repeat(200_000)}">1. Which?</p>`),
  },
  {
    name: 'lines of blanks',
    file: 'blanks.txt',
    make: () => utf8(`${QUESTION}${many(40, () => `2. x${' '.repeat(50_000)}y\n${' '.repeat(50_000)}*\n`)}`),
  },
  {
    name: 'lines of rules, brackets and dashes',
    file: 'rules.txt',
    make: () =>
      utf8(
        `${QUESTION}${many(20, () => `${'_'.repeat(50_000)}x\n${'('.repeat(50_000)}\na) ${'-'.repeat(50_000)} x\nAnswer: ${'. '.repeat(20_000)}x\n`)}`,
      ),
  },
  {
    name: 'two hundred thousand labels',
    slow: true,
    file: 'labels.txt',
    make: () => utf8(many(100_000, (n) => `${n}. a\nb) c\n`)),
  },
  {
    name: 'a key of a hundred thousand letters',
    file: 'keys.txt',
    make: () => utf8(`${QUESTION}Answers: ${many(20_000, (n) => `${n}a `)}\n${'1-a, '.repeat(20_000)}`),
  },
  {
    name: 'digits and dots',
    file: 'digits.txt',
    make: () =>
      utf8(`${QUESTION}2. ${'1.'.repeat(200_000)}\nAnswer: ${'9'.repeat(200_000)}x\n${'½'.repeat(100_000)}`),
  },
  {
    name: 'a page that says it is a PDF',
    file: 'false.pdf',
    make: () => utf8(`%PDF-1.7\n${'1 0 obj <<'.repeat(50_000)}`),
  },
  {
    name: 'a PDF of pages that hold themselves',
    file: 'pages.pdf',
    make: () =>
      utf8(
        '%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Count 1000000000/Kids[2 0 R 2 0 R]>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF',
      ),
  },
  {
    name: 'a PDF that draws a form of forms ten to the ninth times',
    file: 'laughing.pdf',
    then: 'refused',
    slow: true,
    make: () => laughingPdf(9, 10),
  },
  {
    name: 'TeX of a million braces',
    file: 'braces.xml',
    then: one,
    make: () => stem(`<p>\\(${'{'.repeat(300_000)}\\) and $${'\\frac'.repeat(100_000)}$</p>`),
  },
  {
    name: 'a hundred thousand formulas begun',
    file: 'begun.xml',
    then: one,
    make: () => stem(`<p>${'\\( $ \\['.repeat(100_000)}</p>`),
  },
  {
    name: 'MathML a hundred deep, and boxes over the page',
    file: 'mathml.xml',
    then: one,
    make: () =>
      item21(
        `<math xmlns="http://www.w3.org/1998/Math/MathML">${'<mrow>'.repeat(150)}<mspace width="-99999em" height="99999em"/><mpadded lspace="-9999px"><mi>x</mi></mpadded>${'</mrow>'.repeat(150)}</math>`,
      ),
  },
  {
    name: 'mark-up within mark-up within mark-up',
    file: 'escaped.xml',
    then: one,
    make: () => stem(`<div>${'&lt;div&gt;'.repeat(50_000)}x</div>`),
  },
  {
    name: 'elements deep in a stem',
    file: 'deep-stem.xml',
    then: one,
    make: () => stem(`${'<div>'.repeat(50_000)}x`),
  },
  {
    name: 'fifty thousand pictures that are not there',
    file: 'pictures.xml',
    then: one,
    make: () => stem(many(50_000, (n) => `<img src="p/${n}.png" alt="">`)),
  },
  {
    name: 'thirty megabytes of a picture in the text',
    slow: true,
    file: 'embedded.xml',
    then: one,
    make: () => stem(`<p><img src="data:image/png;base64,${'A'.repeat(30_000_000)}" alt="x"></p>`),
  },
  {
    name: 'a style of two million letters',
    file: 'style.xml',
    then: one,
    make: () => stem(`<p style="${'margin:-9999px;'.repeat(130_000)}">x</p>`),
  },
  {
    name: 'a word of a million letters',
    file: 'word.xml',
    then: one,
    make: () => stem(`<p>${'a'.repeat(1_000_000)} ${' '.repeat(1_000_000)}z</p>`),
  },
];
