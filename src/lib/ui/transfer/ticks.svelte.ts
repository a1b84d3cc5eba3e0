import { LOOSE, tickId, type Tick } from '@alforja/core';
import type { ContentsShown } from '$lib/shared/contents';
import { ask } from '../ask';
import { live } from '../live.svelte';

/** The ticks of a transfer: kept on the server at every change, undone step by step. */
export class TickSheet {
  #ticked = $state.raw<ReadonlyMap<string, Tick>>(new Map());
  #history = $state.raw<readonly ReadonlyMap<string, Tick>[]>([]);
  contents = $state.raw() as ContentsShown;
  trouble = $state('');
  readonly #transferId: string;
  #asked = 0;
  #saving: Promise<void> = Promise.resolve();

  constructor(transferId: string, ticks: readonly Tick[], contents: ContentsShown) {
    this.#transferId = transferId;
    this.#ticked = new Map(ticks.map((t) => [tickId(t), t]));
    this.contents = contents;
  }

  has(tick: Tick): boolean {
    return this.#ticked.has(tickId(tick));
  }

  /** Whether an item that stands in no quiz and no bank goes. */
  hasLoose(nodeId: string): boolean {
    return this.has({ kind: 'item', nodeId }) || (this.has(LOOSE) && !this.has(withoutItem(nodeId)));
  }

  get canUndo(): boolean {
    return this.#history.length > 0;
  }

  /** How many items of a thing are ticked on their own. */
  singles(thing: Tick): number {
    const known = this.contents.singles[tickId(thing)] ?? [];
    return known.filter((nodeId) => this.has({ kind: 'item', nodeId })).length;
  }

  /** Ticking a group takes the ticks of its single items in. */
  toggle(tick: Tick): void {
    const next = new Map(this.#ticked);
    if (!next.delete(tickId(tick))) {
      next.set(tickId(tick), tick);
      for (const nodeId of this.contents.singles[tickId(tick)] ?? [])
        next.delete(tickId({ kind: 'item', nodeId }));
    }
    this.#change(next);
  }

  /** Ticks or unticks an item that stands in no quiz and no bank. */
  toggleLoose(nodeId: string): void {
    const item: Tick = { kind: 'item', nodeId };
    if (!this.has(LOOSE)) return this.toggle(item);
    const next = new Map(this.#ticked);
    const goes = this.hasLoose(nodeId);
    next.delete(tickId(item));
    if (goes) next.set(tickId(withoutItem(nodeId)), withoutItem(nodeId));
    else next.delete(tickId(withoutItem(nodeId)));
    this.#change(next);
  }

  /** Ticks or unticks everything that stands in no quiz and no bank. */
  allLoose(on: boolean): void {
    const next = new Map([...this.#ticked].filter(([, t]) => t.kind !== 'without-item'));
    for (const nodeId of this.contents.loose) next.delete(tickId({ kind: 'item', nodeId }));
    if (on) next.set(tickId(LOOSE), LOOSE);
    else next.delete(tickId(LOOSE));
    this.#change(next);
  }

  /** Whether all, some or none of what stands in no quiz and no bank is ticked. */
  get loose(): 'all' | 'some' | 'none' {
    const without = [...this.#ticked.values()].some((t) => t.kind === 'without-item');
    if (this.has(LOOSE)) return without ? 'some' : 'all';
    return this.contents.loose.some((nodeId) => this.has({ kind: 'item', nodeId })) ? 'some' : 'none';
  }

  /** Ticks or unticks several at once. */
  all(ticks: readonly Tick[], on: boolean): void {
    const next = new Map(this.#ticked);
    for (const tick of ticks)
      if (on) next.set(tickId(tick), tick);
      else next.delete(tickId(tick));
    this.#change(next);
  }

  set(ticks: readonly Tick[]): void {
    this.#change(new Map(ticks.map((t) => [tickId(t), t])));
  }

  undo(): void {
    const before = this.#history.at(-1);
    if (!before) return;
    this.#history = this.#history.slice(0, -1);
    this.#ticked = before;
    this.#keep();
  }

  #change(next: ReadonlyMap<string, Tick>): void {
    this.#history = [...this.#history.slice(-99), this.#ticked];
    this.#ticked = next;
    this.#keep();
  }

  /** One after the other, so that the last change is the one that stays. */
  #keep(): void {
    const asked = ++this.#asked;
    this.#saving = this.#saving.then(() => (asked === this.#asked ? this.#save(asked) : undefined));
  }

  async #save(asked: number): Promise<void> {
    const otherwise = 'The last change could not be kept. Check the connection and tick once more.';
    const body = { ticks: [...this.#ticked.values()] };
    const said = await ask<ContentsShown>(`/api/transfers/${this.#transferId}/ticks`, body, {
      method: 'PUT',
      otherwise,
    }).catch((error: Error) => error);
    if (asked !== this.#asked) return;
    this.trouble = said instanceof Error ? said.message : '';
    if (said instanceof Error) return;
    this.contents = said;
    await live.reload();
  }
}

const withoutItem = (nodeId: string): Tick => ({ kind: 'without-item', nodeId });
