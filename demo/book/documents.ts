import {
  AlignmentType,
  Document,
  HeadingLevel,
  ImageRun,
  LevelFormat,
  Math as Formula,
  MathFraction,
  MathRun,
  Packer,
  Paragraph,
  TextRun,
} from 'docx';
import PDFDocument from 'pdfkit';
import { harbourChart, transitMarks } from '../pictures.ts';
import { fixed } from './fixed.ts';
import type { BookLine } from './lines.ts';

/** Lines of a chapter as files of the kinds publishers hand out. */

const PICTURES = {
  harbour: {
    bytes: harbourChart,
    width: 320,
    height: 200,
    alt: 'The mouth of a harbour with a red can and a green cone',
  },
  transit: {
    bytes: transitMarks,
    width: 300,
    height: 183,
    alt: 'Two beacons on a shore, one behind the other',
  },
} as const;

export const asText = (lines: readonly BookLine[]): string =>
  `${lines.map((l) => `${l.apart ? '\n' : ''}${l.text}`).join('\n')}\n`;

const escapeRtf = (text: string): string =>
  [...text]
    .map((c) => ('\\{}'.includes(c) ? `\\${c}` : c.charCodeAt(0) < 128 ? c : `\\u${c.charCodeAt(0)}?`))
    .join('');

export function asRtf(lines: readonly BookLine[]): string {
  const body = lines.map(({ text, heading, bold, apart }) => {
    const look = heading ? '\\s1\\b\\fs32' : bold ? '\\b' : '';
    return `${apart ? '\\pard\\par\n' : ''}\\pard{${look} ${escapeRtf(text)}}\\par`;
  });
  return [
    '{\\rtf1\\ansi\\ansicpg1252\\deff0{\\fonttbl{\\f0\\froman Serif;}}',
    '{\\stylesheet{\\s0 Normal;}{\\s1 heading 1;}}',
    ...body,
    '}',
  ].join('\n');
}

const escapeHtml = (text: string): string =>
  text.replace(/&/gu, '&amp;').replace(/</gu, '&lt;').replace(/>/gu, '&gt;');

export function asHtml(title: string, lines: readonly BookLine[]): string {
  const body = lines.map(({ text, heading, bold }) => {
    const inner = bold ? `<b>${escapeHtml(text)}</b>` : escapeHtml(text);
    return heading ? `<h1>${inner}</h1>` : `<p>${inner}</p>`;
  });
  const head = `<meta charset="utf-8"><title>${escapeHtml(title)}</title>`;
  return `<!DOCTYPE html>\n<html lang="en"><head>${head}</head><body>\n${body.join('\n')}\n</body></html>\n`;
}

function docxParagraph(line: BookLine, instance: number): Paragraph {
  if (line.picture) {
    const { bytes, width, height, alt } = PICTURES[line.picture];
    return new Paragraph({
      children: [
        new ImageRun({
          type: 'png',
          data: bytes(),
          transformation: { width, height },
          altText: { name: line.picture, title: alt, description: alt },
        }),
      ],
    });
  }
  if (line.formula) {
    const [above, below, result] = line.formula;
    const fraction = new MathFraction({ numerator: [new MathRun(above)], denominator: [new MathRun(below)] });
    return new Paragraph({ children: [new Formula({ children: [new MathRun(`${result} = `), fraction] })] });
  }
  return new Paragraph({
    ...(line.heading ? { heading: HeadingLevel.HEADING_1 } : {}),
    ...(line.list
      ? { numbering: { reference: 'bank', level: line.list === 'question' ? 0 : 1, instance } }
      : {}),
    children: [
      new TextRun({
        text: line.text,
        bold: line.bold ?? false,
        ...(line.highlight ? { highlight: 'yellow' as const } : {}),
      }),
    ],
  });
}

export async function asDocx(lines: readonly BookLine[]): Promise<Uint8Array> {
  const level = (at: number, format: (typeof LevelFormat)[keyof typeof LevelFormat], text: string) => ({
    level: at,
    format,
    text,
    alignment: AlignmentType.START,
    style: { paragraph: { indent: { left: 400 * (at + 1), hanging: 400 } } },
  });
  const document = new Document({
    numbering: {
      config: [
        {
          reference: 'bank',
          levels: [level(0, LevelFormat.DECIMAL, '%1.'), level(1, LevelFormat.LOWER_LETTER, '%2.')],
        },
      ],
    },
    sections: [{ children: lines.map((l) => docxParagraph(l, 0)) }],
  });
  return fixed(new Uint8Array(await Packer.toArrayBuffer(document)));
}

export function asPdf(
  title: string,
  lines: readonly BookLine[],
  over: PDFKit.PDFDocumentOptions = {},
): Promise<Uint8Array> {
  const pdf = new PDFDocument({
    size: 'A4',
    margin: 64,
    info: { Title: title, CreationDate: new Date(0) },
    ...over,
  });
  const parts: Buffer[] = [];
  const done = new Promise<Uint8Array>((resolve) => {
    pdf.on('data', (part: Buffer) => parts.push(part));
    pdf.on('end', () => resolve(new Uint8Array(Buffer.concat(parts))));
  });
  for (const { text, heading, bold, apart } of lines) {
    if (apart) pdf.moveDown(0.6);
    pdf
      .font(heading || bold ? 'Helvetica-Bold' : 'Helvetica')
      .fontSize(heading ? 16 : 10.5)
      .text(text);
  }
  pdf.end();
  return done;
}
