import { changed, itemKey, type DraftChange, type ItemAt, type QuizDraft } from '@alforja/core';
import type { MakerView, MadeRow, ShelfRow } from '$lib/shared/making';
import { ask } from '../ask';

/** What a row of the quiz shows of an item. */
export type Shown = Pick<MadeRow, 'key' | 'name' | 'kind' | 'category' | 'points' | 'packageId' | 'seq'>;

/** How many changes can be taken back. */
const MOST_UNDO = 200;

/** A quiz that is being made: what was changed stands at once, is kept, and is weighed on the server. */
export class Maker {
  readonly id: string;
  draft = $state.raw<QuizDraft>() as QuizDraft;
  view = $state.raw<MakerView>() as MakerView;
  /** Whether what was changed has not been weighed yet. */
  weighing = $state(false);
  trouble = $state('');
  /** The section that questions are put into. */
  into = $state('');
  /** What was done last, for those who do not see it. */
  said = $state('');
  #version: number;
  #past = $state.raw<readonly QuizDraft[]>([]);
  #future = $state.raw<readonly QuizDraft[]>([]);
  /** What is known of items that the view does not hold yet. */
  #known = new Map<string, ShelfRow>();

  constructor(given: { id: string; draft: QuizDraft; version: number; view: MakerView }) {
    this.id = given.id;
    this.draft = given.draft;
    this.view = given.view;
    this.#version = given.version;
    this.into = given.draft.sections.find((s) => s.draw === null)?.id ?? '';
  }

  get canUndo(): boolean {
    return this.#past.length > 0;
  }
  get canRedo(): boolean {
    return this.#future.length > 0;
  }

  /** Changes that are one act: taken back together. */
  do(...changes: readonly DraftChange[]): void {
    const next = changes.reduce(changed, this.draft);
    this.put(next);
  }

  put(next: QuizDraft): void {
    this.#past = [...this.#past.slice(1 - MOST_UNDO), this.draft];
    this.#future = [];
    this.#show(next);
  }

  undo(): void {
    const before = this.#past.at(-1);
    if (!before) return;
    this.#past = this.#past.slice(0, -1);
    this.#future = [...this.#future, this.draft];
    this.said = 'Undone.';
    this.#show(before);
  }

  redo(): void {
    const after = this.#future.at(-1);
    if (!after) return;
    this.#future = this.#future.slice(0, -1);
    this.#past = [...this.#past, this.draft];
    this.said = 'Done again.';
    this.#show(after);
  }

  #show(draft: QuizDraft): void {
    this.draft = draft;
    if (!draft.sections.some((s) => s.id === this.into && s.draw === null))
      this.into = draft.sections.findLast((s) => s.draw === null)?.id ?? '';
    void this.#keep();
  }

  /** Puts questions into a section, at its end where no place is named. */
  add(rows: readonly ShelfRow[], section = this.into, at?: number): void {
    for (const row of rows) this.#known.set(itemKey(row.at), row);
    const items = rows.map((r) => r.at);
    const target = this.draft.sections.find((s) => s.id === section);
    if (target) this.do({ do: 'add', section, items, ...(at === undefined ? {} : { at }) });
    else {
      const open = changed(this.draft, { do: 'section-add', title: '', draw: null });
      this.put(changed(open, { do: 'add', section: open.sections.at(-1)!.id, items }));
    }
    this.said = `${rows.length} put in.`;
  }

  /** Whether an item stands in the quiz by name. */
  holds(at: ItemAt): boolean {
    return this.draft.sections.some((s) => s.items.some((i) => i.place === at.place && i.item === at.item));
  }

  #saving: Promise<void> | null = null;
  #dirty = false;

  /** Keeps what stands there and has it weighed: one request at a time, the latest state last. */
  #keep(): Promise<void> {
    this.#dirty = true;
    this.weighing = true;
    this.#saving ??= this.#keepAll().finally(() => {
      this.#saving = null;
      this.weighing = false;
    });
    return this.#saving;
  }

  async #keepAll(): Promise<void> {
    while (this.#dirty) {
      this.#dirty = false;
      const draft = this.draft;
      try {
        const { version, view } = await ask<{ version: number; view: MakerView }>(`/api/made/${this.id}`, {
          do: 'keep',
          version: this.#version,
          draft,
        });
        this.#version = version;
        this.view = view;
        this.trouble = '';
      } catch (problem) {
        this.trouble = (problem as Error).message;
        return;
      }
    }
  }

  /** Takes items as their sources have them now. */
  async takeNewer(): Promise<void> {
    await this.kept();
    const { version, view } = await ask<{ version: number; view: MakerView }>(`/api/made/${this.id}`, {
      do: 'newer',
      items: this.view.newer,
    });
    this.#version = version;
    this.view = view;
    this.said = 'Taken as they are now.';
  }

  /** Everything kept, so that it can be set down. */
  async kept(): Promise<void> {
    await this.#saving;
    if (this.trouble) throw new Error(this.trouble);
  }

  /** What is shown of the items of a section, in its order. */
  rowsOf(section: string): Shown[] {
    const weighed = new Map(
      this.view.sections.flatMap((s) => s.rows.map((r) => [itemKey(r.at), r] as const)),
    );
    const s = this.draft.sections.find((x) => x.id === section);
    return (s?.items ?? []).map((asked): Shown => {
      const row = weighed.get(itemKey(asked));
      if (row) return { ...row, key: asked.key, points: asked.points ?? row.points };
      const known = this.#known.get(itemKey(asked));
      return {
        key: asked.key,
        name: known?.name ?? '…',
        kind: known?.kind ?? 'none',
        category: known?.category ?? null,
        points: asked.points ?? known?.points ?? 0,
        packageId: null,
        seq: null,
      };
    });
  }
}
