import type { ContentsList } from '$lib/shared/contents';

/** Words somebody types are asked for when he pauses, in ms. */
const PAUSE_MS = 150;

/** What of a source's contents holds the words of a filter, as the server finds it. */
export class ListFilter {
  text = $state('');
  /** The words that `list` was narrowed by. */
  applied = $state('');
  /** Null while nothing is filtered by. */
  list = $state.raw<ContentsList | null>(null);
  readonly #transferId: string;
  #asked = 0;

  constructor(transferId: string) {
    this.#transferId = transferId;
  }

  set(text: string): void {
    this.text = text;
    const asked = ++this.#asked;
    const wanted = text.trim();
    if (wanted === '') {
      this.applied = '';
      this.list = null;
      return;
    }
    setTimeout(() => void (asked === this.#asked && this.#fetch(asked, wanted)), PAUSE_MS);
  }

  /** What does not come leaves the list as it is; the next letter asks again. */
  async #fetch(asked: number, filter: string): Promise<void> {
    const query = new URLSearchParams({ filter });
    const response = await fetch(`/api/transfers/${this.#transferId}/contents?${query}`).catch(() => null);
    if (!response?.ok) return;
    const list = (await response.json()) as ContentsList;
    if (asked !== this.#asked) return;
    this.list = list;
    this.applied = filter;
  }
}
