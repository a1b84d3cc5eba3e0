import type { ContentsShown } from '$lib/shared/contents';
import { count, plural } from '../format';

type Included = Pick<ContentsShown, 'items' | 'points' | 'total' | 'rubrics' | 'rubricsTotal'>;

/** "34 of 61 items, 2 rubrics", or rubrics alone where the source has nothing else. */
export const includedOf = (c: Included): string =>
  c.total === 0 && c.rubricsTotal > 0
    ? `${count(c.rubrics)} of ${plural(c.rubricsTotal, 'rubric')}`
    : `${count(c.items)} of ${plural(c.total, 'item')}${c.rubrics > 0 ? `, ${plural(c.rubrics, 'rubric')}` : ''}`;

/** "34 items, 70 points, 2 rubrics". */
export const includedShort = (c: Included): string =>
  [
    c.items > 0 || c.rubrics === 0 ? `${plural(c.items, 'item')}, ${plural(c.points, 'point')}` : '',
    c.rubrics > 0 ? plural(c.rubrics, 'rubric') : '',
  ]
    .filter((s) => s !== '')
    .join(', ');
