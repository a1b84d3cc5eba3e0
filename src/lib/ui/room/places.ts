import { fromRuns, type RoomRows, type RoomView } from '$lib/shared/room';

/** What the outline can point the list at. */
export type Place =
  | { readonly kind: 'all' | 'loose' | 'links' | 'files' | 'facts' | 'families' | 'left-out' }
  | { readonly kind: 'quiz' | 'bank'; readonly id: string }
  | { readonly kind: 'findings'; readonly which: 'decide' | 'notes' };

/** A place as the address says it: "quiz:q1". */
export const placeText = (place: Place): string =>
  'id' in place ? `${place.kind}:${place.id}` : 'which' in place ? `findings:${place.which}` : place.kind;

/** What places are called that have no name of their own. */
export const PLACE_NAMES = {
  all: 'All items',
  facts: 'At a glance',
  families: 'Families',
  loose: 'In no quiz or bank',
  links: 'Links',
  files: 'Files',
  'left-out': 'Left out',
  decide: 'To decide',
  notes: 'Noted on reading',
} as const;

/** What a place is called. */
export function placeName(place: Place, room: RoomView): string {
  if ('which' in place) return PLACE_NAMES[place.which];
  if (!('id' in place)) return PLACE_NAMES[place.kind];
  return (place.kind === 'quiz' ? room.quizzes : room.banks).find((p) => p.id === place.id)?.title ?? '';
}

/** The place that an address names; null for one that is not there. */
export function placeOf(text: string | null, room: RoomView): Place | null {
  const [kind = '', ...rest] = (text ?? '').split(':');
  const id = rest.join(':');
  if (kind === 'quiz' || kind === 'bank')
    return (kind === 'quiz' ? room.quizzes : room.banks).some((p) => p.id === id) ? { kind, id } : null;
  if (kind === 'findings') return { kind, which: id === 'notes' ? 'notes' : 'decide' };
  if (kind === 'families') return room.families.length > 0 ? { kind } : null;
  if (kind === 'left-out') return room.leftOut.length > 0 ? { kind } : null;
  return kind === 'all' || kind === 'loose' || kind === 'links' || kind === 'files' || kind === 'facts'
    ? { kind }
    : null;
}

/** Where the items of a place stand in the package, in the place's own order. */
export function itemsAt(place: Place, room: RoomView): number[] {
  switch (place.kind) {
    case 'quiz':
      return fromRuns(room.quizzes.find((q) => q.id === place.id)?.items ?? []);
    case 'bank':
      return fromRuns(room.banks.find((b) => b.id === place.id)?.items ?? []);
    case 'loose':
      return fromRuns(room.loose);
    case 'findings': {
      const named = room.findings
        .filter((f) => (place.which === 'notes') === (f.spoken.severity === 'note'))
        .flatMap((f) => f.item ?? []);
      return [...new Set(named)].sort((a, b) => a - b);
    }
    default:
      return Array.from({ length: room.items }, (_, at) => at);
  }
}

/** What the list is narrowed down to; '' is anything. */
export interface Filters {
  readonly q: string;
  readonly key: string;
  readonly kind: string;
  readonly category: string;
  readonly points: string;
  readonly finding: string;
}

export const NO_FILTERS: Filters = { q: '', key: '', kind: '', category: '', points: '', finding: '' };
export const FILTER_NAMES = Object.keys(NO_FILTERS) as (keyof Filters)[];

/** Items without a category are asked for by this. */
export const UNCATEGORISED = '-';

/**
 * Of the items of a place those that the filters let through, in its order.
 * @param found places that the words find; null where no words were given
 */
export function narrowed(
  places: readonly number[],
  filters: Filters,
  rows: RoomRows,
  room: Pick<RoomView, 'findings'>,
  found: ReadonlySet<number> | null,
): number[] {
  const { kind, category, points, finding } = filters;
  const wantedKind = kind === '' ? null : rows.kinds.indexOf(kind);
  const wantedCategory =
    category === '' ? null : category === UNCATEGORISED ? -1 : rows.categories.indexOf(category);
  // A category of this name that no item has finds nothing, and not those without one.
  if (wantedCategory === -1 && category !== UNCATEGORISED) return [];
  const wantedPoints = points === '' ? null : Number(points);
  const withFinding =
    finding === ''
      ? null
      : new Set(room.findings.filter((f) => f.spoken.code === finding).flatMap((f) => f.item ?? []));
  return places.filter(
    (at) =>
      (wantedKind === null || rows.kind[at] === wantedKind) &&
      (wantedCategory === null || rows.category[at] === wantedCategory) &&
      (wantedPoints === null || rows.points[at] === wantedPoints) &&
      (withFinding === null || withFinding.has(at)) &&
      (found === null || found.has(at)),
  );
}

export interface Choice {
  readonly value: string;
  readonly count: number;
}

/** Values that occur in a place, each with how often, the commonest first. */
function counted(values: Iterable<string>): Choice[] {
  const counts = new Map<string, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].map(([value, count]) => ({ value, count })).sort((a, b) => b.count - a.count);
}

/** What can be chosen in each filter, for the items of a place. */
export function choicesAt(
  places: readonly number[],
  rows: RoomRows,
  room: Pick<RoomView, 'findings'>,
): Record<'kind' | 'category' | 'points' | 'finding', Choice[]> {
  const here = new Set(places);
  return {
    kind: counted(places.map((at) => rows.kinds[rows.kind[at]!] ?? '')),
    category: counted(places.map((at) => rows.categories[rows.category[at]!] ?? UNCATEGORISED)),
    points: counted(places.map((at) => String(rows.points[at]))).sort(
      (a, b) => Number(a.value) - Number(b.value),
    ),
    finding: counted(
      room.findings.filter((f) => f.item !== null && here.has(f.item)).map((f) => f.spoken.code),
    ),
  };
}
