<script lang="ts">
  import { tick } from 'svelte';
  import { SHEET_COLUMNS } from '@alforja/core/sheet';
  import type { SheetLine } from '$lib/shared/sheet';
  import { count, plural } from '../format';
  import { columnOf, rowsOf } from '../rubrics/clipboard';
  import { VirtualRows } from '../virtual.svelte';
  import { pressGridKey } from './gridKeys';
  import { GRID_COLUMNS } from './gridColumns';
  import GridEditor from './GridEditor.svelte';
  import GridHead from './GridHead.svelte';
  import GridText from './GridText.svelte';
  import type { ItemSheet } from './itemSheet.svelte';

  let { sheet }: { sheet: ItemSheet } = $props();
  const ROW = 34;
  let grid = $state<HTMLElement>();
  let typed = $state<string | null>(null);
  /** What the virtual list asks for every row. */
  let keyed: readonly SheetLine[] = [];
  const virtual = new VirtualRows({
    count: 0,
    estimate: () => ROW,
    key: (i) => keyed[i]?.id ?? i,
    keep: () => sheet.cursor.row,
  });
  $effect(() => {
    keyed = sheet.shown;
    virtual.set(sheet.shown.length);
  });
  const at = $derived(sheet.cursor);

  export async function focus(): Promise<void> {
    await tick();
    grid?.focus();
  }
  function show(): void {
    virtual.scrollTo(at.row);
    void tick().then(() =>
      document
        .getElementById(`cell-${at.row}-${at.col}`)
        ?.scrollIntoView({ block: 'nearest', inline: 'nearest' }),
    );
  }
  function edit(from: string | null): void {
    if (sheet.shown.length === 0) return;
    typed = from;
    sheet.editing = true;
    show();
  }
  function keep(to: string, then: 'stay' | 'down' | 'right' | 'all'): void {
    sheet.editing = false;
    sheet.type(to, then === 'all');
    if (then === 'down' || then === 'right')
      sheet.go(at.row + (then === 'down' ? 1 : 0), at.col + (then === 'right' ? 1 : 0));
    if (then === 'stay') return;
    show();
    void focus();
  }
  function leave(): void {
    sheet.editing = false;
    void focus();
  }
  function keys(event: KeyboardEvent): void {
    if (sheet.editing ? !early(event) : !pressGridKey(sheet, event, edit)) return;
    event.preventDefault();
    if (!sheet.editing) show();
  }
  /** What is typed before the cell has been drawn that it goes into: it may have to be scrolled to first. */
  function early({ key, ctrlKey, metaKey }: KeyboardEvent): boolean {
    const so = typed ?? sheet.cell(at);
    if (key === 'Enter') keep(so, ctrlKey || metaKey ? 'all' : 'down');
    else if (key === 'Tab') keep(so, 'right');
    else if (key === 'Escape') leave();
    else if (Array.from(key).length === 1 && !ctrlKey && !metaKey) typed = so + key;
    else return false;
    return true;
  }
  function copy(event: ClipboardEvent): void {
    if (sheet.editing) return;
    event.preventDefault();
    event.clipboardData?.setData('text/plain', sheet.copy());
  }
  function paste(event: ClipboardEvent): void {
    if (sheet.editing || !event.clipboardData) return;
    event.preventDefault();
    const rows = columnOf(rowsOf(event.clipboardData).rows);
    if (rows.length > 0) sheet.paste(rows);
  }
  function press(event: MouseEvent, row: number, col: number): void {
    if (sheet.editing && at.row === row && at.col === col) return;
    if (sheet.editing) (document.activeElement as HTMLElement | null)?.blur();
    // The grid has the focus, never a cell: a row that scrolls away would take it along.
    event.preventDefault();
    sheet.go(row, col, event.shiftKey);
    void focus();
  }
  /** With the button held, cells the mouse comes over are marked. */
  function over(event: MouseEvent, row: number, col: number): void {
    if (event.buttons === 1 && !sheet.editing) sheet.go(row, col, true);
  }
</script>

<div class="border-hair bg-surface flex min-h-0 grow flex-col border">
  <div
    use:virtual.attach
    bind:this={grid}
    class="min-h-0 grow overflow-auto outline-offset-[-3px]"
    role="grid"
    tabindex="0"
    aria-label="Items as a sheet"
    aria-rowcount={sheet.shown.length + 1}
    aria-colcount={SHEET_COLUMNS.length + 2}
    aria-activedescendant={sheet.shown.length > 0 ? `cell-${at.row}-${at.col}` : undefined}
    aria-multiselectable="true"
    onkeydown={keys}
    oncopy={copy}
    onpaste={paste}
  >
    <div class="min-w-fit">
      <GridHead
        mark={(col) => {
          sheet.markColumn(col);
          show();
          void focus();
        }}
      />
      <div class="relative" style="height: {virtual.total}px" role="presentation">
        {#each virtual.rows as place (place.key)}
          {@const line = sheet.shown[place.index]}
          {#if line}
            <div
              role="row"
              aria-rowindex={place.index + 2}
              class="border-hair absolute top-0 left-0 grid w-full border-b {place.index === at.row
                ? 'z-1'
                : ''}"
              style="grid-template-columns: {GRID_COLUMNS}; height: {ROW}px; transform: translateY({place.start}px)"
            >
              <span role="rowheader" class="num text-quiet px-2 py-1.5 text-right text-[12.5px]"
                >{count(line.seq + 1)}</span
              >
              {#each SHEET_COLUMNS as column, col (column.name)}
                {@const here = at.row === place.index && at.col === col}
                {@const trouble = sheet.troubleAt(line, column.name)}
                <div
                  id="cell-{place.index}-{col}"
                  role="gridcell"
                  tabindex="-1"
                  aria-colindex={col + 2}
                  aria-selected={sheet.marked(place.index, col)}
                  aria-readonly={!column.open}
                  aria-invalid={trouble !== undefined}
                  title={trouble ? `${trouble.text}: ${trouble.why}` : undefined}
                  class="border-hair relative border-l px-2 py-1.5 {sheet.marked(place.index, col)
                    ? 'bg-wash'
                    : ''} {here ? 'cursor' : ''} {trouble ? 'bad' : ''} {column.open ? '' : 'text-quiet'}"
                  onmousedown={(e) => press(e, place.index, col)}
                  onmouseenter={(e) => over(e, place.index, col)}
                  ondblclick={() => edit(null)}
                >
                  {#if here && sheet.editing}<GridEditor
                      text={typed ?? line.cells[column.name]}
                      label="{column.label} of item {line.seq + 1}"
                      onkeep={keep}
                      onleave={leave}
                    />
                  {:else}<GridText
                      cells={line.cells}
                      column={column.name}
                      trouble={here ? (trouble?.why ?? null) : null}
                      end={col > 5}
                    />{/if}
                </div>
              {/each}
              <span role="gridcell" class="border-hair num border-l px-2 py-1.5 text-ochre"
                >{line.findings > 0 ? count(line.findings) : ''}<span class="sr-only"
                  >{line.findings > 0 ? '' : plural(0, 'finding')}</span
                ></span
              >
            </div>
          {/if}
        {/each}
      </div>
    </div>
  </div>
</div>

<style>
  .cursor {
    outline: 2px solid var(--agave);
    outline-offset: -2px;
    z-index: 1;
  }
  .bad {
    box-shadow: inset 0 -2px 0 var(--brick);
  }
</style>
