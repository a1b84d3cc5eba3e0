import type { SheetLine } from '$lib/shared/sheet';

/** What the sheet is narrowed down to; '' is anything. */
export interface Sieve {
  readonly q: string;
  readonly kind: string;
  readonly category: string;
  readonly points: string;
  readonly findings: '' | 'some' | 'none';
  /** Places in the package; null is all of them. */
  readonly places: ReadonlySet<number> | null;
}

export const NO_SIEVE: Sieve = { q: '', kind: '', category: '', points: '', findings: '', places: null };

/** Items without a category are asked for by this. */
export const NO_CATEGORY = '-';

/** The rows that a sieve lets through, in their order. */
export function sieved(lines: readonly SheetLine[], sieve: Sieve): readonly SheetLine[] {
  const q = sieve.q.trim().toLowerCase();
  const { kind, category, points, findings, places } = sieve;
  if (q === '' && kind + category + points + findings === '' && places === null) return lines;
  return lines.filter(
    ({ seq, cells, findings: found }) =>
      (places === null || places.has(seq)) &&
      (kind === '' || cells.kind === kind) &&
      (category === '' || cells.category === (category === NO_CATEGORY ? '' : category)) &&
      (points === '' || cells.points === points) &&
      (findings === '' || (findings === 'some') === found > 0) &&
      (q === '' || Object.values(cells).some((text) => text.toLowerCase().includes(q))),
  );
}

/** Values of a column, each with how often, in the order of their size or name. */
export function valuesOf(
  lines: readonly SheetLine[],
  column: 'kind' | 'category' | 'points',
): { readonly value: string; readonly count: number }[] {
  const counts = new Map<string, number>();
  for (const { cells } of lines) counts.set(cells[column], (counts.get(cells[column]) ?? 0) + 1);
  return [...counts]
    .map(([value, n]) => ({ value, count: n }))
    .sort((a, b) => a.value.localeCompare(b.value, undefined, { numeric: true }));
}
