import {
  AlignmentType,
  Document,
  HeadingLevel,
  LevelFormat,
  Packer,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
} from 'docx';
import type { Line, Piece } from './layouts.ts';
import type { Words } from './truth.ts';

/** Paragraphs in the formats documents come in, by means that share nothing with the readers. */

const counter = (): ((kind: string) => number) => {
  let question = 0;
  let choice = 0;
  return (kind) => {
    if (kind === 'question') {
      choice = 0;
      return (question += 1);
    }
    return (choice += 1);
  };
};

/** As plain text: automatic labels are written out, marks of the pen are lost. */
export function asText(lines: readonly Line[], { letters }: Words): string {
  const next = counter();
  const out: string[] = [];
  for (const line of lines) {
    if (line.apart) out.push('');
    if (line.table) {
      out.push(...line.table.map((row) => row.join('\t')));
      continue;
    }
    const label =
      line.list === 'question'
        ? `${next('question')}. `
        : line.list === 'choice'
          ? `${[...letters][next('choice') - 1]}. `
          : line.list === 'bullet'
            ? '• '
            : '';
    out.push(label + line.pieces.map((p) => p.text).join(''));
  }
  return `${out.join('\n').trim()}\n`;
}

/** RTF by hand, in the code page of its language, with the texts of its lists. */
export function asRtf(lines: readonly Line[], words: Words): Uint8Array {
  const next = counter();
  const rtl = words.rightToLeft ? '\\rtlpar' : '';
  const body = lines.map((line) => {
    if (line.table)
      return line.table
        .map(
          (row) =>
            `\\trowd${row.map((_, n) => `\\cellx${(n + 1) * 900}`).join('')}${row.map((cell) => `\\pard\\plain\\intbl ${escaped(cell)}\\cell`).join('')}\\row`,
        )
        .join('\n');
    const label =
      line.list === 'question'
        ? `${next('question')}.`
        : line.list === 'choice'
          ? `${[...words.letters][next('choice') - 1]}.`
          : line.list === 'bullet'
            ? '\\bullet '
            : null;
    const listText =
      label === null
        ? ''
        : `{\\listtext\\pard\\plain ${label.startsWith('\\') ? label : escaped(label)}\\tab}`;
    const style = line.heading ? `\\s${line.heading}` : '';
    return `\\pard\\plain${rtl}${style} ${listText}${line.pieces.map(rtfPiece).join('')}\\par`;
  });
  const text = [
    '{\\rtf1\\ansi\\ansicpg1252\\deff0{\\fonttbl{\\f0\\froman\\fcharset0 Serif;}}',
    '{\\colortbl;\\red200\\green0\\blue0;\\red255\\green255\\blue0;}',
    '{\\stylesheet{\\s0 Normal;}{\\s1 heading 1;}{\\s2 heading 2;}}',
    ...body,
    '}',
  ].join('\r\n');
  return new TextEncoder().encode(text);
}

const rtfPiece = ({ text, bold, underline, highlight, red }: Piece): string => {
  const marks = `${bold ? '\\b' : ''}${underline ? '\\ul' : ''}${highlight ? '\\highlight2' : ''}${red ? '\\cf1' : ''}`;
  return marks === '' ? escaped(text) : `{${marks} ${escaped(text)}}`;
};
const escaped = (text: string): string =>
  [...text]
    .map((c) =>
      '\\{}'.includes(c)
        ? `\\${c}`
        : c.charCodeAt(0) < 128
          ? c
          : `\\u${c.charCodeAt(0) > 32_767 ? c.charCodeAt(0) - 65_536 : c.charCodeAt(0)}?`,
    )
    .join('');

/** HTML by hand: lists as lists. */
export function asHtml(lines: readonly Line[], words: Words): string {
  const out: string[] = [];
  let open: ('question' | 'choice' | 'bullet')[] = [];
  const closeTo = (depth: number): void => {
    while (open.length > depth) out.push(open.pop() === 'bullet' ? '</ul>' : '</li></ol>');
  };
  const inner = (line: Line): string => line.pieces.map(htmlPiece).join('');
  for (const line of lines) {
    if (line.list === 'question') {
      closeTo(1);
      out.push(open.length === 0 ? '<ol><li>' : '</li><li>', inner(line));
      open = ['question'];
    } else if (line.list === 'choice') {
      if (open.at(-1) !== 'choice') out.push(`<ol style="list-style-type: lower-alpha"><li>`);
      else out.push('</li><li>');
      if (open.at(-1) !== 'choice') open.push('choice');
      out.push(inner(line));
    } else if (line.list === 'bullet') {
      if (open.at(-1) !== 'bullet') {
        out.push('<ul>');
        open.push('bullet');
      }
      out.push(`<li>${inner(line)}</li>`);
    } else {
      closeTo(0);
      if (line.table)
        out.push(
          `<table>${line.table.map((r) => `<tr>${r.map((c) => `<td>${c}</td>`).join('')}</tr>`).join('')}</table>`,
        );
      else
        out.push(
          line.heading ? `<h${line.heading}>${inner(line)}</h${line.heading}>` : `<p>${inner(line)}</p>`,
        );
    }
  }
  closeTo(0);
  return (
    `<!DOCTYPE html>\n<html lang="${words.language}"${words.rightToLeft ? ' dir="rtl"' : ''}>` +
    `<head><meta charset="utf-8"><title>${words.title}</title></head><body>\n` +
    `${out.join('\n')}\n</body></html>\n`
  );
}
const htmlPiece = ({ text, bold, underline, highlight, red }: Piece): string => {
  let out = text.replace(/&/gu, '&amp;').replace(/</gu, '&lt;');
  if (bold) out = `<strong>${out}</strong>`;
  if (underline) out = `<span style="text-decoration: underline">${out}</span>`;
  if (highlight) out = `<span style="background-color: #ffff00">${out}</span>`;
  return red ? `<font color="#c80000">${out}</font>` : out;
};

/** A word-processor file by a library, with automatic numbering where the layout has it. */
export async function asDocx(lines: readonly Line[], words: Words): Promise<Uint8Array> {
  let question = 0;
  const children = lines.map((line) => {
    if (line.table)
      return new Table({
        rows: line.table.map(
          (row) =>
            new TableRow({ children: row.map((cell) => new TableCell({ children: [new Paragraph(cell)] })) }),
        ),
      });
    if (line.list === 'question') question += 1;
    const numbering =
      line.list === 'question'
        ? { reference: 'questions', level: 0 }
        : line.list === 'choice'
          ? { reference: 'choices', level: 0, instance: question }
          : line.list === 'bullet'
            ? { reference: 'bullets', level: 0 }
            : undefined;
    return new Paragraph({
      heading:
        line.heading === 1 ? HeadingLevel.HEADING_1 : line.heading === 2 ? HeadingLevel.HEADING_2 : undefined,
      bidirectional: words.rightToLeft,
      numbering,
      children: line.pieces.map(
        (p) =>
          new TextRun({
            text: p.text,
            bold: p.bold,
            underline: p.underline ? {} : undefined,
            highlight: p.highlight ? 'yellow' : undefined,
            color: p.red ? 'C80000' : undefined,
            rightToLeft: words.rightToLeft,
          }),
      ),
    });
  });
  const level = (format: (typeof LevelFormat)[keyof typeof LevelFormat], text: string) => [
    { level: 0, format, text, alignment: AlignmentType.START },
  ];
  const letters =
    words.language === 'ar'
      ? LevelFormat.ARABIC_ABJAD
      : words.language === 'ja'
        ? LevelFormat.AIUEO_FULL_WIDTH
        : LevelFormat.LOWER_LETTER;
  const document = new Document({
    numbering: {
      config: [
        { reference: 'questions', levels: level(LevelFormat.DECIMAL, '%1.') },
        { reference: 'choices', levels: level(letters, '%1.') },
        { reference: 'bullets', levels: level(LevelFormat.BULLET, '•') },
      ],
    },
    sections: [{ children }],
  });
  return new Uint8Array(await Packer.toBuffer(document));
}
