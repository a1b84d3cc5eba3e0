import type { Receipt } from '../../shared/receipt.ts';
import { saysTakenBack } from '../../shared/record.ts';

const escape = (text: string): string =>
  text.replace(/&/gu, '&amp;').replace(/</gu, '&lt;').replace(/>/gu, '&gt;').replace(/"/gu, '&quot;');
const row = (cells: readonly string[], tag = 'td'): string =>
  `<tr>${cells.map((c) => `<${tag}>${escape(c)}</${tag}>`).join('')}</tr>`;
const paragraph = (text: string): string => `<p>${escape(text)}</p>`;

function table(title: string, head: readonly string[], rows: readonly (readonly string[])[]): string {
  if (rows.length === 0) return '';
  const body = rows.map((r) => row(r)).join('');
  return `<h2>${escape(title)}</h2><table><thead>${row(head, 'th')}</thead><tbody>${body}</tbody></table>`;
}

const STYLE = [
  '@page{size:A4;margin:18mm}',
  "body{font:11pt/1.4 Georgia,'Noto Serif',serif;color:#23262b;max-width:174mm;margin:10mm auto}",
  'h1{font-size:18pt;border-bottom:2px solid #7b4b2a}',
  'h2{font-size:12pt;margin:6mm 0 1mm}',
  'table{border-collapse:collapse;width:100%;font-size:9.5pt}',
  'th,td{text-align:left;vertical-align:top;border-bottom:1px solid #ddd5c7;padding:1mm 2mm 1mm 0;overflow-wrap:anywhere}',
  'tr{break-inside:avoid}',
].join('');

/** The receipt as one page without anything from elsewhere. */
export function receiptHtml(receipt: Receipt): string {
  const { transfer, way, rubrics, sheet } = receipt;
  const title = escape(transfer.title);
  return [
    '<!doctype html><html lang="en"><head><meta charset="utf-8">',
    `<title>${title}, receipt</title><style>${STYLE}</style></head><body>`,
    `<h1>Receipt</h1><p><b>${title}</b><br>${escape(transfer.id)}</p>`,
    wayParagraph(receipt),
    ...takenBackLines(receipt).map((line) => `<p><b>${escape(line)}</b></p>`),
    paragraph(verdictLine(receipt)),
    table('Files', ['', 'name', 'SHA-256', 'when'], fileRows(receipt)),
    table(
      'Planned',
      ['name', 'kind', ''],
      way.planned.map((p) => [p.name, p.kind, p.action]),
    ),
    table('Differences', ['what', 'planned', 'found', ''], differenceRows(receipt)),
    table(
      'Rubrics',
      ['name', '', 'criteria', 'points', 'grades'],
      rubrics.map((r) => [
        r.name,
        r.state,
        String(r.criteria),
        r.points === null ? 'not scored' : String(r.points),
        r.grades.join(', ') || 'nothing',
      ]),
    ),
    table(
      'Settings no package carries',
      ['', 'quiz', 'setting', 'value'],
      sheet.map((s) => [s.found ? '☑' : '☐', s.quiz, s.setting, s.value]),
    ),
    table(
      'Steps',
      ['step', 'came to', 'when'],
      way.steps.map((s) => [s.name, s.says || s.state, s.ended ?? '']),
    ),
    table(
      'Record',
      ['when', 'what', 'came to', 'by'],
      way.record.map((a) => [a.at, a.act, a.says, a.by]),
    ),
    ...way.notes.map(paragraph),
    '</body></html>',
  ].join('\n');
}

function wayParagraph({ way }: Receipt): string {
  const lines = [
    ...(way.from ? [`From ${way.from}`] : []),
    way.to ? `Into ${way.to}` : 'Written as a file',
    ...(way.by ? [`Sent by ${way.by}`] : []),
  ];
  return `<p>${lines.map(escape).join('<br>')}</p>`;
}

/** What was taken back, when and by whom; nothing where it was not. */
const takenBackLines = ({ takenBack }: Receipt): string[] =>
  takenBack
    ? [
        `Undone${takenBack.refused.length > 0 ? ' in part' : ''} on ${takenBack.at} by ${takenBack.by}; ${saysTakenBack(takenBack)}.`,
      ]
    : [];

function verdictLine(receipt: Receipt): string {
  const { counts, accepted, open } = receipt;
  const verdict = receipt.takenBack
    ? `found before that, ${receipt.foundBefore ?? 'not checked'}`
    : receipt.verdict;
  if (!counts) return 'not checked yet';
  const { intact, altered, missing, extra } = counts;
  const said = `${intact} intact, ${altered} altered, ${missing} missing, ${extra} extra`;
  return `${verdict ?? ''}: ${said}; ${accepted} accepted, ${open} open`;
}

const fileRows = ({ source, sent, arrived }: Receipt): string[][] => [
  ['source', source.name, source.sha256, source.brought ?? ''],
  ...(sent?.name ? [sent, ...sent.more] : (sent?.more ?? [])).map((f) => [
    'sent',
    f.name,
    f.sha256,
    sent?.at ?? '',
  ]),
  ...(arrived ? [['arrived', arrived.name, arrived.sha256, arrived.compared ?? '']] : []),
];

const differenceRows = ({ differences }: Receipt): string[][] =>
  differences.map((d) => [
    d.what,
    d.planned,
    d.found,
    d.accepted ? `accepted by ${d.accepted.by}: ${d.accepted.reason}` : 'open',
  ]);
