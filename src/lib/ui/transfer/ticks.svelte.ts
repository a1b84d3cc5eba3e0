import { ask } from '../ask';
import { live } from '../live.svelte';
import { tickId, type ContentsView, type Tick } from '@alforja/core';
import type { ItemRow } from '$lib/shared/types';

/** The ticks of a transfer: kept on the server at every change, undone step by step. */
export class TickSheet {
  #ticked = $state.raw<ReadonlyMap<string, Tick>>(new Map());
  #history = $state.raw<readonly ReadonlyMap<string, Tick>[]>([]);
  contents = $state.raw<ContentsView>({
    items: 0,
    points: 0,
    total: 0,
    rubrics: 0,
    rubricsTotal: 0,
    dependencies: [],
    broken: [],
    ungraded: [],
    behind: [],
  });
  trouble = $state('');
  readonly #transferId: string;
  #asked = 0;
  #saving: Promise<void> = Promise.resolve();

  constructor(transferId: string, ticks: readonly Tick[], contents: ContentsView) {
    this.#transferId = transferId;
    this.#ticked = new Map(ticks.map((t) => [tickId(t), t]));
    this.contents = contents;
  }

  has(tick: Tick): boolean {
    return this.#ticked.has(tickId(tick));
  }

  get canUndo(): boolean {
    return this.#history.length > 0;
  }

  /** Ticking a group takes the ticks of its single items in. */
  toggle(tick: Tick, inside: readonly ItemRow[]): void {
    const next = new Map(this.#ticked);
    if (!next.delete(tickId(tick))) {
      next.set(tickId(tick), tick);
      for (const row of inside) next.delete(tickId({ kind: 'item', nodeId: row.id }));
    }
    this.#change(next);
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
    const said = await ask<ContentsView>(`/api/transfers/${this.#transferId}/ticks`, body, {
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
