import { plainNumber } from './number.ts';
import type { RubricLevel } from './rubric.ts';

/** How the cells of a rubric are written by people, and read again. */

type Points = RubricLevel['points'];

const NUMBERS =
  /^(-?\d+(?:[.,]\d+)?)(?:\s*(?:to|bis|a|[-–—])\s*(-?\d+(?:[.,]\d+)?))?\s*(?:points?|pts?\.?|marks?)?$/iu;

/** "5", "4,5", "5 to 4 points", "4–5 pts"; empty is none. @param unread told when it says something else */
export function pointsOf(text: string, unread: () => void): Points {
  const said = text.trim();
  if (said === '') return null;
  const numbers = NUMBERS.exec(said);
  if (!numbers) {
    unread();
    return null;
  }
  const [a, b] = [numbers[1]!, numbers[2] ?? numbers[1]!].map((n) => Number(n.replace(',', '.'))) as [
    number,
    number,
  ];
  return { low: Math.min(a, b), high: Math.max(a, b) };
}

/** "5" or "4 to 5"; empty where there are none. */
export const pointsText = (points: Points): string =>
  points === null
    ? ''
    : points.low === points.high
      ? plainNumber(points.high)
      : `${plainNumber(points.low)} to ${plainNumber(points.high)}`;

/** "Excellent (4 points)", "Good – 3", "Poor". */
export function headerLevel(header: string): Pick<RubricLevel, 'title' | 'points'> {
  const bracket = header.endsWith(')') ? header.indexOf('(') : -1;
  const behind = bracket < 0 ? BEHIND_A_DASH.exec(header) : null;
  const said = bracket < 0 ? (behind?.[1] ?? '') : header.slice(bracket + 1, -1);
  const points = said === '' ? null : pointsOf(said, () => undefined);
  if (!points) return { title: header, points: null };
  const title = header.slice(0, behind?.index ?? bracket);
  return { title: title.replace(/(?<![\s:])[\s:]+$/u, '').trim(), points };
}
const BEHIND_A_DASH = /[-–—:]\s*(\d[\d.,\s–-]{0,20}(?:points?|pts?)?)$/iu;

/** "Complete with units, 10", "Good; 3 points": what stands before the last comma, and the points after it. */
export function tailPoints(text: string): { readonly text: string; readonly points: Points } | null {
  // A number before the comma makes a list of numbers of it, and nobody can tell which are the points.
  const found = /^(.*[^\d\s,;])\s*[,;]\s*(\d+(?:[.,]\d+)?(?:\s*(?:points?|pts?\.?|marks?))?)$/isu.exec(
    text.trim(),
  );
  const points = found ? pointsOf(found[2]!, () => undefined) : null;
  return points ? { text: found![1]!.trim(), points } : null;
}

/** Up to so many words name a level; more describe it. */
const NAME_WORDS = 3;

/**
 * What a cell of somebody's table says of a level: its name and points in the first line ("Good (3)"), a
 * number alone its points, a word or three its name, anything longer its description.
 */
export function levelOfText(text: string): Partial<Pick<RubricLevel, 'title' | 'points' | 'description'>> {
  const said = text.trim();
  const [first = '', ...rest] = said.split(/\r?\n/u);
  const head = headerLevel(first.trim());
  const more = rest.join('\n').trim();
  if (head.points) return { ...head, ...(more === '' ? {} : { description: more }) };
  const alone = pointsOf(said, () => undefined);
  if (alone) return { points: alone };
  const tail = tailPoints(said);
  if (tail) return { ...levelOfText(tail.text), points: tail.points };
  if (more === '' && first.trim().split(/\s+/u).length <= NAME_WORDS && !/[.;!?。]$/u.test(first))
    return { title: first.trim() };
  return { description: said };
}

/** A level as a cell of a table that people can read. */
export const levelText = (l: Pick<RubricLevel, 'title' | 'points' | 'description'>): string => {
  const head = [l.title, l.points ? `(${pointsText(l.points)})` : ''].filter((t) => t !== '').join(' ');
  return [head, l.description].filter((t) => t !== '').join('\n');
};
