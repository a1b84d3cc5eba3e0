export interface Dates {
  readonly opens: string | null;
  readonly closes: string | null;
}

const DAY_MS = 86_400_000;

/** Whole days from one date to another (ISO 8601, the date part). */
export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(to.slice(0, 10)) - Date.parse(from.slice(0, 10))) / DAY_MS);

/**
 * The same time of day, some days on. The zone stays as it is written; a date that cannot be read is dropped.
 */
function shiftDate(date: string | null, days: number): string | null {
  const found = date === null ? null : /^(\d{4}-\d{2}-\d{2})(T.*)?$/u.exec(date);
  if (!found) return null;
  const at = Date.parse(found[1]!);
  if (Number.isNaN(at)) return null;
  return new Date(at + days * DAY_MS).toISOString().slice(0, 10) + (found[2] ?? '');
}

type DateTrouble = 'equal' | 'reversed' | 'unreadable';

/** Why these dates would never let anybody in; null where they do. */
export function dateTrouble({ opens, closes }: Dates): DateTrouble | null {
  const [from, to] = [opens, closes].map((d) => (d === null ? null : Date.parse(d)));
  if (Number.isNaN(from ?? 0) || Number.isNaN(to ?? 0)) return 'unreadable';
  if (from == null || to == null) return null;
  return from === to ? 'equal' : to < from ? 'reversed' : null;
}

/**
 * Dates moved by the distance between the starts of two terms. Dates that could never open are not carried
 * on:
 * the closing one is left open, to be set by hand.
 */
export function shiftDates(dates: Dates, fromTerm: string | null, toTerm: string | null): Dates {
  const days = fromTerm && toTerm ? daysBetween(fromTerm, toTerm) : 0;
  const moved = { opens: shiftDate(dates.opens, days), closes: shiftDate(dates.closes, days) };
  return dateTrouble(moved) === null ? moved : { ...moved, closes: null };
}
