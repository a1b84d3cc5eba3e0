import { cut } from '../../model/cut.ts';
import { sliceRuns, textOfRuns, trimRuns } from '../../document/runs.ts';
import type { ContentNode } from '../../model/content.ts';
import type { Finding } from '../../model/finding.ts';
import { finding } from '../../model/finding.ts';
import type { Item, MetaField, Stimulus } from '../../model/holding.ts';
import type { BlockOrigin } from '../../model/origin.ts';
import { readAmount, takeAmount } from '../amounts.ts';
import type { Placed } from '../heads.ts';
import type { SettledKey } from '../keys.ts';
import type { Recognised } from '../recognise.ts';
import { linesOfItem, partText, type Part, type RawField, type RawItem } from '../raw.ts';
import { AND, truthOf, type Role } from '../words.ts';
import { readAnswer, withTolerance, type Answer } from './answer.ts';
import { blocksOf, inlineOf, piecesOf, withoutWholeBold } from './content.ts';
import { fieldContent, itemOf, plainText, type Asked } from './item.ts';
import { blanksIn, choiceItem, entryItem, essayItem, matchItem, orderItem, truthItem } from './kinds.ts';
import { columnsOf, pairsIn } from './pairs.ts';

/** One item of a document, as one of the tree, with what is not sure of it. */

export interface Around {
  readonly recognised: Recognised;
  readonly id: string;
  readonly path: string;
  readonly stimuli: readonly Stimulus[];
  /** What questions without choices here are: true and false, or not; null where nothing says so. */
  readonly truths: readonly [string, string] | null;
  /** Points that a heading gives to each item below it; null where it gives none. */
  readonly each: number | null;
}

export function buildItem({ item: raw }: Placed, around: Around): { item: Item; findings: Finding[] } {
  const { recognised, id } = around;
  const key = recognised.keys.get(raw) ?? null;
  const findings: Finding[] = [];
  const where = { path: around.path, line: raw.start.line, node: id };
  const doubt = (why: string): void => void findings.push(finding('key-unsure', 'warning', where, { why }));
  const taken = takePoints(raw, recognised.amountForm);
  const fields = fieldsByRole(raw, recognised);
  const said =
    fields('points').flatMap((f) => readAmount(partText(f.parts)) ?? [])[0] ?? taken.value ?? around.each;
  const points = said ?? 1;
  if (said === null) findings.push(finding('points-assumed', 'note', where, { points: 1 }));
  const asked = askedOf({ raw, stem: taken.stem, key, points, around, fields, doubt });
  if (key && !key.sure)
    doubt(key.against !== null ? `another place says otherwise: ${key.against}` : whyUnsure(key, raw));
  const kind = asked.shape.kind;
  const model = kind === 'manual' && key ? inlineOf([{ runs: key.runs }]) : [];
  const item = itemOf(asked, {
    id,
    points,
    title: fields('title').map((f) => partText(f.parts))[0] ?? '',
    category:
      [...fields('category'), ...fields('topic')].map((f) => partText(f.parts)).find((t) => t !== '') ?? null,
    metadata: metadataOf(raw, recognised),
    feedback: [...fields('rationale'), ...fields('feedback')]
      .filter((f) => f.parts.length > 0)
      .map(fieldContent)
      .concat(key && key.rest !== '' ? [plainText(key.rest)] : []),
    hints: fields('hint')
      .filter((f) => f.parts.length > 0)
      .map(fieldContent),
    solution: model,
    stimuli: around.stimuli,
  });
  return { item: { ...item, origin: originOf(raw, around.path) }, findings };
}

const whyUnsure = (key: SettledKey, raw: RawItem): string =>
  key.choices.length > 1 && key.source.by === 'mark'
    ? `${key.choices.length} choices bear the mark, as hardly any other question's do`
    : raw.choices.length > 1 && key.choices.length === 0
      ? `“${cut(key.value, 60)}” names none of its choices`
      : 'it may be meant in another way';

type FieldsByRole = (role: Role) => RawField[];
const fieldsByRole =
  (raw: RawItem, { roles }: Recognised): FieldsByRole =>
  (role) =>
    raw.fields.filter((f) => (f.role ?? roles.get(f.folded)?.role) === role);

interface Asking {
  readonly raw: RawItem;
  readonly stem: readonly Part[];
  readonly key: SettledKey | null;
  readonly points: number;
  readonly around: Around;
  readonly fields: FieldsByRole;
  readonly doubt: (why: string) => void;
}

function askedOf(asking: Asking): Asked {
  const { raw, stem, key, points, around } = asking;
  const matched = matchedOf(asking);
  if (matched) return matched;
  const blocks = blocksOf(withoutWholeBold(piecesOf(stem)));
  if (raw.choices.length > 1) {
    const right = key?.choices ?? [];
    const mark = key?.source.by === 'mark' ? key.source.mark : usedMark(around.recognised);
    if (isOrder(right, raw)) return orderItem(blocks, raw, right, points);
    if (right.length === raw.choices.length)
      asking.doubt('all of its choices are right, in the order they stand in');
    return choiceItem(
      blocks,
      raw,
      [...right].sort((a, b) => a - b),
      mark,
      points,
    );
  }
  if (!key) {
    if (around.truths) return truthItem(withoutTruths(stem), null, around.truths, points);
    return blanksIn(raw) > 0
      ? entryItem(
          blocks,
          Array.from({ length: blanksIn(raw) }, (): Answer => ({ kind: 'texts', texts: [], sure: true })),
          points,
        )
      : essayItem(blocks);
  }
  const answers = answersOf(asking);
  const [first] = answers;
  if (first?.kind === 'truth')
    return truthItem(withoutTruths(stem), first.value, around.truths ?? ['True', 'False'], points);
  if (!first || first.kind === 'essay') return essayItem(blocks);
  if (answers.some((a) => (a.kind === 'texts' || a.kind === 'number') && !a.sure))
    asking.doubt('the answer may be one text, or several, or a span');
  return entryItem(blocks, answers, points);
}

/** "T F" behind or before a statement is what one rings there. */
function withoutTruths(stem: readonly Part[]): ContentNode[] {
  const bare = stem.map((part, at) => {
    const text = textOfRuns(part.runs);
    const found =
      (at === stem.length - 1 ? BEHIND.exec(text) : null) ?? (at === 0 ? BEFORE.exec(text) : null);
    const both = found && truthOf(found[1]!) !== null && truthOf(found[2]!) !== null;
    if (!both) return part;
    const runs =
      found.index === 0 ? sliceRuns(part.runs, found[0].length) : sliceRuns(part.runs, 0, found.index);
    return { ...part, runs: trimRuns(runs) };
  });
  return blocksOf(withoutWholeBold(piecesOf(bare)));
}
const BEHIND = /(?<![\s(])[\s(]+(\p{L}+)(?:\s*[/|]\s*|\s+)(\p{L}+)\s*\)?$/u;
const BEFORE = /^\(?(\p{L}+)(?:\s*[/|]\s*|\s+)(\p{L}+)\)?\s{2,}/u;

/** The mark that right choices bear elsewhere goes from all. */
const usedMark = ({ evidence }: Recognised): string | null => {
  const [first] = evidence;
  return first?.source.by === 'mark' ? first.source.mark : null;
};

/** All labels in another order than they stand in: what is asked for is an order. */
const isOrder = (right: readonly number[], raw: RawItem): boolean =>
  right.length === raw.choices.length && right.length > 2 && right.some((at, n) => at !== n);

/** The answers to its blanks. */
function answersOf({ raw, key, around, fields }: Asking): Answer[] {
  const value = key!.value;
  const blanks = blanksIn(raw);
  const parts = value.split(/(?<!\s)\s*[;|]\s*/u).filter((p) => p !== '');
  const byComma = value.split(AND).filter((p) => p !== '');
  if (blanks > 1 && parts.length === blanks) return parts.map((p) => readAnswer(p, false));
  if (blanks > 1 && byComma.length === blanks) return byComma.map((p) => readAnswer(p, false));
  const answer = readAnswer(value, around.truths !== null || (blanks === 0 && truthOf(value) !== null));
  const accepted = fields('accept')
    .flatMap((f) => partText(f.parts).split(/(?<!\s)\s*[;|,]\s*/u))
    .filter((t) => t !== '');
  if (answer.kind === 'texts' && accepted.length > 0)
    return [{ ...answer, texts: [...new Set([...answer.texts, ...accepted])] }];
  const [tolerance] = fields('tolerance');
  return [tolerance ? withTolerance(answer, partText(tolerance.parts)) : answer];
}

function matchedOf({ raw, stem, key, points, doubt }: Asking): Asked | null {
  const columns = columnsOf({ ...raw, stem: [...stem] });
  if (!columns) return null;
  const named = key ? pairsIn(key.value, columns) : null;
  // Numbered statements above ordinary choices are no column, unless a key pairs them.
  if (raw.choices.length > 0 && !named) return null;
  if (!named && key) return null;
  const pairs =
    named ??
    (columns.rowsPair && columns.left.length === columns.right.length
      ? columns.left.map((_, at): [number, number] => [at, at])
      : []);
  if (!named && pairs.length > 0) doubt('nothing but the rows of the table says what belongs together');
  return matchItem(blocksOf(piecesOf(columns.stem)), columns.left, columns.right, pairs, points);
}

/** The stem without its points. */
function takePoints(raw: RawItem, form: string | null): { stem: Part[]; value: number | null } {
  let value: number | null = null;
  const stem = raw.stem.map((part) => {
    if (value !== null || part.line.table) return part;
    const taken = takeAmount(part.runs, form);
    // A line that is nothing but points is one only where there is something else to read.
    if (taken.runs.length === 0 && raw.stem.length === 1) return part;
    value = taken.value;
    return { ...part, runs: taken.runs };
  });
  return { stem: stem.filter((p) => p.runs.length > 0 || p.line.table), value };
}

const AS_FIELD: ReadonlySet<Role> = new Set([
  'difficulty',
  'objective',
  'topic',
  'page',
  'kind',
  'noted',
  'category',
]);

function metadataOf(raw: RawItem, { roles }: Recognised): MetaField[] {
  return raw.fields.flatMap((f) => {
    const role = f.role ?? roles.get(f.folded)?.role ?? 'noted';
    const value = partText(f.parts);
    return AS_FIELD.has(role) && value !== '' ? [{ label: f.name, value }] : [];
  });
}

function originOf(raw: RawItem, path: string): BlockOrigin {
  const text = [...new Set(linesOfItem(raw))].map((l) => l.text).join('\n');
  return { kind: 'block', path, block: raw.start.block, page: raw.start.page, text };
}
