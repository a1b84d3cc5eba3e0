import type { Edit, Layer } from './schema.ts';

/** What an edit is about: two of one place are about the same, and the later one saw what the earlier one did. */
export function placeOfEdit(edit: Edit): string {
  const more = (['kind', 'choice', 'response', 'on', 'path', 'section', 'item', 'id'] as const).map((name) =>
    String((edit as Readonly<Record<string, unknown>>)[name] ?? ''),
  );
  const op = edit.op === 'bring-back' ? 'leave-out' : edit.op;
  return [op, edit.node ?? '', ...more].join('\u0001');
}

/**
 * A layer without one of its edits. What a later edit of the same place saw was this one's doing: it is given
 * what this one saw, so that it still stands.
 */
export function takenBack(layer: Layer, at: number): Layer {
  const gone = layer[at];
  if (!gone) return layer;
  const place = placeOfEdit(gone);
  const next = layer.findIndex((e, n) => n > at && placeOfEdit(e) === place);
  return layer.flatMap((e, n) =>
    n === at ? [] : n === next && e.was !== undefined ? [{ ...e, was: gone.was } as Edit] : [e],
  );
}
