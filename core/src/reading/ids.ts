import type { IdKind } from '../formats/draft.ts';

/** Hands out ids unique within their kind: the source's own, then #2, #3 … in document order. */
export function idRegistry(
  onRepeat: (kind: IdKind, id: string, given: string) => void,
): (kind: IdKind, id: string) => string {
  const taken = new Map<IdKind, Map<string, number>>();
  return (kind, id) => {
    let counts = taken.get(kind);
    if (!counts) taken.set(kind, (counts = new Map()));
    let count = (counts.get(id) ?? 0) + 1;
    counts.set(id, count);
    if (count === 1) return id;
    while (counts.has(`${id}#${count}`)) count += 1;
    const given = `${id}#${count}`;
    counts.set(given, 1);
    onRepeat(kind, id, given);
    return given;
  };
}
