import { applyEdits } from '../edit/apply.ts';
import { isRefused, refused, type Refused } from '../edit/refusal.ts';
import type { Edit } from '../edit/schema.ts';
import type { Holding, Item } from '../model/holding.ts';
import { parseNumber, plainNumber, tidyNumber } from '../model/number.ts';
import { letterOf } from '../model/letterOf.ts';
import { idsNamed, pickingOf, type Picking } from './letters.ts';
import { recognise } from '../scoring/recognise.ts';
import { columnLabel, sameCell, type SheetColumn } from './columns.ts';
import { acceptedOf, numberOf, sheetCells } from './row.ts';

/** What a text that was typed into a cell asks for, or why it asks for nothing that can be done. */
export function cellEdits(item: Item, column: SheetColumn, typed: string): readonly Edit[] | Refused {
  const to = typed.trim();
  const node = item.id;
  if (sameCell(sheetCells(item)[column], to)) return [];
  switch (column) {
    case 'title':
      return [{ op: 'title', node, kind: 'item', to }];
    case 'text':
      return [{ op: 'stem', node, to }];
    case 'category':
      return [{ op: 'category', node, to: to === '' ? null : to }];
    case 'points': {
      const points = parseNumber(to);
      return points === null ? refused('cell-number', { text: to }) : [{ op: 'points', node, to: points }];
    }
    case 'key':
      return keyEdits(item, to);
    case 'tolerance':
      return toleranceEdits(item, to);
    case 'shuffle': {
      const yes = yesOrNo(to);
      return yes === null ? refused('cell-yes-no', { text: to }) : [{ op: 'shuffle', node, to: yes }];
    }
    case 'fixed':
      return fixedEdits(item, to);
    case 'feedback':
      return [{ op: 'feedback', node, on: 'general', to: to === '' ? null : to }];
    default:
      return refused('cell-read-only', { column: columnLabel(column) });
  }
}

/** The choices that a text names, or which there are. */
function choicesNamed(picking: Picking, text: string): readonly string[] | Refused {
  const known = picking.options.map((_, at) => letterOf(at)).join(', ');
  return idsNamed(picking, text) ?? refused('cell-choices', { text, known });
}

function keyEdits(item: Item, to: string): readonly Edit[] | Refused {
  const node = item.id;
  const picking = pickingOf(item);
  if (picking) {
    const ids = choicesNamed(picking, to);
    return isRefused(ids) ? ids : [{ op: 'key', node, to: [...ids], response: picking.response.id }];
  }
  const [only, more] = item.responses;
  if (!only || more) return refused('cell-read-only', { column: columnLabel('key') });
  const recognised = recognise(item);
  if (only.baseType === 'float' || only.baseType === 'integer') {
    const value = parseNumber(to);
    if (value === null) return refused('cell-number', { text: to });
    return numberOf(item, recognised)?.value === value ? [] : [{ op: 'key', node, to: [value] }];
  }
  if (only.baseType !== 'string') return refused('cell-read-only', { column: columnLabel('key') });
  const texts = to
    .split('|')
    .map((t) => t.trim())
    .filter((t) => t !== '');
  const before = acceptedOf(item, recognised);
  return before && before.join('|') === texts.join('|') ? [] : [{ op: 'key', node, to: texts }];
}

const BETWEEN = /\.\.|–|—|\bto\b|;/gu;

/** The two sides of the first thing that stands between bounds, a sign in front apart. */
function boundsIn(text: string): readonly [number | null, number | null] {
  BETWEEN.lastIndex = 1;
  const found = BETWEEN.exec(text);
  return found
    ? [parseNumber(text.slice(0, found.index)), parseNumber(text.slice(found.index + found[0].length))]
    : [null, null];
}

function toleranceEdits(item: Item, to: string): readonly Edit[] | Refused {
  const node = item.id;
  if (to === '') return [{ op: 'tolerance', node, to: null }];
  const number = numberOf(item, recognise(item));
  if (!number) return refused('cell-read-only', { column: columnLabel('tolerance') });
  const bad = refused('cell-range', { text: to });
  const relative = /^(?:±|\+\/?-)?(.+)%$/u.exec(to);
  const around = /^(?:±|\+\/?-)(.+)$/u.exec(to);
  const margin = relative ? parseNumber(relative[1]) : around ? parseNumber(around[1]) : null;
  if (relative || around) {
    if (margin === null || margin < 0) return bad;
    const by = relative ? Math.abs(number.value * margin) / 100 : margin;
    const bounds = { low: tidyNumber(number.value - by), high: tidyNumber(number.value + by) };
    return [{ op: 'tolerance', node, to: { mode: relative ? 'relative' : 'absolute', ...bounds } }];
  }
  const [low, high] = boundsIn(to);
  if (low === null || high === null) return bad;
  const now = number.tolerance;
  if (now && plainNumber(now.low) === plainNumber(low) && plainNumber(now.high) === plainNumber(high))
    return [];
  return [{ op: 'tolerance', node, to: { mode: 'range', low, high } }];
}

const YES: ReadonlySet<string> = new Set(['yes', 'y', 'true', '1', 'x']);
const NO: ReadonlySet<string> = new Set(['no', 'n', 'false', '0', '']);
const yesOrNo = (text: string): boolean | null =>
  YES.has(text.toLowerCase()) ? true : NO.has(text.toLowerCase()) ? false : null;

function fixedEdits(item: Item, to: string): readonly Edit[] | Refused {
  const picking = pickingOf(item);
  if (!picking) return refused('cell-read-only', { column: columnLabel('fixed') });
  const ids = choicesNamed(picking, to);
  if (isRefused(ids)) return ids;
  return picking.options
    .filter((o) => o.fixed !== ids.includes(o.id))
    .map((o): Edit => ({ op: 'choice-fixed', node: item.id, choice: o.id, to: !o.fixed }));
}

/** A holding of nothing but some items: for trying what edits of them come to. */
export const itemsAlone = (items: readonly Item[]): Holding => ({
  source: { name: '', bytes: 0, sha256: '' },
  format: { container: 'xml', standard: 'qti', version: null },
  title: '',
  quizzes: [],
  banks: [],
  items,
  rubrics: [],
  links: [],
  files: [],
  outline: [],
  findings: [],
});

export interface CellDone {
  readonly edits: readonly Edit[];
  readonly item: Item;
}

/** Types a text into a cell of an item: the edits that were applied, and the item by then. */
export function typeCell(item: Item, column: SheetColumn, typed: string): CellDone | Refused {
  const edits = cellEdits(item, column, typed);
  if (isRefused(edits)) return edits;
  if (edits.length === 0) return { edits, item };
  const done = applyEdits(itemsAlone([item]), edits);
  const [first] = done.refused;
  return first ? first.why : { edits: done.edits, item: done.holding.items[0]! };
}
