import {
  applyEdits,
  itemsAlone,
  partOfEdit,
  placeOfEdit,
  sayRefusal,
  toDocument,
  type ContentNode,
  type Edit,
  type Item,
} from '@alforja/core';
import type { WholeItem } from '$lib/shared/edits';
import { viewItem } from '$lib/shared/itemView';
import type { Changes } from '../room/changes.svelte';

/** A while after the last key, what was typed goes to the server. */
const AFTER_MS = 700;

/**
 * An item while it is changed where it stands: what is typed shows at once, its scoring too, and is kept shortly
 * after. What cannot be done says why, at its place, and leaves the item as it was.
 */
export class ItemDraft {
  readonly #changes: Changes;
  /** As the server has it. */
  #kept: Item;
  #edits: Edit[] = [];
  #sending: Promise<unknown> = Promise.resolve();
  #timer: ReturnType<typeof setTimeout> | undefined;
  item = $state.raw<Item>()!;
  /** Why something was not done, by the place it is about. */
  refusals = $state.raw<ReadonlyMap<string, string>>(new Map());
  /** Parts of the item that are otherwise than they came. */
  changed = $state.raw<ReadonlySet<string>>(new Set());
  /** Pictures that are not in the package yet, by path. */
  readonly fresh = new Map<string, string>();
  waiting = $state(false);

  readonly view = $derived.by(() => viewItem(this.item, []));

  constructor({ item, changed }: WholeItem, changes: Changes) {
    this.changed = new Set(changed);
    this.#kept = item;
    this.item = item;
    this.#changes = changes;
  }

  /** Takes the item as it was read anew, unless something of one's own is still on its way. */
  renew({ item, changed }: WholeItem): void {
    if (this.#edits.length > 0 || this.waiting) return;
    this.changed = new Set(changed);
    this.#kept = item;
    this.item = item;
  }

  /** Makes a change; the same place changed again takes the place of what was typed before. */
  put(...edits: readonly Edit[]): boolean {
    const places = new Set(edits.map(placeOfEdit));
    const listed = (e: Edit): boolean =>
      e.op !== 'choice-add' && e.op !== 'choice-drop' && places.has(placeOfEdit(e));
    const before = this.#edits.filter((e) => !listed(e));
    const tried = applyEdits(itemsAlone([this.#kept]), [...before, ...edits]);
    const first = tried.refused[0];
    const at = placeOfEdit(edits[0]!);
    const next = new Map(this.refusals);
    if (first) next.set(at, sayRefusal(first.why));
    else next.delete(at);
    this.refusals = next;
    if (first) return false;
    this.#edits = [...before, ...edits];
    this.item = tried.holding.items[0]!;
    this.changed = new Set([...this.changed, ...edits.map(partOfEdit)]);
    this.waiting = true;
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.flush(), AFTER_MS);
    return true;
  }

  /** What takes one part of the item back to as it came, where it is otherwise. */
  came(part: string): (() => void) | undefined {
    return this.changed.has(part) ? () => void this.asItCame(part) : undefined;
  }

  /** Takes back what was changed of one part of the item; of all of it where none is named. */
  async asItCame(part?: string): Promise<void> {
    await this.flush();
    await this.#changes.asItCame(this.item.id, part);
  }

  /** Sends what was typed. */
  async flush(): Promise<void> {
    clearTimeout(this.#timer);
    this.#sending = this.#sending.then(async () => {
      const edits = this.#edits;
      if (edits.length === 0) return;
      this.#edits = [];
      this.#kept = this.item;
      const taken = await this.#changes.make('hand', edits);
      if (!taken) this.#edits = [...edits, ...this.#edits];
      this.waiting = this.#edits.length > 0;
    });
    await this.#sending;
  }
}

/** What a slot in a text is called. */
export function slotNames(nodes: readonly ContentNode[]): { kinds: string[]; names: string[]; html: string } {
  const { html, slots } = toDocument(nodes);
  const kinds = slots.map((s) => s.kind as string);
  let blank = 0;
  const names = slots.map((s) => {
    if (s.kind === 'textEntry' || s.kind === 'inlineChoice' || s.kind === 'gap') return `blank ${++blank}`;
    if (s.kind === 'printedVariable') return s.id;
    return SLOT_NAMES[s.kind] ?? 'what is answered';
  });
  return { html, kinds, names };
}

const SLOT_NAMES: Readonly<Record<string, string>> = {
  choice: 'the choices',
  order: 'what is put in order',
  match: 'what is matched',
  associate: 'what is paired',
  extendedText: 'room for a long answer',
  hottext: 'the text to pick from',
  gapMatch: 'the text with gaps',
  feedback: 'feedback',
  opaque: 'kept as it stands',
};
