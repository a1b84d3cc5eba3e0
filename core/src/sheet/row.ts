import type { Item } from '../model/holding.ts';
import { near, plainNumber } from '../model/number.ts';
import { own } from '../model/own.ts';
import { optionText, plain, stemText } from '../model/plainText.ts';
import { kindOf } from '../report/kind.ts';
import { feedbackRoles } from '../scoring/feedbackRoles.ts';
import { keyTexts } from '../scoring/keyTexts.ts';
import { recognise, shapeIn, type Recognised } from '../scoring/recognise.ts';
import type { NumericShape } from '../scoring/shapes.ts';
import type { SheetCells } from './columns.ts';
import { letterOf } from '../model/letterOf.ts';
import { lettersOf, pickingOf } from './letters.ts';

/** What stands between accepted answers in one cell. */
export const BETWEEN = ' | ';

/** The one number an item asks for. */
export function numberOf(item: Item, { shape }: Recognised): NumericShape | null {
  const [only] = item.responses;
  const part = item.responses.length === 1 && only ? shapeIn(shape, only.id) : null;
  return part?.kind === 'numeric' ? part : null;
}

/** Accepted texts of the one blank an item has, those for all points. */
export function acceptedOf(item: Item, { shape }: Recognised): string[] | null {
  const [only] = item.responses;
  const part = item.responses.length === 1 && only ? shapeIn(shape, only.id) : null;
  if (part?.kind !== 'accepted-answers') return null;
  const most = Math.max(...part.answers.map((a) => a.points));
  return part.answers.filter((a) => near(a.points, most)).map((a) => a.text);
}

/** What a sheet says of an item; empty where a column does not apply. */
export function sheetCells(item: Item): SheetCells {
  const recognised = recognise(item);
  const picking = pickingOf(item);
  const number = numberOf(item, recognised);
  return {
    title: item.title,
    text: stemText(item),
    kind: kindOf(item),
    category: item.category ?? '',
    points: plainNumber(item.points),
    choices: (picking?.options ?? []).map((o, at) => `${letterOf(at)} ${optionText(o)}`).join(BETWEEN),
    key: keyCell(item, recognised),
    tolerance: number?.tolerance
      ? `${plainNumber(number.tolerance.low)} to ${plainNumber(number.tolerance.high)}`
      : '',
    shuffle: picking?.shuffle === undefined || picking.shuffle === null ? '' : picking.shuffle ? 'yes' : 'no',
    fixed: picking ? picking.options.flatMap((o, at) => (o.fixed ? [letterOf(at)] : [])).join(', ') : '',
    feedback: feedbackCell(item),
  };
}

function keyCell(item: Item, recognised: Recognised): string {
  const picking = pickingOf(item);
  if (picking) {
    const ids = (own(recognised.key, picking.response.id) ?? []).map(String);
    return lettersOf(picking, ids, picking.response.cardinality === 'ordered');
  }
  const number = numberOf(item, recognised);
  if (number?.stated) return plainNumber(number.value);
  return (acceptedOf(item, recognised) ?? keyTexts(item, recognised)).join(BETWEEN);
}

/** What everybody is told. */
function feedbackCell(item: Item): string {
  if (item.feedback.length === 0) return '';
  const found = feedbackRoles(item).find((f) => f.role?.on === 'general');
  return found ? plain(found.content) : '';
}
