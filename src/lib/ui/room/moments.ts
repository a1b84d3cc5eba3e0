/** Moments of the standards' form (ISO 8601 with zone) in the reader's own zone, as a field takes them. */

const two = (n: number): string => String(n).padStart(2, '0');

/** "2026-11-30T09:00" in the reader's zone; '' where nothing is set. */
export function localOf(iso: string | null): string {
  const at = iso === null ? null : new Date(iso);
  if (at === null || Number.isNaN(at.getTime())) return '';
  const day = `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
  return `${day}T${two(at.getHours())}:${two(at.getMinutes())}`;
}

/** What a field says, with its zone; null where it is empty. */
export function isoOf(local: string): string | null {
  const at = local === '' ? null : new Date(local);
  return at === null || Number.isNaN(at.getTime()) ? null : at.toISOString().replace('.000Z', 'Z');
}
