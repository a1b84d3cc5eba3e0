import { replaceState } from '$app/navigation';
import { fromRuns, NO_ROWS, type RoomRows, type RoomView, type Runs } from '$lib/shared/room';
import { Names } from './names.svelte';
import {
  choicesAt,
  FILTER_NAMES,
  itemsAt,
  narrowed,
  NO_FILTERS,
  placeOf,
  placeText,
  type Filters,
  type Place,
} from './places';

const AFTER_MS = 150;

/** A reading of a package. */
export interface Shown {
  readonly view: RoomView;
  readonly reading: string;
}

/** What the reading room shows of a package: a place, narrowed down by filters, and one item of it. */
export class Room {
  readonly packageId: string;
  /** The reading that is shown: another one once something was put right. */
  reading = $state('');
  view = $state.raw<RoomView>()!;
  names = $state.raw<Names>()!;
  rows = $state.raw<RoomRows>(NO_ROWS);
  loaded = $state(false);
  place = $state.raw<Place>({ kind: 'all' });
  filters = $state.raw<Filters>(NO_FILTERS);
  selected = $state<number | null>(null);
  trouble = $state('');
  /** Places that the words of the filters find; null where there are no words. */
  #found = $state.raw<ReadonlySet<number> | null>(null);
  #timer: ReturnType<typeof setTimeout> | undefined;
  #asked = 0;

  readonly inPlace = $derived.by(() => itemsAt(this.place, this.view));
  /** Items in the list, by where they stand in the package. */
  readonly listed = $derived.by(() =>
    this.loaded ? narrowed(this.inPlace, this.filters, this.rows, this.view, this.#found) : this.inPlace,
  );
  readonly choices = $derived.by(() => choicesAt(this.loaded ? this.inPlace : [], this.rows, this.view));
  readonly filtered = $derived(FILTER_NAMES.some((name) => this.filters[name] !== ''));
  /** Items of which something was put right. */
  readonly edited = $derived.by(() => new Set(fromRuns(this.view.edited)));
  /** The number an item has in its place, whatever the filters leave out. */
  readonly #numbers = $derived.by(() => new Map(this.inPlace.map((at, n) => [at, n + 1])));
  readonly current = $derived(
    this.selected !== null && this.listed.includes(this.selected) ? this.selected : (this.listed[0] ?? null),
  );
  readonly points = $derived(this.listed.reduce((sum, at) => sum + (this.rows.points[at] ?? 0), 0));

  constructor(packageId: string, shown: Shown, address: URL) {
    this.packageId = packageId;
    this.names = new Names(packageId);
    this.view = shown.view;
    this.reading = shown.reading;
    this.follow(address);
  }

  /** Shows another reading of the package where it stands: place, filters and item stay. */
  async renew({ view: brought, reading }: Shown): Promise<void> {
    const view = await this.#whole(brought);
    const response = await fetch(this.rowsAddress).catch(() => null);
    if (!response?.ok) return;
    const rows = (await response.json()) as RoomRows;
    const at = this.current === null ? -1 : this.listed.indexOf(this.current);
    this.names = new Names(this.packageId);
    this.view = view;
    this.rows = rows;
    this.reading = reading;
    if (placeOf(placeText(this.place), view) === null) this.place = { kind: 'all' };
    await this.#look();
    // Where the item itself is gone, the next one in the list is shown.
    if (this.selected !== null && !this.listed.includes(this.selected))
      this.selected = this.listed[Math.min(at, this.listed.length - 1)] ?? null;
  }

  /** Takes place, filters and item from an address: without a place, the first quiz, unless an item is named. */
  follow(address: URL): void {
    const said = address.searchParams;
    const item = said.get('item');
    const first = this.view.quizzes[0];
    this.place =
      placeOf(said.get('in'), this.view) ??
      (item === null && first ? { kind: 'quiz', id: first.id } : { kind: 'all' });
    this.filters = Object.fromEntries(FILTER_NAMES.map((n) => [n, said.get(n) ?? ''])) as unknown as Filters;
    this.selected = item !== null && Number.isInteger(Number(item)) ? Number(item) : null;
  }

  /** Fetches what the list shows; then what the words of the address find. */
  async load(): Promise<void> {
    const response = await fetch(this.rowsAddress).catch(() => null);
    if (!response?.ok) {
      this.trouble = 'The list of items did not come. Reload the page.';
      return;
    }
    this.rows = (await response.json()) as RoomRows;
    this.view = await this.#whole(this.view);
    await this.#look();
    this.loaded = true;
  }

  /** All of a view of which the page brought only the first of long lists; that, where the rest does not come. */
  async #whole(view: RoomView): Promise<RoomView> {
    if (view.short === null) return view;
    const response = await fetch(`/api/packages/${this.packageId}/room`).catch(() => null);
    if (response?.ok) return { ...view, ...((await response.json()) as Omit<RoomView, 'layer'>) };
    this.trouble = 'The rest of what was found did not come. Reload the page.';
    return view;
  }

  get rowsAddress(): string {
    return `/api/packages/${this.packageId}/rows`;
  }

  numberOf(at: number): number {
    return this.#numbers.get(at) ?? at + 1;
  }

  go(place: Place): void {
    this.place = place;
    this.filters = NO_FILTERS;
    this.#found = null;
    this.selected = null;
    this.#tell();
  }

  select(at: number): void {
    this.selected = at;
    this.#tell();
  }

  narrow(change: Partial<Filters>): void {
    this.filters = { ...this.filters, ...change };
    this.#tell();
    if (!('q' in change || 'key' in change)) return;
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#look(), AFTER_MS);
  }

  /** Asks which items the words find; an answer that comes after a later question is passed over. */
  async #look(): Promise<void> {
    const { q, key } = this.filters;
    const asked = ++this.#asked;
    if (q.trim() === '' && key.trim() === '') {
      this.#found = null;
      return;
    }
    const query = new URLSearchParams({ q, key }).toString();
    const response = await fetch(`/api/packages/${this.packageId}/found?${query}`).catch(() => null);
    if (asked !== this.#asked) return;
    this.trouble = response?.ok ? '' : 'The filter did not answer. Type it again.';
    if (response?.ok) this.#found = new Set(fromRuns((await response.json()) as Runs));
  }

  /** Keeps the address in step, so that it can be given on and come back to. */
  #tell(): void {
    const said = new URLSearchParams({ in: placeText(this.place) });
    for (const name of FILTER_NAMES) if (this.filters[name] !== '') said.set(name, this.filters[name]);
    if (this.selected !== null) said.set('item', String(this.selected));
    replaceState(`?${said.toString()}`, {});
  }
}
