import Papa from 'papaparse';
import type { Receipt } from '../../shared/types.ts';

/** One line a statement: what, planned, found, state, who and when. */
export function receiptCsv(r: Receipt): string {
  const rows: string[][] = [
    ['part', 'what', 'planned', 'found', 'state', 'by', 'at'],
    [
      'transfer',
      r.transfer.title,
      '',
      '',
      r.verdict ?? 'not checked',
      r.course?.by ?? '',
      r.transfer.started ?? '',
    ],
    ...(r.course ? [['courses', '', r.course.from ?? r.source.name, r.course.to, '', r.course.by, '']] : []),
    ['file', 'source', r.source.sha256, r.source.name, '', '', r.source.brought ?? ''],
    ...(r.sent?.name ? [['file', 'sent', r.sent.sha256, r.sent.name, '', '', r.sent.at ?? '']] : []),
    ...(r.sent?.more ?? []).map((f) => ['file', 'sent', f.sha256, f.name, '', '', r.sent?.at ?? '']),
    ...(r.arrived
      ? [['file', 'arrived', r.arrived.sha256, r.arrived.name, '', '', r.arrived.compared ?? '']]
      : []),
    ...(r.totals
      ? (Object.keys(r.totals.left) as (keyof typeof r.totals.left)[]).map((k) => [
          'total',
          k,
          String(r.totals!.left[k] ?? 0),
          String(r.totals!.right[k] ?? 0),
          '',
          '',
          '',
        ])
      : []),
    ...(r.counts ? Object.entries(r.counts).map(([k, n]) => ['count', k, '', String(n), '', '', '']) : []),
    ...(r.course?.planned ?? []).map((p) => ['planned', p.name, p.kind, '', p.action, '', '']),
    ...(r.course
      ? r.course.differences.map((d) => [
          'difference',
          d.what,
          d.planned,
          d.found,
          d.accepted ? `accepted: ${d.accepted.reason}` : 'open',
          d.accepted?.by ?? '',
          d.accepted?.at ?? '',
        ])
      : [
          ...r.altered.flatMap((p) =>
            p.differences.map((d) => ['difference', `${p.name}, ${d.facet}`, d.from, d.to, 'open', '', '']),
          ),
          ...r.missing.map((m) => ['difference', m.title, 'there', 'missing', 'open', '', '']),
          ...r.extra.map((m) => ['difference', m.title, 'not there', 'there', 'open', '', '']),
        ]),
    ...r.rubrics.map((x) => [
      'rubric',
      x.name,
      '',
      `${x.criteria} criteria, ${x.points ?? 'no'} points; grades ${x.grades.join(', ') || 'nothing'}`,
      x.state,
      '',
      '',
    ]),
    ...r.sheet.map((s) => [
      'setting',
      `${s.quiz}, ${s.setting}`,
      s.value,
      '',
      s.found === null ? 'by hand' : s.found ? 'found set' : 'not as it should be',
      '',
      '',
    ]),
    ...(r.course?.steps ?? []).map((s) => ['step', s.name, '', s.says, s.state, '', s.ended ?? '']),
  ];
  // A leading sign would be taken for a formula by a spreadsheet.
  return `\uFEFF${Papa.unparse(rows, { escapeFormulae: true, newline: '\r\n' })}\r\n`;
}

const escape = (text: string): string =>
  text.replace(/&/gu, '&amp;').replace(/</gu, '&lt;').replace(/>/gu, '&gt;').replace(/"/gu, '&quot;');
const row = (cells: readonly string[], tag = 'td'): string =>
  `<tr>${cells.map((c) => `<${tag}>${escape(c)}</${tag}>`).join('')}</tr>`;
const table = (title: string, head: readonly string[], rows: readonly (readonly string[])[]): string =>
  rows.length === 0
    ? ''
    : `<h2>${escape(title)}</h2><table><thead>${row(head, 'th')}</thead><tbody>${rows.map((r) => row(r)).join('')}</tbody></table>`;

const STYLE = `@page{size:A4;margin:18mm}body{font:11pt/1.4 Georgia,'Noto Serif',serif;color:#23262b;max-width:174mm;margin:10mm auto}h1{font-size:18pt;border-bottom:2px solid #7b4b2a}h2{font-size:12pt;margin:6mm 0 1mm}table{border-collapse:collapse;width:100%;font-size:9.5pt}th,td{text-align:left;vertical-align:top;border-bottom:1px solid #ddd5c7;padding:1mm 2mm 1mm 0;overflow-wrap:anywhere}tr{break-inside:avoid}`;

/** The receipt as one page without anything from elsewhere. */
export function receiptHtml(r: Receipt): string {
  const c = r.course;
  const files = [
    ['source', r.source.name, r.source.sha256, r.source.brought ?? ''],
    ...(r.sent?.name ? [['sent', r.sent.name, r.sent.sha256, r.sent.at ?? '']] : []),
    ...(r.sent?.more ?? []).map((f) => ['sent', f.name, f.sha256, r.sent?.at ?? '']),
    ...(r.arrived ? [['arrived', r.arrived.name, r.arrived.sha256, r.arrived.compared ?? '']] : []),
  ];
  const differences = c
    ? c.differences.map((d) => [
        d.what,
        d.planned,
        d.found,
        d.accepted ? `accepted by ${d.accepted.by}: ${d.accepted.reason}` : 'open',
      ])
    : [
        ...r.altered.flatMap((p) =>
          p.differences.map((d) => [`${p.name}, ${d.facet}`, d.from, d.to, 'open']),
        ),
        ...r.missing.map((m) => [m.title, 'there', 'missing', 'open']),
        ...r.extra.map((m) => [m.title, 'not there', 'there', 'open']),
      ];
  const counts = r.counts
    ? `${r.counts.intact} intact, ${r.counts.altered} altered, ${r.counts.missing} missing, ${r.counts.extra} extra`
    : 'not checked yet';
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(r.transfer.title)}, receipt</title><style>${STYLE}</style></head><body>
<h1>Receipt</h1><p><b>${escape(r.transfer.title)}</b><br>${escape(r.transfer.id)}</p>
${c ? `<p>${c.from ? `From ${escape(c.from)}<br>` : ''}Landed in ${escape(c.to)}<br>Sent by ${escape(c.by)}</p>` : ''}
<p>${escape(r.verdict ?? 'not checked')}: ${counts}${c ? `; ${c.accepted} accepted, ${c.open} open` : ''}</p>
${table('Files', ['', 'name', 'SHA-256', 'when'], files)}
${table(
  'Planned',
  ['name', 'kind', ''],
  (c?.planned ?? []).map((p) => [p.name, p.kind, p.action]),
)}
${table('Not as planned', ['what', 'planned', 'found', ''], differences)}
${table(
  'Rubrics',
  ['name', '', 'criteria', 'points', 'grades'],
  r.rubrics.map((x) => [
    x.name,
    x.state,
    String(x.criteria),
    x.points === null ? 'not scored' : String(x.points),
    x.grades.join(', ') || 'nothing',
  ]),
)}
${table(
  'Settings that travel in no package',
  ['', 'quiz', 'setting', 'value'],
  r.sheet.map((s) => [s.found ? '☑' : '☐', s.quiz, s.setting, s.value]),
)}
${table(
  'Steps',
  ['step', 'came to', 'when'],
  (c?.steps ?? []).map((s) => [s.name, s.says || s.state, s.ended ?? '']),
)}
${(c?.notes ?? []).map((n) => `<p>${escape(n)}</p>`).join('')}
</body></html>`;
}
