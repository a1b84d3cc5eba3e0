import type { Edit, Layer } from './schema.ts';

/** What an edit is about: two of one place are about the same, and the later one saw what the earlier one did. */
export function placeOfEdit(edit: Edit): string {
  const more = (['kind', 'choice', 'response', 'on', 'path', 'section', 'item', 'id', 'block'] as const).map(
    (name) => String((edit as Readonly<Record<string, unknown>>)[name] ?? ''),
  );
  // Which text of an item; where something is put in a row is no place of its own.
  const at = 'at' in edit && typeof edit.at === 'string' ? edit.at : '';
  const fields = edit.op === 'settings' || edit.op === 'draw' ? Object.keys(edit.to).sort().join() : '';
  const op = edit.op === 'bring-back' ? 'leave-out' : edit.op;
  return [op, edit.node ?? '', at, fields, ...more].join('\u0001');
}

/**
 * Which part of its node an edit is about, as people see it: a text, however it was put in, or how the item scores.
 * `choice A` and `feedback right` are texts of their own; an edit of anything else is a part by its operation.
 */
export function partOfEdit(edit: Edit): string {
  switch (edit.op) {
    case 'stem':
      return 'body';
    case 'content':
      return [edit.at, edit.choice ?? edit.on ?? edit.response ?? ''].join(' ').trim();
    case 'choice-text':
      return `choice ${edit.choice}`;
    case 'feedback':
      return `feedback ${edit.on}`;
    case 'key':
    case 'accept':
    case 'tolerance':
    case 'case':
    case 'answers':
    case 'scoring':
      return 'scoring';
    case 'choice-add':
    case 'choice-drop':
    case 'choice-order':
      return 'choices';
    default:
      return edit.op;
  }
}

/** What an edit asks for, whatever it saw, as a key to tell edits apart by. */
export const wishOf = ({ was: _was, ...edit }: Edit): string => JSON.stringify(edit);

/** Each edit once: several findings may ask for the same. */
export const eachOnce = (edits: readonly Edit[]): Edit[] => [
  ...new Map(edits.map((e) => [wishOf(e), e])).values(),
];

/**
 * A layer without some of its edits. What a later edit of the same place saw was the doing of one that is gone:
 * it is given what that one saw, so that it still stands.
 * @param gone places in the layer, from 0
 * @returns what is left, each with its place in the whole layer
 */
export function withoutEdits(
  layer: Layer,
  gone: ReadonlySet<number>,
): { readonly edit: Edit; readonly at: number }[] {
  /** What the first of those that are gone saw, by place; null where it had seen nothing yet. */
  const saw = new Map<string, { readonly was: Edit['was'] }>();
  return layer.flatMap((edit, at) => {
    const place = placeOfEdit(edit);
    const before = saw.get(place);
    if (gone.has(at)) {
      if (!before) saw.set(place, { was: edit.was });
      return [];
    }
    saw.delete(place);
    const heir = before !== undefined && edit.was !== undefined;
    return [{ edit: heir ? ({ ...edit, was: before.was } as Edit) : edit, at }];
  });
}

/** A layer without one of its edits. */
export const takenBack = (layer: Layer, at: number): Layer =>
  withoutEdits(layer, new Set([at])).map(({ edit }) => edit);
