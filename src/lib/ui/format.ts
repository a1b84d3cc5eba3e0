/** Numbers, dates and sizes as the screens show them. */

const number = new Intl.NumberFormat('en', { maximumFractionDigits: 4 });
export const count = (n: number): string => number.format(n);
/** "5" or "4 to 5"; empty where a level gives no points. */
export const pointsRange = (p: { readonly low: number; readonly high: number } | null): string =>
  !p ? '' : p.low === p.high ? count(p.high) : `${count(p.low)} to ${count(p.high)}`;

export const plural = (n: number, one: string, many = `${one}s`): string =>
  `${count(n)} ${n === 1 ? one : many}`;

export function bytes(n: number): string {
  if (n < 1000) return `${n} bytes`;
  const units = ['kB', 'MB', 'GB'];
  let value = n;
  let unit = -1;
  while (value >= 1000 && unit < units.length - 1) {
    value /= 1000;
    unit += 1;
  }
  return `${value < 10 ? value.toFixed(1) : Math.round(value)} ${units[unit]}`;
}

const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZoneName: 'short' });

/** "today 13:51 UTC" or "3 March 2026, 13:51 UTC". */
export function when(at: number): string {
  const date = new Date(at);
  return day.format(date) === day.format(new Date())
    ? `today ${time.format(date)}`
    : `${day.format(date)}, ${time.format(date)}`;
}

export function formatName(format: { standard: string; version: string | null; container: string }): string {
  const names: Record<string, string> = {
    qti: 'QTI',
    'common-cartridge': 'Common Cartridge',
    case: 'CASE',
    table: 'Table',
    text: 'Text',
  };
  const name = Object.hasOwn(names, format.standard) ? names[format.standard] : 'Not recognised';
  return [name, format.version, format.container === 'xml' ? '(one XML file)' : ''].filter(Boolean).join(' ');
}

export const KIND_NAMES: Readonly<Record<string, string>> = {
  choice: 'one answer',
  choices: 'several answers',
  text: 'short answer',
  number: 'number',
  essay: 'essay',
  order: 'put in order',
  associate: 'make pairs',
  match: 'match',
  gapMatch: 'fill the gaps from a list',
  inlineChoice: 'choose within the text',
  hottext: 'pick words',
  hotspot: 'pick an area',
  selectPoint: 'point at a place',
  graphicOrder: 'order areas',
  graphicAssociate: 'join areas',
  graphicGapMatch: 'label a picture',
  positionObject: 'place on a picture',
  slider: 'slider',
  upload: 'hand in a file',
  drawing: 'drawing',
  media: 'sound or film',
  endAttempt: 'button',
  several: 'several parts',
  custom: 'kind of its own',
  none: 'text only',
};

const MONTHS = 'Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec'.split(' ');

/**
 * Dates of the standards' form within a text, as people write them, in their own zone: "11 Jan 2027 09:00
 * +02:00".
 */
export const readable = (text: string): string =>
  text.replace(
    /(\d{4})-(\d{2})-(\d{2})T(\d{2}:\d{2})(?::\d{2}(?:\.\d+)?)?(Z|[+-]\d{2}:\d{2})?/gu,
    (_, year: string, month: string, day: string, time: string, zone?: string) =>
      `${Number(day)} ${MONTHS[Number(month) - 1] ?? month} ${year} ${time}${zone === undefined ? '' : zone === 'Z' ? ' UTC' : ` ${zone}`}`,
  );
