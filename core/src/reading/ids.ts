import type { IdKind } from '../formats/draft.ts';
import { ownText } from '../model/ownText.ts';

/** Hands out ids unique within their kind: the source's own, then #2, #3 … in document order. */
export function idRegistry(
  onRepeat: (kind: IdKind, id: string, given: string) => void,
): (kind: IdKind, id: string) => string {
  const taken = new Map<IdKind, Map<string, number>>();
  return (kind, given) => {
    const id = ownText(given);
    let counts = taken.get(kind);
    if (!counts) taken.set(kind, (counts = new Map()));
    let count = (counts.get(id) ?? 0) + 1;
    counts.set(id, count);
    if (count === 1) return id;
    while (counts.has(`${id}#${count}`)) count += 1;
    const numbered = `${id}#${count}`;
    counts.set(numbered, 1);
    onRepeat(kind, id, numbered);
    return numbered;
  };
}
