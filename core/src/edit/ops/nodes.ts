import type { Editing } from '../editing.ts';
import { isRefused, type Refused } from '../refusal.ts';
import { NODE_KINDS_EDITED, type EditedKind } from '../schema.ts';
import type { WholeOperation } from './operation.ts';

const kindIn = (
  editing: Editing,
  { node, kind }: { node: string; kind?: EditedKind | undefined },
): EditedKind | Refused => editing.kindOf(node, kind ? [kind] : NODE_KINDS_EDITED);

export const TITLE: WholeOperation<'title'> = {
  on: 'whole',
  now: (editing, edit) => {
    const kind = kindIn(editing, edit);
    return isRefused(kind) ? kind : editing.byKind(kind).get(edit.node)!.title;
  },
  wanted: (edit) => edit.to.trim(),
  apply: (editing, edit) => {
    const kind = kindIn(editing, edit);
    if (isRefused(kind)) return kind;
    const things = editing.byKind(kind);
    things.set(edit.node, { ...things.get(edit.node)!, title: edit.to.trim() });
    return undefined;
  },
};

const leaving =
  (gone: boolean) =>
  (editing: Editing, edit: { node: string; kind?: EditedKind | undefined }): undefined => {
    const kind = kindIn(editing, edit);
    if (isRefused(kind)) return;
    if (gone) editing.leftOut[kind].add(edit.node);
    else editing.leftOut[kind].delete(edit.node);
  };

const isOut = (editing: Editing, edit: { node: string; kind?: EditedKind | undefined }) => {
  const kind = kindIn(editing, edit);
  return isRefused(kind) ? kind : editing.leftOut[kind].has(edit.node);
};

/** A thing does not go; it can be edited all the same, and brought back. */
export const LEAVE_OUT: WholeOperation<'leave-out'> = {
  on: 'whole',
  now: isOut,
  wanted: () => true,
  apply: leaving(true),
};

export const BRING_BACK: WholeOperation<'bring-back'> = {
  on: 'whole',
  now: isOut,
  wanted: () => false,
  apply: leaving(false),
};
