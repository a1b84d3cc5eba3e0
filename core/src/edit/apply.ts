import { explore } from '../scoring/budget.ts';
import { cutShort } from '../model/cut.ts';
import equal from 'fast-deep-equal';
import type { Holding } from '../model/holding.ts';
import { composedAll } from '../model/composed.ts';
import { Editing } from './editing.ts';
import { filesNow } from './filesShown.ts';
import type { Operation, Stands } from './ops/operation.ts';
import { OPERATIONS } from './ops/index.ts';
import { isRefused, refused, type Refused } from './refusal.ts';
import { Edit, MAX_TEXT, type Op } from './schema.ts';
import { settle } from './settle.ts';

/** An edit that was not applied, as it was given, and why. */
export interface RefusedEdit {
  readonly edit: unknown;
  /** Its place in the list, from 0. */
  readonly at: number;
  readonly why: Refused;
}

export interface Applied {
  /** As it will go. Findings are still those of the source. */
  readonly holding: Holding;
  /** The edits that were applied, each with what stood there before. */
  readonly edits: readonly Edit[];
  readonly refused: readonly RefusedEdit[];
}

/**
 * A holding with a layer of edits over it; the source is left as it is. Each edit is applied or refused on its
 * own. One that names what it saw (`was`) and finds something else is refused as stale; one that finds what it
 * wants is done already, so that applying a layer twice changes nothing.
 * @param layer any list: what is no edit is refused like one that cannot be done
 */
export function applyEdits(source: Holding, layer: readonly unknown[]): Applied {
  const editing = new Editing(source);
  const edits: Edit[] = [];
  const out: RefusedEdit[] = [];
  layer.forEach((given, at) => {
    const done = explore(
      () => applyOne(editing, given),
      () => refused('scoring-program'),
    );
    if (isRefused(done)) out.push({ edit: given, at, why: done });
    else edits.push(done);
  });
  return { holding: edits.length === 0 ? source : settle(editing), edits, refused: out };
}

function applyOne(editing: Editing, given: unknown): Edit | Refused {
  const parsed = Edit.safeParse(given);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    const at = issue?.path.join('.') ?? '';
    return refused('not-an-edit', { detail: [at, issue?.message ?? ''].filter((t) => t !== '').join(': ') });
  }
  const edit = parsed.data;
  if (tooLong(edit)) return refused('text-too-long', { limit: MAX_TEXT });
  return run(editing, edit, OPERATIONS[edit.op] as unknown as Operation<Op>);
}

function run(editing: Editing, edit: Edit, operation: Operation<Op>): Edit | Refused {
  const item = operation.on === 'item' ? editing.item(edit.node!) : null;
  if (isRefused(item)) return item;
  const now = operation.on === 'item' ? operation.now(item!, edit) : operation.now(editing, edit);
  if (isRefused(now)) return now;
  const wanted =
    operation.on === 'item' ? operation.wanted?.(edit, item!) : operation.wanted?.(edit, editing);
  if (wanted !== undefined && same(now, wanted)) return { ...edit, was: (edit.was ?? now) as Edit['was'] };
  if (edit.was !== undefined && !same(now, edit.was))
    return refused('stale', { was: said(edit.was), now: said(now) });
  if (operation.on === 'item') {
    const next = operation.apply(item!, edit);
    if (isRefused(next)) return next;
    // What a choice or a text that is gone has shown is not needed for it any more.
    const asWere = next.files !== item!.files || item!.files.length === 0 || next.body === item!.body;
    const kept = asWere ? next : { ...next, files: filesNow(next, item!, NO_MORE) };
    editing.items.set(edit.node!, kept);
  } else {
    const trouble = operation.apply(editing, edit);
    if (trouble) return trouble;
  }
  return { ...edit, was: now as Edit['was'] };
}

/** An operation on one item brings no files. */
const NO_MORE = { has: () => false };

/** The same data, however its letters were typed. */
const same = (a: Stands, b: Stands): boolean => equal(a, b) || equal(composedAll(a), composedAll(b));

const SAID = 80;
const said = (value: Stands): string => {
  const text = typeof value === 'string' ? value : (JSON.stringify(value) ?? '');
  return cutShort(text, SAID);
};

const tooLong = (value: unknown): boolean =>
  typeof value === 'string'
    ? value.length > MAX_TEXT
    : Array.isArray(value)
      ? value.some(tooLong)
      : typeof value === 'object' && value !== null
        ? Object.entries(value).some(([key, v]) => key !== 'base64' && key !== 'was' && tooLong(v))
        : false;
