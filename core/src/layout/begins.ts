import { fieldsOfLine } from './fields.ts';
import { headingOf } from './headings.ts';
import type { Label } from './labels.ts';
import type { Line } from './lines.ts';
import { PLAIN_CHOICES, type Cut, type Part, type RawItem } from './raw.ts';

/** Where a question begins, by what has been cut so far. */

export interface Open {
  readonly item: RawItem;
  /** What a line that only goes on belongs to. */
  last: Part[];
}
export interface SoFar {
  readonly lines: readonly Line[];
  readonly cut: Cut;
  readonly items: readonly RawItem[];
  readonly open: Open | null;
  /** How far in the first question stands. */
  readonly level: number | null;
}

/** The label of a question, null for one that has none, undefined where no question begins. */
export function questionAt(line: Line, so: SoFar): Label | null | undefined {
  const { question } = so.cut;
  if (line.table) return undefined;
  if (question === null) return beginsUnlabelled(line, so) ? null : undefined;
  const label = line.labels.find((l) => l.shape === question);
  if (!label) return undefined;
  if (label.ordinal === 0) return label;
  const before = so.items.findLast((i) => i.label)?.label?.ordinal ?? 0;
  const follows =
    label.ordinal === before + 1 ||
    label.ordinal === 1 ||
    (label.ordinal > before && label.ordinal <= before + 5) ||
    so.items.length === 0;
  if (!follows) return undefined;
  // A list inside a question is counted from 1 as well; where levels tell, they decide.
  if ((line.automatic || so.cut.byLevel) && so.level !== null && line.level > so.level) return undefined;
  const expected = so.open ? so.open.item.choices.length + 1 : 0;
  if (
    so.cut.choices.includes(question) &&
    expected > 0 &&
    label.ordinal === expected &&
    label.ordinal !== before + 1
  )
    return undefined;
  return label;
}

/** A line without a label before a first choice, and the first such since the last item's end. */
function beginsUnlabelled(line: Line, so: SoFar): boolean {
  if (line.labels.some((l) => so.cut.choices.includes(l.shape)) || line.continues || line.heading > 0)
    return false;
  if (fieldsOfLine(line, so.cut.fields).length > 0) return false;
  const below = so.lines[line.at + 1];
  const first = below?.labels.some((l) => so.cut.choices.includes(l.shape) && l.ordinal <= 1) ?? false;
  if (!first && headingOf(line, false)?.form.startsWith('word ')) return false;
  if (so.cut.choices.includes(PLAIN_CHOICES)) return line.apart || so.items.length === 0;
  const groupOpen = so.open !== null && so.open.item.choices.length === 0 && so.open.item.fields.length === 0;
  if (groupOpen && !line.apart) return false;
  // A line that stands further out than the last choice is no part of it.
  if (so.cut.wraps && so.open && !line.apart && !standsOut(line, so)) return false;
  for (let at = line.at + 1; at < so.lines.length && at <= line.at + 12; at++) {
    const next = so.lines[at]!;
    if (next.labels.some((l) => so.cut.choices.includes(l.shape) && l.ordinal <= 1)) return true;
    if (next.heading > 0 || fieldsOfLine(next, so.cut.fields).length > 0) return false;
    if (!next.table && !next.continues && (next.apart || !so.cut.wraps))
      return groupOpen ? false : nextIsObject(next);
  }
  return false;
}

/** Whether a line cannot go on the one that is open: it begins further out, or that one ended early. */
export function standsOut(line: Line, { open }: SoFar): boolean {
  const last = open?.last.at(-1);
  return last !== undefined && (line.level < last.line.level || !last.line.full);
}

const nextIsObject = (line: Line): boolean =>
  line.text.replace(/\uFFFC/gu, '').trim() === '' && line.text !== '';
