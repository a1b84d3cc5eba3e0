import { COLUMN_NAMES, SHEET_COLUMNS, type SheetColumn } from '@alforja/core/sheet';
import type { CellTrouble, SheetLine, SheetView, TypedCell, TypedDone } from '$lib/shared/sheet';
import { ask } from '../ask';
import { count, plural } from '../format';
import { live } from '../live.svelte';
import type { Changes } from '../room/changes.svelte';
import { NO_SIEVE, sieved, type Sieve } from './sieve';

export interface CellAt {
  readonly row: number;
  readonly col: number;
}

const cellId = (node: string, column: SheetColumn): string => `${column} ${node}`;

/** The sheet of a package's items: what is shown of it, where the cursor stands, and what is typed. */
export class ItemSheet {
  readonly packageId: string;
  readonly changes: Changes;
  lines = $state.raw<readonly SheetLine[]>([]);
  reading = $state('');
  loaded = $state(false);
  sieve = $state.raw<Sieve>(NO_SIEVE);
  cursor = $state.raw<CellAt>({ row: 0, col: 0 });
  anchor = $state.raw<CellAt>({ row: 0, col: 0 });
  editing = $state(false);
  /** What the last act came to, in words. */
  said = $state('');
  trouble = $state('');
  /** Cells that could not be changed as asked, with the reason. */
  troubles = $state.raw<ReadonlyMap<string, CellTrouble & { readonly text: string }>>(new Map());
  #waiting = $state(0);
  #last: Promise<unknown> = Promise.resolve();
  /** How many acts there have been, and which load was the last to be asked and to be shown. */
  #acts = 0;
  #asked = 0;
  #came = 0;

  readonly shown = $derived.by(() => sieved(this.lines, this.sieve));
  readonly points = $derived(this.shown.reduce((sum, l) => sum + Number(l.cells.points), 0));
  readonly columns = SHEET_COLUMNS.length;

  constructor(packageId: string, changes: Changes) {
    this.packageId = packageId;
    this.changes = changes;
  }

  get busy(): boolean {
    return this.#waiting > 0;
  }
  get #address(): string {
    return `/api/packages/${this.packageId}/sheet`;
  }

  /** Fetches all rows; the cursor stays with its item. */
  async load(): Promise<void> {
    const [acts, turn] = [this.#acts, ++this.#asked];
    const response = await fetch(this.#address).catch(() => null);
    if (!response?.ok) {
      this.trouble = 'The sheet did not come. Reload the page.';
      return;
    }
    const view = (await response.json()) as SheetView;
    // What was done meanwhile is not in it yet, nor is what is being typed; the next load brings both.
    if (this.busy || this.editing || acts !== this.#acts || turn < this.#came) return;
    this.#came = turn;
    const at = this.shown[this.cursor.row]?.id;
    this.lines = view.lines;
    this.reading = view.reading;
    this.loaded = true;
    const row = at === undefined ? -1 : this.shown.findIndex((l) => l.id === at);
    this.#keepInside(row < 0 ? this.cursor.row : row);
  }

  #keepInside(row: number): void {
    const within = Math.max(0, Math.min(this.shown.length - 1, row));
    if (within !== this.cursor.row) this.go(within, this.cursor.col);
  }

  narrow(change: Partial<Sieve>): void {
    this.sieve = { ...this.sieve, ...change };
    this.go(0, this.cursor.col);
  }

  go(row: number, col: number, extend = false): void {
    this.cursor = {
      row: Math.max(0, Math.min(this.shown.length - 1, row)),
      col: Math.max(0, Math.min(this.columns - 1, col)),
    };
    if (!extend) this.anchor = this.cursor;
  }

  get block(): { top: number; bottom: number; left: number; right: number } {
    const [a, b] = [this.anchor, this.cursor];
    return {
      top: Math.min(a.row, b.row),
      bottom: Math.max(a.row, b.row),
      left: Math.min(a.col, b.col),
      right: Math.max(a.col, b.col),
    };
  }
  marked(row: number, col: number): boolean {
    const { top, bottom, left, right } = this.block;
    return row >= top && row <= bottom && col >= left && col <= right;
  }
  get markedLines(): readonly SheetLine[] {
    const { top, bottom } = this.block;
    return this.shown.slice(top, bottom + 1);
  }
  /** The cursor stays in sight, at the top. */
  markColumn(col: number): void {
    this.cursor = { row: 0, col };
    this.anchor = { row: Math.max(0, this.shown.length - 1), col };
  }
  markAll(): void {
    this.cursor = { row: 0, col: 0 };
    this.anchor = { row: Math.max(0, this.shown.length - 1), col: this.columns - 1 };
  }

  cell({ row, col }: CellAt): string {
    return this.shown[row]?.cells[COLUMN_NAMES[col]!] ?? '';
  }
  troubleAt(line: SheetLine, column: SheetColumn): (CellTrouble & { readonly text: string }) | undefined {
    return this.troubles.get(cellId(line.id, column));
  }

  /** Types a text at the cursor, or into every marked cell. */
  type(text: string, everywhere = false): void {
    const { top, bottom, left, right } = everywhere
      ? this.block
      : { top: this.cursor.row, bottom: this.cursor.row, left: this.cursor.col, right: this.cursor.col };
    const cells: TypedCell[] = [];
    for (let row = top; row <= bottom; row++)
      for (let col = left; col <= right; col++) cells.push(...this.#typed(row, col, text));
    this.send(cells);
  }

  #typed(row: number, col: number, text: string): TypedCell[] {
    const line = this.shown[row];
    const column = COLUMN_NAMES[col];
    return line && column ? [{ node: line.id, column, text }] : [];
  }

  /** Fills a block from its first row down. */
  fillDown(): void {
    const { top, bottom, left, right } = this.block;
    const cells: TypedCell[] = [];
    for (let row = top + 1; row <= bottom; row++)
      for (let col = left; col <= right; col++)
        cells.push(...this.#typed(row, col, this.cell({ row: top, col })));
    if (cells.length === 0) this.said = 'Mark the cells below first, with Shift and the arrow keys.';
    else this.send(cells);
  }

  clear(): void {
    this.type('', true);
  }

  copy(): string {
    const { top, bottom, left, right } = this.block;
    const quoted = (text: string): string =>
      /[\t\n"]/u.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
    return this.shown
      .slice(top, bottom + 1)
      .map((l) =>
        COLUMN_NAMES.slice(left, right + 1)
          .map((c) => quoted(l.cells[c]))
          .join('\t'),
      )
      .join('\n');
  }

  /** Fills cells from a block of texts; one text fills everything that is marked. What does not fit is told. */
  paste(rows: readonly (readonly string[])[]): void {
    const { top, bottom, left, right } = this.block;
    if (rows.length === 1 && rows[0]!.length === 1) return this.type(rows[0]![0]!, true);
    const cells = rows.flatMap((line, down) =>
      line.flatMap((text, across) => this.#typed(top + down, left + across, text)),
    );
    const wide = Math.max(0, ...rows.map((r) => r.length));
    this.send(cells);
    const over = top + rows.length - this.shown.length;
    const tooWide = left + wide - this.columns;
    const markedRows = bottom - top + 1;
    this.said = [
      over > 0 ? `${plural(over, 'row')} more than there are items; not taken.` : '',
      tooWide > 0 ? `${plural(tooWide, 'column')} more than the sheet has; not taken.` : '',
      over <= 0 && markedRows > 1 && markedRows !== rows.length
        ? `${count(rows.length)} rows were pasted where ${count(markedRows)} were marked.`
        : '',
    ]
      .filter((t) => t !== '')
      .join(' ');
    this.cursor = {
      row: Math.min(this.shown.length - 1, top + rows.length - 1),
      col: Math.min(this.columns - 1, Math.max(right, left + wide - 1)),
    };
    this.anchor = { row: top, col: left };
  }

  /** Marked items do not go along; they stay in the file, and can be brought back. */
  leaveOut(lines: readonly SheetLine[] = this.markedLines): void {
    const gone = new Set(lines.map((l) => l.id));
    if (gone.size === 0) return;
    const { top } = this.block;
    this.lines = this.lines.filter((l) => !gone.has(l.id));
    this.#keepInside(top);
    this.anchor = this.cursor;
    this.said = `${plural(gone.size, 'item')} left out; undo brings them back.`;
    this.#queue(() =>
      this.changes.make(
        'sheet',
        [...gone].map((node) => ({ op: 'leave-out', node, kind: 'item' })),
      ),
    );
  }

  /** Marked items stand in another bank from now on. */
  moveInto(bank: string, lines: readonly SheetLine[] = this.markedLines): void {
    if (lines.length === 0) return;
    this.said = `${plural(lines.length, 'item')} moved.`;
    this.#queue(() =>
      this.changes.make(
        'sheet',
        lines.map(({ id }) => ({ op: 'move', node: id, to: bank })),
      ),
    );
  }

  /**
   * Marked items get a bank of their own.
   * @param banks which rows stand in which bank, by their places
   */
  newBank(
    title: string,
    banks: readonly { readonly id: string; readonly places: readonly number[] }[],
  ): void {
    const lines = this.markedLines;
    this.trouble = '';
    const from = banks.find((b) => {
      const inside = new Set(b.places);
      return lines.every((l) => inside.has(l.seq));
    });
    if (lines.length === 0 || title.trim() === '') return;
    if (!from) this.trouble = 'Mark rows of one bank: items are taken out of one at a time.';
    else if (from.places.length === lines.length)
      this.trouble = 'These are all the items of their bank; give the bank another name instead.';
    if (!from || this.trouble) return;
    this.said = `${plural(lines.length, 'item')} in a bank of their own.`;
    this.#queue(() =>
      this.changes.make('sheet', [
        { op: 'split', node: from.id, by: { title: title.trim(), items: lines.map((l) => l.id) } },
      ]),
    );
  }

  /** Shows typed texts at once, and what they came to once the server has said so. */
  send(cells: readonly TypedCell[], way: 'sheet' | 'workbook' = 'sheet'): void {
    const lines = new Map(this.lines.map((l) => [l.id, l]));
    const wanted = cells.filter((c) => lines.get(c.node)?.cells[c.column] !== c.text);
    if (wanted.length === 0) return;
    this.trouble = '';
    this.said = '';
    const by = new Map<string, TypedCell[]>();
    for (const c of wanted) {
      const of = by.get(c.node);
      if (of) of.push(c);
      else by.set(c.node, [c]);
    }
    const open = new Set<string>(SHEET_COLUMNS.filter((c) => c.open).map((c) => c.name));
    this.#renew((line) => {
      const typed = by.get(line.id)?.filter((c) => open.has(c.column));
      return typed && Object.fromEntries(typed.map((c) => [c.column, c.text]));
    });
    this.#queue(async () => {
      try {
        this.#taken(wanted, await ask<TypedDone>(this.#address, { cells: wanted, way }));
      } catch (error) {
        this.trouble = (error as Error).message;
      }
      await live.reload();
    });
  }

  #renew(change: (line: SheetLine) => Partial<SheetLine['cells']> | undefined): void {
    this.lines = this.lines.map((line) => {
      const cells = change(line);
      return cells ? { ...line, cells: { ...line.cells, ...cells } } : line;
    });
  }

  #taken(asked: readonly TypedCell[], done: TypedDone): void {
    this.#renew((line) => done.cells[line.id]);
    const next = new Map(this.troubles);
    for (const c of asked) next.delete(cellId(c.node, c.column));
    const texts = new Map(asked.map((c) => [cellId(c.node, c.column), c.text]));
    for (const t of done.troubles) {
      const id = cellId(t.node, t.column);
      next.set(id, { ...t, text: texts.get(id) ?? '' });
    }
    this.troubles = next;
    const bad = done.troubles.length;
    if (bad > 0)
      this.said = `${plural(bad, 'cell')} could not be changed; ${bad === 1 ? 'it says' : 'each says'} why.`;
  }

  /** One after the other, so that each sees what the one before it has done. */
  #queue(work: () => Promise<unknown>): void {
    this.#acts += 1;
    this.#waiting += 1;
    this.#last = this.#last.then(work).finally(() => (this.#waiting -= 1));
  }

  /** Once everything that was typed has been taken. */
  async settled(): Promise<void> {
    await this.#last;
  }

  async undo(what: 'undo' | 'redo'): Promise<void> {
    await this.settled();
    this.#queue(() => this.changes[what]());
    await this.settled();
    await this.load();
  }
}
