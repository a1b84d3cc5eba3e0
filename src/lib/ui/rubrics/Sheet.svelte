<script lang="ts">
  import { tick } from 'svelte';
  import { rubricPoints } from '@alforja/core/edit';
  import type { Rubric } from '@alforja/core';
  import { count } from '../format';
  import CellEditor from './CellEditor.svelte';
  import { rowsOf } from './clipboard';
  import CriterionCell from './CriterionCell.svelte';
  import LevelCell from './LevelCell.svelte';
  import type { RubricSheet } from './sheet.svelte';
  import { pressKey } from './sheetKeys';
  import SheetTools from './SheetTools.svelte';

  let { sheet }: { sheet: RubricSheet } = $props();
  let grid = $state<HTMLElement>();
  let typed = $state<string | null>(null);
  const r = $derived(sheet.rubric);
  const at = $derived(sheet.cursor);
  const points = $derived(rubricPoints(r));
  const weights = $derived(r.criteria.reduce((sum, c) => sum + (c.weight ?? 0), 0));
  const levels = $derived(sheet.columns - 1);

  async function focus(): Promise<void> {
    await tick();
    grid?.querySelector<HTMLElement>('[tabindex="0"]')?.focus();
  }
  function edit(text: string | null): void {
    if (r.criteria.length === 0) return;
    typed = text;
    sheet.anchor = at;
    sheet.editing = true;
  }
  function keep(next: Rubric, then: 'stay' | 'down' | 'right'): void {
    sheet.editing = false;
    sheet.change(next);
    if (then === 'stay') return;
    sheet.go(at.row + (then === 'down' ? 1 : 0), at.col + (then === 'right' ? 1 : 0));
    void focus();
  }
  function keys(event: KeyboardEvent): void {
    if (sheet.editing || !pressKey(sheet, event, edit)) return;
    event.preventDefault();
    if (!sheet.editing) void focus();
  }

  function copy(event: ClipboardEvent, cut: boolean): void {
    if (sheet.editing) return;
    event.preventDefault();
    event.clipboardData?.setData('text/plain', sheet.copy());
    if (cut) sheet.clear();
    void focus();
  }
  function paste(event: ClipboardEvent): void {
    if (sheet.editing || !event.clipboardData) return;
    event.preventDefault();
    const { rows, text } = rowsOf(event.clipboardData);
    if (rows.length > 0) sheet.paste(rows, text);
    void focus();
  }
  /** What is being changed in another cell is kept first; where it cannot be, the cursor stays there. */
  function press(event: MouseEvent, row: number, col: number): void {
    if (sheet.editing && at.row === row && at.col === col) return;
    if (sheet.editing) (document.activeElement as HTMLElement | null)?.blur();
    if (sheet.editing) event.preventDefault();
    else {
      sheet.go(row, col, event.shiftKey);
      void focus();
    }
  }
  const cellClass = (row: number, col: number): string =>
    `border-hair border-r px-3 py-2.5 align-top outline-offset-[-2px] last:border-r-0 focus:outline-2 focus:outline-agave ${sheet.marked(row, col) ? 'bg-wash' : ''}`;
</script>

<SheetTools {sheet} done={() => void focus()} />
{#if sheet.trouble}<p class="text-brick mb-2" role="alert">{sheet.trouble}</p>{/if}
<div class="border-hair bg-surface overflow-x-auto border">
  <table
    bind:this={grid}
    role="grid"
    aria-label="The rubric, to be changed"
    class="w-full text-left"
    style="min-width: {180 + levels * 150}px"
    onkeydown={keys}
    oncopy={(e) => copy(e, false)}
    oncut={(e) => copy(e, true)}
    onpaste={paste}
  >
    <tbody>
      {#each r.criteria as c, row (c.id)}
        <tr class="border-hair border-b last:border-0">
          {#each { length: levels + 1 }, col (col)}
            {@const here = at.row === row && at.col === col}
            {@const level = c.levels[col - 1]}
            <svelte:element
              this={col === 0 ? 'th' : 'td'}
              role={col === 0 ? 'rowheader' : 'gridcell'}
              tabindex={here && !sheet.editing ? 0 : -1}
              aria-selected={sheet.marked(row, col)}
              class="{cellClass(row, col)} {col === 0
                ? `w-[200px] font-normal sticky left-0 ${sheet.marked(row, col) ? '' : 'bg-surface'}`
                : ''}"
              onmousedown={(e: MouseEvent) => press(e, row, col)}
              ondblclick={() => edit(null)}
            >
              {#if here && sheet.editing}
                <CellEditor
                  rubric={r}
                  cell={at}
                  {typed}
                  onkeep={keep}
                  oncancel={() => {
                    sheet.editing = false;
                    void focus();
                  }}
                />
              {:else if col === 0}
                <CriterionCell criterion={c} mode={r.mode} />
                {#if !c.title}<span class="text-quiet">no name yet</span>{/if}
              {:else if level}<LevelCell {level} />{/if}
            </svelte:element>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
  {#if r.criteria.length === 0}<p class="px-4 py-3">
      No criterion is left. <button
        type="button"
        class="act disabled:text-quiet disabled:no-underline"
        onclick={() => {
          sheet.addCriterion();
          void focus();
        }}>Add one</button
      >
    </p>{/if}
  <p class="border-hair num flex gap-4 border-t-2 px-3 py-2 font-semibold">
    <span>Total</span><span>{points === null ? 'not scored' : `${count(points)} points`}</span>
    {#if r.mode === 'percentage'}<span class={Math.abs(weights - 100) > 1e-9 ? 'text-ochre' : 'text-quiet'}
        >weights: {count(weights)} of 100</span
      >{/if}
  </p>
</div>
<p class="text-quiet mt-2 text-[12.5px]">
  Arrow keys move, Shift marks · Enter changes a cell, Esc leaves it · Alt and arrows move the criterion or
  level · Insert adds a criterion, Ctrl D duplicates it · paste fills from the cell on · Ctrl Z undoes
</p>
