/** Numbers, dates and sizes as the screens show them. */

const number = new Intl.NumberFormat(undefined, { maximumFractionDigits: 4 });
export const count = (n: number): string => number.format(n);
/** A number as people type it, with a point or a comma; null where nothing, or no number, is typed. */
export function typedNumber(text: string): number | null {
  const n = Number(text.trim().replace(',', '.'));
  return text.trim() !== '' && Number.isFinite(n) ? n : null;
}
/** "5" or "4 to 5"; empty where a level gives no points. */
export const pointsRange = (p: { readonly low: number; readonly high: number } | null): string =>
  !p ? '' : p.low === p.high ? count(p.high) : `${count(p.low)} to ${count(p.high)}`;

/** The words are English, whatever language numbers are written in. */
const plurals = new Intl.PluralRules('en');
export const plural = (n: number, one: string, many = `${one}s`): string =>
  `${count(n)} ${plurals.select(n) === 'one' ? one : many}`;

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

/** Undefined is the reader's own language, and the reader's own zone. */
const LOCALE = undefined;
const day = new Intl.DateTimeFormat(LOCALE, { day: 'numeric', month: 'long', year: 'numeric' });
const time = new Intl.DateTimeFormat(LOCALE, { hour: '2-digit', minute: '2-digit', timeZoneName: 'short' });

/** "today 13:51 UTC" or "3 March 2026, 13:51 UTC". */
export function when(at: number): string {
  const date = new Date(at);
  return day.format(date) === day.format(new Date())
    ? `today ${time.format(date)}`
    : `${day.format(date)}, ${time.format(date)}`;
}

/** A moment as records state it, in every language alike: "2026-11-27 05:17 UTC"; '' where there is none. */
export const stamp = (iso: string | null, to: 'minute' | 'second' = 'minute'): string =>
  iso ? `${iso.slice(0, 10)} ${iso.slice(11, to === 'minute' ? 16 : 19)} UTC` : '';

/** A date of the standards' form (ISO 8601) with its day of the week, in the zone it is written in. */
export function dayOf(iso: string): string {
  const found = /^(\d{4}-\d{2}-\d{2})(?:T(\d{2}:\d{2}))?/u.exec(iso);
  const date = found ? new Date(`${found[1]}T${found[2] ?? '00:00'}:00Z`) : null;
  if (!date || Number.isNaN(date.getTime())) return iso;
  return new Intl.DateTimeFormat(LOCALE, {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    ...(found![2] ? { hour: '2-digit', minute: '2-digit' } : {}),
    timeZone: 'UTC',
  }).format(date);
}

/** The day of the week of a date of the standards' form, in the zone it is written in; '' where it is none. */
export function weekdayOf(iso: string): string {
  const date = new Date(`${iso.slice(0, 10)}T00:00Z`);
  return Number.isNaN(date.getTime())
    ? ''
    : new Intl.DateTimeFormat(LOCALE, { weekday: 'long', timeZone: 'UTC' }).format(date);
}

export function formatName(format: { standard: string; version: string | null; container: string }): string {
  const names: Record<string, string> = {
    qti: 'QTI',
    'common-cartridge': 'Common Cartridge',
    case: 'CASE',
    table: 'Table',
    text: 'Text',
  };
  const documents: Record<string, string> = {
    docx: 'Word-processor file',
    odt: 'OpenDocument text',
    rtf: 'Rich text',
    html: 'Web page',
    text: 'Plain text',
    zip: 'Documents',
  };
  if (format.container === 'pdf') return 'PDF';
  if (format.standard === 'document') return documents[format.container] ?? 'Document';
  const name = Object.hasOwn(names, format.standard) ? names[format.standard] : 'Not recognised';
  return [name, format.version, format.container === 'xml' ? '(one XML file)' : ''].filter(Boolean).join(' ');
}

export { KIND_NAMES } from '@alforja/core';

/**
 * Dates of the standards' form within a text, as people write them, in their own zone: "11 Jan 2027, 09:00
 * +02:00".
 * @param locale the reader's own where none is given
 */
export function readable(text: string, locale?: string): string {
  const format = new Intl.DateTimeFormat(locale, {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    timeZone: 'UTC',
  });
  return text.replace(
    /(\d{4}-\d{2}-\d{2}T\d{2}:\d{2})(?::\d{2}(?:\.\d+)?)?(Z|[+-]\d{2}:\d{2})?/gu,
    (whole, moment: string, zone?: string) => {
      const at = new Date(`${moment}:00Z`);
      if (Number.isNaN(at.getTime())) return whole;
      return `${format.format(at)}${zone === undefined ? '' : zone === 'Z' ? ' UTC' : ` ${zone}`}`;
    },
  );
}
