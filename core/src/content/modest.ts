/** Lengths that a text can have any use for: others lay something over the page, or push the rest away. */

/** The most of each unit; em is that of the page's own letters. */
const MOST: Readonly<Record<string, number>> = {
  '': 4000,
  px: 4000,
  pt: 3000,
  pc: 250,
  mm: 1000,
  cm: 100,
  in: 40,
  em: 250,
  rem: 250,
  ex: 500,
  ch: 500,
  mu: 5000,
  '%': 400,
  vw: 100,
  vh: 100,
  vmin: 100,
  vmax: 100,
};
/** What letters and lines may measure, in parts of that; what is said in per cent of others may be as it is. */
const LETTER = 0.05;
/** How far something may be pulled back, in parts of that: mathematics moves its signs by parts of an em. */
const BACK = 0.01;
const LENGTH = /([+-]?)(\d{1,20}(?:\.\d{0,20})?|\.\d{1,20})(?:e([+-]?\d{1,5}))?([a-z%]*)/giu;
const COLOUR = /#[0-9a-f]{3,8}\b/giu;

/** @param up how long, and `down` how far back, in parts of the most */
function lengthsFit(value: string, up: number, down: number): boolean {
  for (const [, sign, digits = '', power, given = ''] of value.replace(COLOUR, '').matchAll(LENGTH)) {
    const unit = Object.hasOwn(MOST, given.toLowerCase()) ? given.toLowerCase() : 'px';
    const part = sign === '-' ? down : unit === '%' ? 1 : up;
    if (Number(`${digits}e${power ?? 0}`) > MOST[unit]! * part) return false;
  }
  return true;
}

/** Whether a declaration of a style keeps to its place: nothing is pulled out of it, nothing is larger than a page. */
export function isModest(property: string, value: string): boolean {
  if (/color|^font-(?:weight|family|style)/u.test(property)) return true;
  if (/^(?:font|line-height)/u.test(property)) return lengthsFit(value, LETTER, 0);
  return lengthsFit(value, 1, property === 'text-indent' ? LETTER : 0);
}

const LENGTHS: ReadonlySet<string> = new Set([
  'width',
  'height',
  'depth',
  'lspace',
  'rspace',
  'mathsize',
  'linethickness',
  'rowspan',
  'columnspan',
]);

/** Whether an attribute of mathematics keeps to its place; most are no lengths at all. */
export const isModestAttribute = (name: string, value: string): boolean =>
  !LENGTHS.has(name) || lengthsFit(value, name === 'mathsize' ? LETTER : 1, BACK);
