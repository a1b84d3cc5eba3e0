import { FORMULA_START } from '@alforja/core';
import Papa from 'papaparse';
import type { Receipt } from '../../shared/receipt.ts';
import { saysTakenBack } from '../../shared/record.ts';

const COLUMNS = ['part', 'what', 'planned', 'found', 'state', 'by', 'at'] as const;
type Line = Partial<Record<(typeof COLUMNS)[number], string | number | null>>;

/** The receipt as a table, one line a statement: what, planned, found, state, who and when. */
export function receiptCsv(receipt: Receipt): string {
  const lines = [
    ...headLines(receipt),
    ...fileLines(receipt),
    ...countLines(receipt),
    ...receipt.way.planned.map((p): Line => ({
      part: 'planned',
      what: p.name,
      planned: p.kind,
      state: p.action,
    })),
    ...differenceLines(receipt),
    ...receipt.onPurpose.map((c): Line => ({
      part: 'on purpose',
      what: `${c.name}, ${c.what}`,
      planned: c.before,
      found: c.after,
    })),
    ...receipt.way.record.map((a): Line => ({
      part: 'record',
      what: a.act,
      found: a.says,
      by: a.by,
      at: a.at,
    })),
    ...receipt.rubrics.map((r): Line => ({
      part: 'rubric',
      what: r.name,
      found: `${r.criteria} criteria, ${r.points ?? 'no'} points; grades ${r.grades.join(', ') || 'nothing'}`,
      state: r.state,
    })),
    ...receipt.sheet.map((s): Line => ({
      part: 'setting',
      what: `${s.quiz}, ${s.setting}`,
      planned: s.value,
      state: s.found === null ? 'by hand' : s.found ? 'confirmed' : 'not as planned',
    })),
    ...receipt.way.steps.map((s): Line => ({
      part: 'step',
      what: s.name,
      found: s.says,
      state: s.state,
      at: s.ended,
    })),
  ];
  const rows = lines.map((line) => COLUMNS.map((column) => String(line[column] ?? '')));
  // A leading sign would be taken for a formula by a spreadsheet.
  const text = Papa.unparse([[...COLUMNS], ...rows], { escapeFormulae: FORMULA_START, newline: '\r\n' });
  return `\uFEFF${text}\r\n`;
}

function headLines({ transfer, verdict, foundBefore, takenBack, way, source }: Receipt): Line[] {
  const state = verdict === 'taken-back' ? 'undone' : (verdict ?? 'not checked');
  return [
    { part: 'transfer', what: transfer.title, state, by: way.by, at: transfer.started },
    ...(takenBack
      ? [
          {
            part: 'undone',
            what: saysTakenBack(takenBack),
            found: foundBefore ? `before that: ${foundBefore}` : 'not checked before',
            state: takenBack.refused.length > 0 ? 'in part' : 'all of it',
            by: takenBack.by,
            at: takenBack.at,
          },
        ]
      : []),
    ...((way.from ?? way.to)
      ? [{ part: 'courses', planned: way.from ?? source.name, found: way.to ?? 'a file', by: way.by }]
      : []),
  ];
}

const fileLines = ({ source, sent, arrived }: Receipt): Line[] => [
  { part: 'file', what: 'source', planned: source.sha256, found: source.name, at: source.brought },
  ...(sent?.name ? [sent, ...sent.more] : (sent?.more ?? [])).map((f): Line => ({
    part: 'file',
    what: 'sent',
    planned: f.sha256,
    found: f.name,
    at: sent?.at ?? null,
  })),
  ...(arrived
    ? [{ part: 'file', what: 'arrived', planned: arrived.sha256, found: arrived.name, at: arrived.compared }]
    : []),
];

function countLines({ totals, counts }: Receipt): Line[] {
  const names = totals ? (Object.keys(totals.left) as (keyof typeof totals.left)[]) : [];
  return [
    ...names.map((k): Line => ({
      part: 'total',
      what: k,
      planned: totals!.left[k],
      found: totals!.right[k],
    })),
    ...Object.entries(counts ?? {}).map(([k, n]): Line => ({ part: 'count', what: k, found: n })),
  ];
}

const differenceLines = ({ differences }: Receipt): Line[] =>
  differences.map((d) => ({
    part: 'difference',
    what: d.what,
    planned: d.planned,
    found: d.found,
    state: d.accepted ? `accepted: ${d.accepted.reason}` : 'open',
    by: d.accepted?.by ?? null,
    at: d.accepted?.at ?? null,
  }));
