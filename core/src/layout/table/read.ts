import { Stream, textRun, type BlockDocument, type TableBlock } from '../../document/block.ts';
import { amountForm } from '../amounts.ts';
import type { ConfirmedOfDocument } from '../confirmed.ts';
import { foldField } from '../fields.ts';
import type { Placed } from '../heads.ts';
import type { Heading } from '../headings.ts';
import { keyEvidence, settleKeys } from '../keys.ts';
import { knownFor } from '../known.ts';
import { NONE, type Layout } from '../layout.ts';
import { EMPTY_LINE, type Line } from '../lines.ts';
import type { Recognised } from '../recognise.ts';
import type { ProposedRole } from '../roles.ts';
import { linesOfItem, type Part, type RawChoice, type RawField, type RawItem } from '../raw.ts';
import type { Role } from '../words.ts';
import { isYes, questionColumns, type ColumnRole, type TableColumns } from './columns.ts';

/** A table of questions: a question a row, or a row a choice; understood as a document is, row by row. */

type Rows = readonly (readonly string[])[];

/** Roles of columns that are no labelled lines. */
const OWN: ReadonlySet<ColumnRole> = new Set(['question', 'choice', 'correct', 'number', 'bank', 'skip']);

/**
 * The questions of a table; null where it holds none.
 * @param layout what its columns mean, where somebody has confirmed it
 */
export function recogniseTable(
  path: string,
  title: string,
  rows: Rows,
  { layout = null, series = null, known = [] }: Partial<ConfirmedOfDocument> = {},
): Recognised | null {
  const proposed = questionColumns(rows);
  const told = layout ?? series ?? knownFor(proposed ? looksOfTable(proposed) : [], known)?.layout ?? null;
  const said = told && confirmed(rows, proposed, told);
  const columns = said ?? proposed;
  if (!columns) return null;
  const made = columns.long ? longItems(rows, columns) : wideItems(rows, columns);
  if (made.length === 0) return null;
  const items = made.map((m) => m.item);
  const roles = rolesOf(columns);
  const evidence = keyEvidence(items, roles, []);
  const keys = settleKeys(items, evidence);
  const blocks = rows.flatMap((row, at) => blockOf(row, at));
  const document: BlockDocument = { path, title, wraps: false, blocks, files: [], findings: [] };
  const used = new Set(items.flatMap(linesOfItem).map((l) => l.block));
  const loose = blocks.filter((b) => b.n - 1 !== columns.headerRow && !used.has(b.n));
  return {
    document,
    layout: sayLayout(columns, keys.size > 0),
    by: !said ? 'found' : layout || series ? 'said' : 'known',
    // What was said of documents is not meant for a table.
    misfit: said || told === series ? null : told,
    columns: columns.roles.map((role, n) => ({ name: nameOf(columns, n), role })),
    looks: looksOfTable(columns),
    chosen: null,
    runnerUp: null,
    items,
    between: { placed: placedOf(made), headings: [], loose: [] },
    lists: [],
    roles,
    evidence,
    keys,
    amountForm: amountForm(items),
    loose: loose.map((b) => ({ ...lineOf(b.n - 1), table: b })),
    listed: [],
    aside: [],
  };
}

/** A row as a block of its own, counted as in the table. */
function blockOf(row: readonly string[], at: number): TableBlock[] {
  if (row.every((c) => c.trim() === '')) return [];
  const stream = new Stream();
  const cells = row.map((c) => {
    const made = stream.cell([textRun(c)]);
    return made ? [made] : [];
  });
  return [{ kind: 'table', n: at + 1, page: null, line: at + 1, rows: [cells] }];
}

/** What a table looks like: its header. */
const looksOfTable = ({ header }: Pick<TableColumns, 'header'>): string[] => [
  'table',
  `${header.length} columns`,
  ...header.map((h) => `column ${foldField(h)}`),
];

interface Made {
  readonly item: RawItem;
  readonly bank: string;
}

function placedOf(made: readonly Made[]): Placed[] {
  const headings = new Map<string, Heading>();
  return made.map(({ item, bank }) => {
    if (bank === '') return { item, path: [], passage: null };
    const heading = headings.get(bank) ?? { text: bank, form: 'bank', line: item.start, namesKind: false };
    headings.set(bank, heading);
    return { item, path: [heading], passage: null };
  });
}

/** The name a column goes by: its header, or its letter where it has none. */
const nameOf = ({ header, roles }: TableColumns, n: number): string =>
  header[n]?.trim() || `${roles[n]} ${n + 1}`;

function rolesOf(columns: TableColumns): Map<string, ProposedRole> {
  const out = new Map<string, ProposedRole>();
  for (const [n, role] of columns.roles.entries()) {
    if (OWN.has(role)) continue;
    const name = nameOf(columns, n);
    out.set(foldField(name), { name, role: role as Role, sure: columns.sure });
  }
  if (columns.long) out.set(foldField(FLAGGED), { name: FLAGGED, role: 'key', sure: 1 });
  return out;
}

function wideItems(rows: Rows, columns: TableColumns): Made[] {
  const out: Made[] = [];
  let bank = '';
  for (const [at, row] of rows.entries()) {
    if (at <= columns.headerRow) continue;
    const cell = (n: number): string => (row[n] ?? '').trim();
    const question = columns.roles.indexOf('question');
    const own = columns.roles.indexOf('bank');
    if (own >= 0 && cell(own) !== '') bank = cell(own);
    if (question < 0 || cell(question) === '') continue;
    const line = lineOf(at);
    const choices = columns.roles.flatMap((r, n) =>
      r === 'choice' && cell(n) !== '' ? [choiceOf(line, cell(n))] : [],
    );
    out.push({
      item: itemOf(line, cell(question), choices, fieldsIn(line, row, columns), numberIn(row, columns)),
      bank,
    });
  }
  return out;
}

/** What a flag says stands under a name of its own. */
const FLAGGED = 'correct';

function longItems(rows: Rows, columns: TableColumns): Made[] {
  const out: (Made & { right: string[] })[] = [];
  const at = (role: ColumnRole): number => columns.roles.indexOf(role);
  const [question, choice, flag, bank] = [at('question'), at('choice'), at('correct'), at('bank')];
  let asked = '';
  for (const [number, row] of rows.entries()) {
    if (number <= columns.headerRow) continue;
    const cell = (n: number): string => (n < 0 ? '' : (row[n] ?? '').trim());
    const text = cell(question);
    const line = lineOf(number);
    if (text !== '' && text !== asked) {
      asked = text;
      out.push({
        item: itemOf(line, text, [], fieldsIn(line, row, columns), numberIn(row, columns)),
        bank: cell(bank) || (out.at(-1)?.bank ?? ''),
        right: [],
      });
    }
    const last = out.at(-1);
    if (!last || cell(choice) === '') continue;
    last.item.choices.push(choiceOf(line, cell(choice)));
    if (isYes(cell(flag))) last.right.push(String(last.item.choices.length));
  }
  return out.map(({ item, bank: of, right }) => {
    if (right.length > 0) item.fields.push(fieldOf(item.start, FLAGGED, right.join(', ')));
    return { item, bank: of };
  });
}

const numberIn = (row: readonly string[], { roles }: TableColumns): string =>
  (row[roles.indexOf('number')] ?? '').trim();

function fieldsIn(line: Line, row: readonly string[], columns: TableColumns): RawField[] {
  return columns.roles.flatMap((role, n) => {
    const value = (row[n] ?? '').trim();
    return OWN.has(role) || value === '' ? [] : [fieldOf(line, nameOf(columns, n), value)];
  });
}

const lineOf = (row: number): Line => ({ ...EMPTY_LINE, at: row, block: row + 1, line: row + 1 });
const partOf = (line: Line, text: string): Part => {
  const runs = text
    .split(/\r?\n/u)
    .flatMap((t, at) => [...(at === 0 ? [] : [{ kind: 'break' } as const]), textRun(t)]);
  return { line: { ...line, text }, runs, joins: false };
};
const choiceOf = (line: Line, text: string): RawChoice => ({
  label: null,
  sign: '',
  parts: [partOf(line, text)],
});
const fieldOf = (line: Line, name: string, value: string): RawField => ({
  name,
  folded: foldField(name),
  parts: [partOf(line, value)],
});

function itemOf(line: Line, stem: string, choices: RawChoice[], fields: RawField[], number: string): RawItem {
  const ordinal = /^\d{1,6}$/u.test(number) ? Number(number) : 0;
  return {
    label: ordinal > 0 ? { shape: '1', kind: '1', ordinal, length: 0 } : null,
    start: { ...line, text: stem },
    stem: [partOf(line, stem)],
    choices,
    fields,
    before: [],
    front: null,
    count: 0,
    byHand: false,
  };
}

function sayLayout(columns: TableColumns, keyed: boolean): Layout {
  const named = (role: ColumnRole): string[] =>
    columns.roles.flatMap((r, n) => (r === role ? [nameOf(columns, n)] : []));
  const key = columns.long ? named('correct')[0] : named('key')[0];
  const labels = Object.fromEntries(
    columns.roles.flatMap((role, n) => (OWN.has(role) ? [] : [[nameOf(columns, n), role as Role]])),
  );
  return {
    question: named('question')[0] ?? NONE,
    choice: named('choice').join(' | ') || NONE,
    key: keyed && key ? `line ${key}` : NONE,
    labels,
    points: null,
    sure: columns.sure,
  };
}

/** The columns as a layout names them; null where it names no question that is there. */
function confirmed(rows: Rows, proposed: TableColumns | null, layout: Layout): TableColumns | null {
  if (!proposed) return null;
  const folded = (name: string): string => name.trim().toLowerCase();
  const choices = new Set(layout.choice.split('|').map(folded));
  const labels = new Map(Object.entries(layout.labels).map(([name, role]) => [folded(name), role]));
  const roles = proposed.roles.map((was, n): ColumnRole => {
    const name = folded(nameOf(proposed, n));
    if (name === folded(layout.question)) return 'question';
    if (choices.has(name)) return 'choice';
    if (folded(layout.key) === `line ${name}`) return proposed.long ? 'correct' : 'key';
    return labels.get(name) ?? (OWN.has(was) && was !== 'question' && was !== 'choice' ? was : 'skip');
  });
  return roles.includes('question') ? { ...proposed, roles } : null;
}
