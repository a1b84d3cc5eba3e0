import type { Item } from '../../model/holding.ts';
import type { Refused } from '../refusal.ts';
import type { EditOf, Op } from '../schema.ts';
import type { Editing } from '../editing.ts';

/** What stands at the place of an edit, as plain data; compared with what the edit saw. */
export type Stands = unknown;

/** An operation on one item, which changes nothing else. */
export interface ItemOperation<O extends Op> {
  readonly on: 'item';
  readonly now: (item: Item, edit: EditOf<O>) => Stands | Refused;
  /** What would stand there afterwards; where it does already, there is nothing to do. */
  readonly wanted?: (edit: EditOf<O>, item: Item) => Stands;
  readonly apply: (item: Item, edit: EditOf<O>) => Item | Refused;
}

/** An operation on a container, a file, or several nodes. */
export interface WholeOperation<O extends Op> {
  readonly on: 'whole';
  readonly now: (editing: Editing, edit: EditOf<O>) => Stands | Refused;
  readonly wanted?: (edit: EditOf<O>, editing: Editing) => Stands;
  /** Changes what is being edited; where it refuses it has changed nothing. */
  readonly apply: (editing: Editing, edit: EditOf<O>) => Refused | undefined;
}

export type Operation<O extends Op> = ItemOperation<O> | WholeOperation<O>;
