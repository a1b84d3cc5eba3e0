<script lang="ts">
  import { tick } from 'svelte';
  import {
    clearBlock,
    duplicateCriterion,
    duplicateLevel,
    insertCriterion,
    insertLevel,
    moveCriterion,
    moveLevel,
    removeCriterion,
    removeLevel,
    rubricPoints,
  } from '@alforja/core/edit';
  import type { Rubric, RubricMode } from '@alforja/core';
  import Button from 'flowbite-svelte/Button.svelte';
  import { count } from '../format';
  import CellEditor from './CellEditor.svelte';
  import { rowsOf } from './clipboard';
  import CriterionCell from './CriterionCell.svelte';
  import LevelCell from './LevelCell.svelte';
  import type { RubricSheet } from './sheet.svelte';

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
  function go(row: number, col: number, extend = false): void {
    sheet.go(row, col, extend);
    void focus();
  }
  function change(next: Rubric, cursor = at): void {
    sheet.change(next, cursor);
    void focus();
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
    if (then !== 'stay') go(at.row + (then === 'down' ? 1 : 0), at.col + (then === 'right' ? 1 : 0));
  }

  const addCriterion = (): void =>
    change(insertCriterion(r, at.row + (r.criteria.length > 0 ? 1 : 0)), { row: at.row + 1, col: 0 });
  const shiftCriterion = (by: number): void =>
    change(moveCriterion(r, at.row, at.row + by), { row: at.row + by, col: at.col });
  const shiftLevel = (by: number): void => {
    if (at.col > 0 && at.col + by > 0)
      change(moveLevel(r, at.col, at.col + by), { row: at.row, col: at.col + by });
  };

  function keys(event: KeyboardEvent): void {
    if (sheet.editing) return;
    const { key, shiftKey, altKey } = event;
    const ctrl = event.ctrlKey || event.metaKey;
    const steps: Record<string, [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
    };
    const step = steps[key];
    const done = (): void => event.preventDefault();
    if (step && altKey) {
      done();
      if (step[0] !== 0) shiftCriterion(step[0]);
      else shiftLevel(step[1]);
    } else if (step) {
      done();
      go(at.row + step[0], at.col + step[1], shiftKey);
    } else if (key === 'Home' || key === 'End') {
      done();
      go(
        ctrl ? (key === 'Home' ? 0 : r.criteria.length - 1) : at.row,
        key === 'Home' ? 0 : sheet.columns - 1,
        shiftKey,
      );
    } else if (key === 'Enter' || key === 'F2') {
      done();
      edit(null);
    } else if (key === 'Delete' && ctrl) {
      done();
      change(removeCriterion(r, at.row));
    } else if (key === 'Delete' || key === 'Backspace') {
      done();
      change(clearBlock(r, sheet.block));
    } else if (key === 'Insert') {
      done();
      addCriterion();
    } else if (ctrl && key.toLowerCase() === 'd') {
      done();
      change(duplicateCriterion(r, at.row), { row: at.row + 1, col: at.col });
    } else if (ctrl && key.toLowerCase() === 'z') {
      done();
      if (shiftKey) sheet.redo();
      else sheet.undo();
      void focus();
    } else if (ctrl && key.toLowerCase() === 'y') {
      done();
      sheet.redo();
      void focus();
    } else if (key.length === 1 && !ctrl && !altKey) {
      done();
      edit(key);
    }
  }

  function copy(event: ClipboardEvent, cut: boolean): void {
    if (sheet.editing) return;
    event.preventDefault();
    event.clipboardData?.setData('text/plain', sheet.copy());
    if (cut) change(clearBlock(r, sheet.block));
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
    else go(row, col, event.shiftKey);
  }
  const cellClass = (row: number, col: number): string =>
    `border-hair border-r px-3 py-2.5 align-top outline-offset-[-2px] last:border-r-0 focus:outline-2 focus:outline-agave ${sheet.marked(row, col) ? 'bg-wash' : ''}`;
</script>

<div
  class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2 text-[13.5px]"
  role="group"
  aria-label="Change the rubric"
>
  <span class="flex items-center gap-2.5"
    ><span class="text-quiet">Criterion</span>
    <button type="button" class="act disabled:text-quiet disabled:no-underline" onclick={addCriterion}
      >Add below</button
    >
    <button
      type="button"
      class="act disabled:text-quiet disabled:no-underline"
      disabled={r.criteria.length === 0}
      onclick={() => change(duplicateCriterion(r, at.row), { row: at.row + 1, col: at.col })}
      >Duplicate</button
    >
    <button
      type="button"
      class="act disabled:text-quiet disabled:no-underline"
      disabled={at.row === 0}
      onclick={() => shiftCriterion(-1)}>Up</button
    >
    <button
      type="button"
      class="act disabled:text-quiet disabled:no-underline"
      disabled={at.row + 1 >= r.criteria.length}
      onclick={() => shiftCriterion(1)}>Down</button
    >
    <button
      type="button"
      class="act disabled:text-quiet disabled:no-underline"
      disabled={r.criteria.length === 0}
      onclick={() => change(removeCriterion(r, at.row))}>Delete</button
    >
  </span>
  <span class="flex items-center gap-2.5"
    ><span class="text-quiet">Level</span>
    <button
      type="button"
      class="act disabled:text-quiet disabled:no-underline"
      disabled={r.criteria.length === 0}
      onclick={() => change(insertLevel(r, at.col + 1), { row: at.row, col: at.col + 1 })}>Add after</button
    >
    <button
      type="button"
      class="act disabled:text-quiet disabled:no-underline"
      disabled={at.col === 0}
      onclick={() => change(duplicateLevel(r, at.col))}>Duplicate</button
    >
    <button
      type="button"
      class="act disabled:text-quiet disabled:no-underline"
      disabled={at.col < 2}
      onclick={() => shiftLevel(-1)}>Left</button
    >
    <button
      type="button"
      class="act disabled:text-quiet disabled:no-underline"
      disabled={at.col === 0 || at.col >= levels}
      onclick={() => shiftLevel(1)}>Right</button
    >
    <button
      type="button"
      class="act disabled:text-quiet disabled:no-underline"
      disabled={at.col === 0}
      onclick={() => change(removeLevel(r, at.col))}>Delete</button
    >
  </span>
  <label class="flex items-center gap-2"
    ><span class="text-quiet">Counts</span>
    <select
      class="border-hair bg-surface text-ink h-7 rounded border py-0 text-[13.5px]"
      value={r.mode}
      onchange={(e) => change({ ...r, mode: e.currentTarget.value as RubricMode })}
      ><option value="points">by points</option><option value="percentage">in percent</option><option
        value="unscored">not at all</option
      ></select
    ></label
  >
  <label class="flex items-center gap-2"
    ><input
      type="checkbox"
      checked={r.freeComments ?? false}
      onchange={(e) => change({ ...r, freeComments: e.currentTarget.checked })}
      class="border-quiet text-agave size-[15px] rounded-sm dark:bg-transparent"
    />Free comments</label
  >
  <span class="ml-auto flex items-center gap-2.5">
    <span class="text-quiet" role="status">{sheet.saved === 'kept' ? 'kept' : 'keeping…'}</span>
    <Button size="xs" color="alternative" disabled={!sheet.canUndo} onclick={() => sheet.undo()}>Undo</Button>
    <Button size="xs" color="alternative" disabled={!sheet.canRedo} onclick={() => sheet.redo()}>Redo</Button>
  </span>
</div>
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
        onclick={addCriterion}>Add one</button
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
